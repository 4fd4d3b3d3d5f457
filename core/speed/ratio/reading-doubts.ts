import { studentQuantile } from '../../statistics/quantiles.js';
import type { SpeedGlass, SpeedReading } from './reading.js';

/** A reading that does not fit the others. */
export interface ReadingDoubt {
  readonly index: number;
  /** Shown less what the ratio makes of the true speed, km/h. */
  readonly offKmh: number;
  /** Its deleted studentised residual: so many times the spread of the others. */
  readonly times: number;
}

/** A single reading cannot be told from the rest among fewer. */
const FEWEST = 5;
/** What instruments and rounding explain by themselves is nobody's fault. */
const EXPLAINED = 2.5;

/**
 * Readings beyond t(1 - 0.025 / n, n - 2) by their deleted studentised residual about the line through the origin
 * (Cook and Weisberg, 1982), n >= 5, and beyond what their own instruments explain. Only a person leaves one out.
 */
export function readingDoubts(
  readings: readonly SpeedReading[],
  { resolutionKmh, rounding }: SpeedGlass,
  k: number,
): readonly ReadingDoubt[] {
  const n = readings.length;
  if (n < FEWEST) return [];
  const rows = readings.map(({ trueKmh, uKmh, shownKmh, scale }) => {
    const step = resolutionKmh * scale;
    return {
      x: trueKmh,
      off: shownKmh + (rounding === 'truncated' ? step / 2 : 0) - k * trueKmh,
      weight: 1 / ((k * uKmh) ** 2 + step ** 2 / 12 + 1e-9),
    };
  });
  const information = rows.reduce((sum, { x, weight }) => sum + weight * x * x, 0);
  const chi2 = rows.reduce((sum, { off, weight }) => sum + weight * off * off, 0);
  const limit = studentQuantile(1 - 0.025 / n, n - 2);
  return rows.flatMap(({ x, off, weight }, index) => {
    const left = 1 - (weight * x * x) / information;
    const own = (weight * off * off) / Math.max(left, 1e-6);
    const others = Math.max((chi2 - own) / (n - 2), 1e-6);
    const times = Math.sqrt(own / others);
    return times > limit && own > EXPLAINED ** 2 ? [{ index, offKmh: off, times }] : [];
  });
}
