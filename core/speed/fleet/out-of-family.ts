import { studentQuantile } from '../../statistics/quantiles.js';
import { FEWEST_RUNS } from './fewest-runs.js';
import { meanOf, spreadOf, type FamilyRun } from './family-ratio.js';

/** A unit that does not read as its family does. */
export interface OutOfFamily {
  readonly index: number;
  readonly run: FamilyRun;
  /** `atOnce`: by those that were run before it. `lookingBack`: by all of its family, once that was enough of them. */
  readonly seen: 'atOnce' | 'lookingBack';
}

/** Where the ratio of the next unit is expected by those run before it. */
export interface Expected {
  readonly count: number;
  readonly low: number;
  readonly high: number;
}

/** The fewest that tell anything of the next one. */
const FEWEST_BEFORE = 3;
/** Of units that belong to their family, 99.7 of 100 are taken for it. */
const IN_FAMILY = 0.9985;
/** What a careful measurement itself scatters by, as a share: less than that is never odd. */
const LEAST_SPREAD = 0.003;
/** Standard deviation of a normal distribution over the median of its distances from the middle. */
const SD_PER_MAD = 1.4826;

/**
 * Where a run with its own doubt `u` falls with 99.7 of 100 if its unit is of the family of those before it: Student's
 * prediction interval, with as much more doubt as this run has over theirs.
 * @returns null for fewer than three before it
 * @example
 * const before = [1.03, 1.032, 1.031].map((k) => ({ k, u: 0.001 }));
 * (expectedOf(before, 0.001)?.high ?? 0) < 1.12; // true
 */
export function expectedOf(before: readonly Pick<FamilyRun, 'k' | 'u'>[], u: number): Expected | null {
  const n = before.length;
  if (n < FEWEST_BEFORE) return null;
  const mean = meanOf(before.map(({ k }) => k));
  const spread = Math.max(spreadOf(before.map(({ k }) => k)), LEAST_SPREAD * mean);
  const more = Math.max(0, u ** 2 - meanOf(before.map((run) => run.u ** 2)));
  const reach = studentQuantile(IN_FAMILY, n - 1) * Math.sqrt(spread ** 2 * (1 + 1 / n) + more);
  return { count: n, low: mean - reach, high: mean + reach };
}

/**
 * Units that do not read as their family does, of those that no lead left out, oldest first. Each from the fourth on is
 * held against those in family before it; and once there are eight, all are held against their median and its median
 * distance, which one bad unit cannot widen so as to hide behind it. Of families of one kind alone, at most 2 in 100
 * have one named looking back.
 */
export function outOfFamily(runs: readonly FamilyRun[]): readonly OutOfFamily[] {
  const back = new Set(lookingBack(runs));
  const odd: OutOfFamily[] = [];
  const inFamily: FamilyRun[] = [];
  for (const [index, run] of runs.entries()) {
    if (run.leftOut) continue;
    const expected = expectedOf(inFamily, run.u);
    const isOdd = expected !== null && (run.k < expected.low || run.k > expected.high);
    if (isOdd) odd.push({ index, run, seen: 'atOnce' });
    else if (back.has(run)) odd.push({ index, run, seen: 'lookingBack' });
    else inFamily.push(run);
  }
  return odd;
}

function lookingBack(runs: readonly FamilyRun[]): readonly FamilyRun[] {
  const counted = runs.filter(({ leftOut }) => leftOut === null);
  const n = counted.length;
  if (n < FEWEST_RUNS) return [];
  const middle = medianOf(counted.map(({ k }) => k));
  const spread = Math.max(SD_PER_MAD * medianOf(counted.map(({ k }) => Math.abs(k - middle))), LEAST_SPREAD * middle);
  const usual = medianOf(counted.map(({ u }) => u ** 2));
  // The median distance of a few is a poor measure of spread: fewer runs must lie farther off to be odd.
  const most = 4 + 20 / n;
  return counted.filter(
    ({ k, u }) => Math.abs(k - middle) > most * Math.sqrt(spread ** 2 + Math.max(0, u ** 2 - usual)),
  );
}

function medianOf(values: readonly number[]): number {
  const sorted = values.toSorted((a, b) => a - b);
  const half = sorted.length / 2;
  const [low = 0, high = 0] = [sorted[Math.ceil(half) - 1], sorted[Math.floor(half)]];
  return (low + high) / 2;
}
