import type { Dispatch, SetStateAction } from 'react';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { KeyCap } from '../ui/keys/key-cap.js';
import classes from './measuring.module.css';

/** The ways to a true speed, beside each other; a key goes on to the next. What is shown below has `panelId`. */
export function WayTabs<Way extends string>({
  ways,
  way,
  onWay,
  hotkey,
  panelId,
}: {
  readonly ways: readonly (readonly [id: Way, title: string])[];
  readonly way: Way;
  readonly onWay: Dispatch<SetStateAction<Way>>;
  readonly hotkey: string;
  readonly panelId: string;
}) {
  useHotkeys({
    [hotkey]: () => onWay((now) => ways[(ways.findIndex(([id]) => id === now) + 1) % ways.length]?.[0] ?? now),
  });
  return (
    <div className={classes['ways']} role="tablist" aria-label="Reference">
      {ways.map(([id, title]) => (
        <button
          key={id}
          type="button"
          role="tab"
          id={`${panelId}-${id}`}
          aria-selected={way === id}
          aria-controls={panelId}
          onClick={(event) => {
            event.currentTarget.blur();
            onWay(id);
          }}
        >
          {title}
        </button>
      ))}
      <KeyCap of={hotkey} />
    </div>
  );
}
