import { studentQuantile } from '../../statistics/quantiles.js';
import { blockSolver, blocksOf, dot } from './reading-blocks.js';
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
 * figures together tell, so that errors of the reference do not bend the line. Repeats at one speed share their rounding
 * error, as they do where the ratio is estimated: else their number would make an offset of it.
 */
export function lineFit(
  readings: readonly SpeedReading[],
  glass: SpeedGlass,
  k: number,
  bend: (trueKmh: number) => number,
): LineFit | null {
  const n = readings.length;
  const blocks = blocksOf(readings, glass).map((block) => {
    // Rounding that two readings may share must not pass for an offset.
    const solve = blockSolver(block, k, 'shared');
    const x = block.readings.map(({ trueKmh }) => trueKmh);
    const weighted = solve(x.map((kmh) => block.shownKmh - k * kmh));
    const fitted = block.readings.map(({ trueKmh, uKmh }, i) => trueKmh + k * uKmh ** 2 * (weighted[i] ?? 0));
    return {
      x,
      g: x.map(bend),
      zx: solve(fitted),
      zg: solve(fitted.map(bend)),
      shown: x.map(() => block.shownKmh),
      solve,
    };
  });
  const sum = (of: (block: (typeof blocks)[number]) => number): number =>
    blocks.reduce((total, block) => total + of(block), 0);
  const [a, b, c, d] = [
    sum(({ zx, x }) => dot(zx, x)),
    sum(({ zx, g }) => dot(zx, g)),
    sum(({ zg, x }) => dot(zg, x)),
    sum(({ zg, g }) => dot(zg, g)),
  ];
  const determinant = a * d - b * c;
  if (n < 4 || !(Math.abs(determinant) > 1e-9 * Math.abs(a * d))) return null;
  const [p, q] = [sum(({ zx, shown }) => dot(zx, shown)), sum(({ zg, shown }) => dot(zg, shown))];
  const [slope, amount] = [(p * d - b * q) / determinant, (a * q - c * p) / determinant];
  const chi2 = sum(({ shown, x, g, solve }) => {
    const off = shown.map((figure, i) => figure - slope * (x[i] ?? 0) - amount * (g[i] ?? 0));
    return dot(off, solve(off));
  });
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
