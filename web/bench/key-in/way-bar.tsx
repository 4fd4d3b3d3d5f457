import { WAYS, type Way, type WayOfKeying } from './use-way.js';
import classes from './way-bar.module.css';

/** The three ways to key, the voice, and, with identical units side by side, taking them in turn. */
export function WayBar({ keying, twins }: { readonly keying: WayOfKeying; readonly twins: number }) {
  return (
    <div className={classes['bar']} role="group" aria-label="Way of keying">
      {(Object.keys(WAYS) as Way[]).map((way) => (
        <button key={way} type="button" aria-pressed={keying.way === way} onClick={() => keying.setWay(way)}>
          {WAYS[way]}
        </button>
      ))}
      <kbd aria-hidden="true">W</kbd>
      <button type="button" aria-pressed={keying.spoken} onClick={keying.toggleSpoken}>
        Spoken
      </button>
      <kbd aria-hidden="true">V</kbd>
      {twins > 0 && keying.way === 'code' && (
        <>
          <button type="button" aria-pressed={keying.inTurn} onClick={keying.toggleInTurn}>
            In turn with {twins} {twins === 1 ? 'other' : 'others'}
          </button>
          <kbd aria-hidden="true">I</kbd>
        </>
      )}
    </div>
  );
}
