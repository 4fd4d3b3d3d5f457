import { useSearchParams } from 'react-router';
import type { LineUnit } from '@decurio/contract';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { choicesOf, whichIn, type Which } from './which-units.js';
import { KeyCap } from '../ui/keys/key-cap.js';
import classes from './which-bar.module.css';

export interface WhichBarProps {
  readonly units: readonly LineUnit[];
  readonly me: string;
  readonly isClose: boolean;
  readonly onClose: () => void;
}

/** What of a delivery is shown, one key each, and how close its ranks stand. The address says it too. */
export function WhichBar({ units, me, isClose, onClose }: WhichBarProps) {
  const [params, setParams] = useSearchParams();
  const which = whichIn(params.get('show'));
  const show = (next: Which) => setParams(next === 'all' ? {} : { show: next }, { replace: true });
  const choices = choicesOf(units, me);
  useHotkeys({
    ...Object.fromEntries(choices.map(({ hotkey, which: next }) => [hotkey, () => show(next)])),
    C: onClose,
  });
  return (
    <div className={classes['bar']} role="group" aria-label="Which units">
      {choices.map(({ which: next, title, hotkey, count }) => (
        <button key={next} type="button" aria-pressed={which === next} onClick={() => show(next)}>
          {title} <b>{count}</b> <KeyCap of={hotkey} />
        </button>
      ))}
      <button type="button" className={classes['close']} aria-pressed={isClose} onClick={onClose}>
        Compact <KeyCap of="C" />
      </button>
    </div>
  );
}
