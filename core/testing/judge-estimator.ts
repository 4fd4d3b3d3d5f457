import { estimateSpeedRatio } from '../speed/ratio/estimate-speed-ratio.js';
import { simulateRun, type SimulatedRun } from './simulated-readings.js';

/** What an estimator did over many simulated runs of which the truth is known. */
export interface EstimatorRecord {
  /** Share of the 95 % intervals that held the true ratio. */
  readonly coverage: number;
  /** Root mean square error over the Cramér-Rao bound of the same errors taken as normal ones. */
  readonly overBound: number;
  /** Mean error over the root mean square of the standard errors. */
  readonly bias: number;
}

export function judgeEstimator(run: SimulatedRun, sets: number): EstimatorRecord {
  let [held, errors, squares, bounds, variances] = [0, 0, 0, 0, 0];
  for (let seed = 1; seed <= sets; seed++) {
    const { k, readings } = simulateRun(run, seed);
    const estimate = estimateSpeedRatio(readings, run.glass);
    if (!estimate.ok) throw new Error(estimate.problem.message);
    const { low, high, u } = estimate.value;
    if (low <= k && k <= high) held++;
    errors += estimate.value.k - k;
    squares += (estimate.value.k - k) ** 2;
    variances += u ** 2;
    bounds += boundOf(run, readings, k);
  }
  return {
    coverage: held / sets,
    overBound: Math.sqrt(squares / bounds),
    bias: errors / sets / Math.sqrt(variances / sets),
  };
}

/** Least variance of an unbiased estimate, (shown / true)^2: independent errors of k u and rounding, and the shared one. */
function boundOf(
  { glass, reference, speeds, count }: SimulatedRun,
  readings: ReturnType<typeof simulateRun>['readings'],
  k: number,
): number {
  const rounding = glass.resolutionKmh ** 2 / 12;
  const common = (k * reference.uCommon) ** 2;
  if (speeds === 'repeated') {
    const [{ trueKmh, uKmh } = { trueKmh: 1, uKmh: 0 }] = readings;
    return ((k * uKmh) ** 2 / count + rounding) / trueKmh ** 2 + common;
  }
  return 1 / readings.reduce((sum, { trueKmh, uKmh }) => sum + trueKmh ** 2 / ((k * uKmh) ** 2 + rounding), 0) + common;
}
