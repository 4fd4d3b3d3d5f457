import { badFigure } from '../../figures.js';
import { ok, refuse, type Result } from '../../result.js';
import { studentQuantile } from '../../statistics/quantiles.js';
import type { SpeedGlass, SpeedReading } from './reading.js';
import { blockSolver, blocksOf, dot, type ReadingBlock } from './reading-blocks.js';

/** Shown speed over true speed, with what is known of it. */
export interface SpeedRatioEstimate {
  readonly k: number;
  /** Standard deviation of `k`, the references' shared errors with it. */
  readonly u: number;
  /** Ends of the 95 % interval. */
  readonly low: number;
  readonly high: number;
  /** Degrees of freedom of the interval; infinite where the instruments alone speak. */
  readonly df: number;
  readonly count: number;
  /** Scatter of the readings over what their instruments and rounding explain; 1 is as expected, 0 for a single one. */
  readonly scatter: number;
  /** The ratio if the display truncates, where nobody knows whether it does. */
  readonly ifTruncated: number | null;
}

const ROUNDS = 60;
const SETTLED = 1e-12;

/**
 * Ratio k of shown to true speed from readings: the straight line through the origin with errors in both, weighted by
 * 1 / (k^2 u^2 + res^2 / 12), k iterated (D. York, Earth Planet. Sci. Lett. 5, 1969, extended to the rounding errors that
 * repeats at one speed share). Plain least squares of shown on true would lie low by u^2 / true^2.
 *
 * Where the readings scatter more than their instruments explain, by chi^2 / (n - 1) > 1, the excess counts with n - 1
 * degrees of freedom, and the interval is Student's t with those of Welch and Satterthwaite; one reading speaks by its
 * instruments alone. Errors that all readings of a reference share are added at the end and never shrink with their number.
 *
 * @returns refused: `noReadings`, `noSpeed` where a reading is none, `noFigure` where the display's step is none
 * @example
 * const reading = { uKmh: 0.1, reference: 'roller', uCommon: 0, scale: 1 };
 * const readings = [{ ...reading, trueKmh: 10, shownKmh: 10.3 }, { ...reading, trueKmh: 24, shownKmh: 24.7 }];
 * const ratio = estimateSpeedRatio(readings, { resolutionKmh: 0.1, rounding: 'nearest' });
 * ratio.ok && ratio.value.k.toFixed(2); // '1.03'
 */
export function estimateSpeedRatio(readings: readonly SpeedReading[], glass: SpeedGlass): Result<SpeedRatioEstimate> {
  const step = badFigure({ 'The step of the figure': [glass.resolutionKmh, 'notBelowZero'] });
  if (step) return { ok: false, problem: step };
  const bad = readings.find(isNoReading);
  if (bad)
    return refuse(
      'noSpeed',
      `A reading of ${bad.shownKmh} km/h shown at ${bad.trueKmh} km/h tells no ratio: both must be above zero, and what is known of them a figure.`,
    );
  if (readings.length === 0) return refuse('noReadings', 'There are no readings yet.');
  const fit = fitThroughOrigin(blocksOf(readings, glass));
  const n = readings.length;
  const scatter = n > 1 ? fit.chi2 / (n - 1) : 0;
  const instruments = 1 / fit.information;
  const excess = Math.max(0, scatter - 1) * instruments;
  const common = commonVariance(fit);
  const u2 = instruments + excess + common;
  const df = excess === 0 ? Infinity : ((n - 1) * u2 ** 2) / excess ** 2;
  const reach = studentQuantile(0.975, df) * Math.sqrt(u2);
  const ifTruncated =
    glass.rounding === null ? fitThroughOrigin(blocksOf(readings, { ...glass, rounding: 'truncated' })).k : null;
  return ok({
    k: fit.k,
    u: Math.sqrt(u2),
    low: fit.k - reach,
    high: fit.k + reach,
    df,
    count: n,
    scatter,
    ifTruncated,
  });
}

const isNoReading = ({ trueKmh, uKmh, shownKmh, uCommon, scale }: SpeedReading): boolean =>
  badFigure({
    'True speed': [trueKmh, 'aboveZero'],
    'Shown speed': [shownKmh, 'aboveZero'],
    'Its doubt': [uKmh, 'notBelowZero'],
    'The shared doubt': [uCommon, 'notBelowZero'],
    'The scale': [scale, 'aboveZero'],
  }) !== null;

interface Fit {
  readonly k: number;
  readonly chi2: number;
  /** Inverse variance of `k` by instruments and rounding. */
  readonly information: number;
  readonly blocks: readonly ReadingBlock[];
}

function fitThroughOrigin(blocks: readonly ReadingBlock[]): Fit {
  let k = roughRatio(blocks);
  let [chi2, information] = [0, 0];
  for (let round = 0; round < ROUNDS; round++) {
    const sums = blocks.map((block) => sumsOf(block, k));
    const total = (key: keyof (typeof sums)[number]): number => sums.reduce((sum, each) => sum + each[key], 0);
    const next = total('shown') / total('true');
    [chi2, information] = [total('chi2'), total('information')];
    const isSettled = Math.abs(next - k) < SETTLED * k;
    k = next;
    if (isSettled) break;
  }
  return { k, chi2, information, blocks };
}

function roughRatio(blocks: readonly ReadingBlock[]): number {
  const all = blocks.flatMap(({ readings, shownKmh }) => readings.map(({ trueKmh }) => ({ trueKmh, shownKmh })));
  return all.reduce((sum, { shownKmh }) => sum + shownKmh, 0) / all.reduce((sum, { trueKmh }) => sum + trueKmh, 0);
}

interface Sums {
  readonly shown: number;
  readonly true: number;
  readonly chi2: number;
  readonly information: number;
}

/**
 * A block's part of the fit. Its errors are each reading's own, and the rounding error that all have in common, so that
 * the inverse of their covariance is Sherman and Morrison's. `fitted` are the true speeds as both figures together tell them.
 */
function sumsOf(block: ReadingBlock, k: number): Sums {
  const { readings, shownKmh } = block;
  const solve = blockSolver(block, k, 'apart');
  const off = readings.map(({ trueKmh }) => shownKmh - k * trueKmh);
  const weighted = solve(off);
  const fitted = readings.map(({ trueKmh, uKmh }, i) => trueKmh + k * uKmh ** 2 * (weighted[i] ?? 0));
  const weights = solve(fitted);
  const total = weights.reduce((sum, w) => sum + w, 0);
  return {
    shown: total * shownKmh,
    true: dot(
      weights,
      readings.map(({ trueKmh }) => trueKmh),
    ),
    chi2: dot(weighted, off),
    information: dot(weights, fitted),
  };
}

/** Variance of k from what all readings of one reference share, each reference by its part of the weight. */
function commonVariance({ k, blocks, information }: Fit): number {
  const shares = new Map<string, number>();
  for (const block of blocks) {
    const part = sumsOf(block, k).information / information;
    for (const { reference, uCommon } of block.readings)
      shares.set(reference, (shares.get(reference) ?? 0) + (part / block.readings.length) * uCommon);
  }
  return [...shares.values()].reduce((sum, share) => sum + (k * share) ** 2, 0);
}
