import type { ReactNode } from 'react';
import { mayAct } from './keys/bounce.js';
import { KeyCap } from './keys/key-cap.js';
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
  /** Whether what it opens is open, where it opens something beneath. */
  readonly expanded?: boolean;
}

/** A button for one act, with its key on it and room for a finger. Key and finger act once per press alike. */
export function ActButton({
  children,
  onAct,
  look = 'quiet',
  hotkey,
  disabled = false,
  busy = false,
  type = 'button',
  expanded,
}: ActButtonProps) {
  return (
    <button
      type={type}
      className={`${classes['act']} ${classes[look]}`}
      data-act={look}
      disabled={disabled || busy}
      aria-busy={busy}
      aria-expanded={expanded}
      onClick={(event) => {
        // Enter in a field clicks the button that sends its form: what was typed is meant.
        const isMeant = hotkey === undefined || hotkey === 'Enter' || mayAct(hotkey);
        if (!isMeant) event.preventDefault();
        else if (type === 'button') onAct();
      }}
    >
      <span>{children}</span>
      {hotkey !== undefined && hotkey !== '' && <KeyCap of={hotkey} />}
    </button>
  );
}
