import type { TrueSpeed } from '@decurio/core';
import type { SteadySpeed } from './steady-speed.js';
import classes from './speed-face.module.css';

/** A receiver's speed as it comes in, and whether it is steady; the one that was frozen instead, where one was. */
export function SpeedFace({ now, frozen }: { readonly now: SteadySpeed | null; readonly frozen: TrueSpeed | null }) {
  return (
    <div className={classes['face']} data-steady={now?.isSteady ?? false}>
      <output aria-live="off">{(frozen?.kmh ?? now?.kmh ?? 0).toFixed(1)}</output>
      <span>km/h true{wordsOf(now, frozen)}</span>
    </div>
  );
}

function wordsOf(now: SteadySpeed | null, frozen: TrueSpeed | null): string {
  if (frozen) return `, frozen, ± ${(frozen.uKmh * 2).toFixed(1)}`;
  if (!now) return ', waiting for a fix';
  return now.isSteady ? `, steady, ± ${(now.uKmh * 2).toFixed(1)}` : ', not steady yet';
}
