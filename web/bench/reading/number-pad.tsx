import { IconBackspace } from '@tabler/icons-react';
import classes from './number-pad.module.css';

const DIGITS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0', '.'] as const;

/** Digits for a finger, laid out as on a keyboard's number block; never takes the focus from the field. */
export function NumberPad({
  onDigit,
  onBack,
}: {
  readonly onDigit: (digit: string) => void;
  readonly onBack: () => void;
}) {
  return (
    <div className={classes['pad']} role="group" aria-label="Number pad">
      {DIGITS.map((digit) => (
        <button
          key={digit}
          type="button"
          tabIndex={-1}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => onDigit(digit)}
        >
          {digit}
        </button>
      ))}
      <button
        type="button"
        tabIndex={-1}
        aria-label="Take back a digit"
        onMouseDown={(event) => event.preventDefault()}
        onClick={onBack}
      >
        <IconBackspace size={22} aria-hidden="true" />
      </button>
    </div>
  );
}
