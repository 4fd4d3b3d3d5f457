import { type SimulatedRun } from './simulated-readings.js';
/** What an estimator did over many simulated runs of which the truth is known. */
export interface EstimatorRecord {
  /** Share of the 95 % intervals that held the true ratio. */
  readonly coverage: number;
  /** Root mean square error over the Cramér-Rao bound of the same errors taken as normal ones. */
  readonly overBound: number;
  /** Mean error over the root mean square of the standard errors. */
  readonly bias: number;
}
export declare function judgeEstimator(run: SimulatedRun, sets: number): EstimatorRecord;
