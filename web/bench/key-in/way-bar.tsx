import { WAYS, type Way, type WayOfKeying } from './use-way.js';
import { KeyCap } from '../../ui/keys/key-cap.js';
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
      <KeyCap of="W" />
      <button type="button" aria-pressed={keying.spoken} onClick={keying.toggleSpoken}>
        Spoken
      </button>
      <KeyCap of="V" />
      {twins > 0 && keying.way === 'code' && (
        <>
          <button type="button" aria-pressed={keying.inTurn} onClick={keying.toggleInTurn}>
            In turn with {twins} {twins === 1 ? 'other' : 'others'}
          </button>
          <KeyCap of="I" />
        </>
      )}
    </div>
  );
}
