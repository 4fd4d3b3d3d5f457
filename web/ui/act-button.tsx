import type { ReactNode } from 'react';
import classes from './act-button.module.css';

export interface ActButtonProps {
  readonly children: ReactNode;
  readonly onAct: () => void;
  /** `main`: the next act, one a screen. `quiet`: beside it. `care`: stops or takes back. */
  readonly look?: 'main' | 'quiet' | 'care';
  /** The key that does the same, as printed on the button. */
  readonly hotkey?: string;
  readonly disabled?: boolean;
  readonly busy?: boolean;
  readonly type?: 'button' | 'submit';
}

/** A button for one act, with its key on it and room for a finger. */
export function ActButton({
  children,
  onAct,
  look = 'quiet',
  hotkey,
  disabled = false,
  busy = false,
  type = 'button',
}: ActButtonProps) {
  return (
    <button
      type={type}
      className={`${classes['act']} ${classes[look]}`}
      disabled={disabled || busy}
      aria-busy={busy}
      onClick={(event) => {
        // After a click the keys belong to the page again: Space must not press this button once more.
        if (event.detail > 0) event.currentTarget.blur();
        if (type === 'button') onAct();
      }}
    >
      <span>{children}</span>
      {hotkey !== undefined && <kbd aria-hidden="true">{hotkey}</kbd>}
    </button>
  );
}
