import { studentQuantile } from '../../statistics/quantiles.js';
import type { SpeedGlass, SpeedReading } from './reading.js';

/** A straight line or a bent one through readings: shown = slope * true + amount * bend(true). */
export interface LineFit {
  readonly slope: number;
  readonly amount: number;
  /** Standard deviation of `amount`. */
  readonly uAmount: number;
  /** Standard deviation of `slope`, and covariance of the two. */
  readonly uSlope: number;
  readonly covariance: number;
  /** Degrees of freedom of these. */
  readonly df: number;
  /** The amount is not by chance, at 99 %. */
  readonly isReal: boolean;
}

const SURE = 0.995;

/**
 * Whether readings need more than a line through the origin. The columns are weighted at the true speeds that both
 * figures together tell, so that errors of the reference do not bend the line.
 */
export function lineFit(readings: readonly SpeedReading[], glass: SpeedGlass, k: number, bend: (trueKmh: number) => number): LineFit | null {
  const n = readings.length;
  const rows = readings.map(({ trueKmh, uKmh, shownKmh, scale }) => {
    const step = glass.resolutionKmh * scale;
    const shown = shownKmh + (glass.rounding === 'truncated' ? step / 2 : 0);
    const variance = (k * uKmh) ** 2 + step ** 2 / 12 + 1e-9;
    const fitted = trueKmh + (k * uKmh ** 2 * (shown - k * trueKmh)) / variance;
    return { x: trueKmh, g: bend(trueKmh), zx: fitted / variance, zg: bend(fitted) / variance, shown, variance };
  });
  const sum = (of: (row: (typeof rows)[number]) => number): number => rows.reduce((total, row) => total + of(row), 0);
  const [a, b, c, d] = [sum(({ zx, x }) => zx * x), sum(({ zx, g }) => zx * g), sum(({ zg, x }) => zg * x), sum(({ zg, g }) => zg * g)];
  const determinant = a * d - b * c;
  if (n < 4 || !(Math.abs(determinant) > 1e-9 * Math.abs(a * d))) return null;
  const [p, q] = [sum(({ zx, shown }) => zx * shown), sum(({ zg, shown }) => zg * shown)];
  const [slope, amount] = [(p * d - b * q) / determinant, (a * q - c * p) / determinant];
  const chi2 = sum(({ shown, x, g, variance }) => (shown - slope * x - amount * g) ** 2 / variance);
  const scatter = chi2 / (n - 2);
  const excess = Math.max(0, scatter - 1);
  const df = excess === 0 ? Infinity : (n - 2) * ((1 + excess) / excess) ** 2;
  const wider = 1 + excess;
  const uAmount = Math.sqrt((wider * a) / determinant);
  return {
    slope,
    amount,
    uAmount,
    uSlope: Math.sqrt((wider * d) / determinant),
    covariance: (-wider * (b + c)) / 2 / determinant,
    df,
    isReal: Math.abs(amount) > studentQuantile(SURE, df) * uAmount,
  };
}
