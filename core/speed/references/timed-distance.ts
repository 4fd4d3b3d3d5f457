import { badFigure } from '../../figures.js';
import { ok, refuse, type Result } from '../../result.js';
import type { TrueSpeed } from './true-speed.js';

/** Standard deviation of starting or stopping a watch by hand, s. */
export const HAND_S = 0.1;

/** Nothing that is got ready here goes faster. */
const FASTEST_KMH = 120;

export interface TimedDistance {
  /** Between the marks, m. */
  readonly distanceM: number;
  /** Standard deviation of that, m: every run between the same marks shares it. */
  readonly uDistanceM: number;
  readonly seconds: number;
}

/**
 * True speed over a marked distance by a watch that is started and stopped by hand.
 * @returns refused: `noDistance`, `noTime`, `tooFast`
 * @example
 * const speed = timedSpeed({ distanceM: 50, uDistanceM: 0.1, seconds: 8 });
 * speed.ok && [speed.value.kmh, speed.value.uCommon]; // [22.5, 0.002]
 */
export function timedSpeed({ distanceM, uDistanceM, seconds }: TimedDistance): Result<TrueSpeed> {
  if (badFigure({ 'The distance': [distanceM, 'aboveZero'], 'Its doubt': [uDistanceM, 'notBelowZero'] }))
    return refuse('noDistance', 'Type how far apart the marks are, in metres, and how sure that is.');
  if (badFigure({ 'The time': [seconds, 'aboveZero'] })) return refuse('noTime', 'The watch has not run.');
  const kmh = (3.6 * distanceM) / seconds;
  if (kmh > FASTEST_KMH)
    return refuse(
      'tooFast',
      `${distanceM} m in ${seconds.toFixed(2)} s would be ${Math.round(kmh)} km/h: time it again, over a longer way.`,
    );
  return ok({ kmh, uKmh: (kmh * Math.SQRT2 * HAND_S) / seconds, uCommon: uDistanceM / distanceM });
}
