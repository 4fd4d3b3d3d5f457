import { studentQuantile } from '../../statistics/quantiles.js';
import { oneSidedFactor, twoSidedFactor } from '../../statistics/tolerance.js';

/** What one unit of a family was measured to: shown over true speed, brought to one wheel code and pulse count. */
export interface FamilyRun {
  readonly visitId: string;
  readonly serial: string;
  readonly k: number;
  /** Standard deviation of `k` by this run's own readings, what it shares with others left out. */
  readonly u: number;
  /** ISO 8601. */
  readonly at: string;
  /** Why a lead leaves it out, and who; null where it counts. */
  readonly leftOut: { readonly words: string; readonly by: string } | null;
}

/** What the units measured so far say of the next ones of their type, display revision and tyre. */
export interface FamilyRatio {
  readonly count: number;
  readonly mean: number;
  /** Sample standard deviation. */
  readonly spread: number;
  /** Two-sided 95/95 tolerance interval of a unit's ratio. */
  readonly tolerance: { readonly low: number; readonly high: number };
  /** Above this lie 99 % of units, at 95 % confidence: what a cap has to hold for. */
  readonly capLow: number;
  /** Where the next unit's ratio falls with 95 %. */
  readonly next: { readonly low: number; readonly high: number };
}

/**
 * What a family's runs say of its next unit. `uCommon`: relative error that all of them share.
 * @returns null for fewer than two, or where a figure is none
 * @example
 * const run = (k: number) => ({ visitId: '', serial: '', k, u: 0.002, at: '', leftOut: null });
 * familyRatio([1.02, 1.03, 1.04].map(run), 0)?.mean; // 1.03
 */
export function familyRatio(runs: readonly Pick<FamilyRun, 'k'>[], uCommon: number): FamilyRatio | null {
  const n = runs.length;
  if (n < 2 || !(uCommon >= 0) || runs.some(({ k }) => !(k > 0 && k < Infinity))) return null;
  const mean = meanOf(runs.map(({ k }) => k));
  const spread = spreadOf(runs.map(({ k }) => k));
  const shared = 1.96 * uCommon * mean;
  const reach = twoSidedFactor(n) * spread + shared;
  const ahead = studentQuantile(0.975, n - 1) * spread * Math.sqrt(1 + 1 / n);
  return {
    count: n,
    mean,
    spread,
    tolerance: { low: mean - reach, high: mean + reach },
    capLow: mean - oneSidedFactor(n) * spread - 1.645 * uCommon * mean,
    next: { low: mean - ahead, high: mean + ahead },
  };
}

export const meanOf = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

/** Sample standard deviation; 0 for a single value. */
export function spreadOf(values: readonly number[]): number {
  if (values.length < 2) return 0;
  const mean = meanOf(values);
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1));
}
