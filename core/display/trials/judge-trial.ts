import { badFigure } from '../../figures.js';
import { ok, refuse, type Result } from '../../result.js';
import { medianOf } from '../../statistics/median.js';
import { seeded } from '../../statistics/seeded.js';
import { shuffled } from '../../statistics/shuffled.js';
import { rankSumInterval } from './rank-sum.js';
import type { TrialPlan, TrialRun } from './trial.js';

/** All arrangements are gone through up to so many, else as many are drawn. */
const MOST_ARRANGEMENTS = 50_000;
const ALPHA = 0.05;
/** What is looked at again and again cries out by chance at last: the first look may err most, each later one half as often. */
const mayErr = (look: number): number => ALPHA * (look === 1 ? 0.6 : 0.4 / 2 ** (look - 1));
/** More runs of each value than this nobody makes. */
const MOST_MORE = 60;

/** One value beside the first: how far it lies from it, with its 95 % interval (for all values together). */
export interface TrialShift {
  readonly raw: number;
  /** Hodges-Lehmann: the median of all differences between the two. */
  readonly shift: number;
  /** Infinite where so few runs bound nothing. */
  readonly low: number;
  readonly high: number;
}

export interface TrialJudgement {
  /** `differs`: seen beyond chance. `alike`: no difference that would matter. `open`: neither yet. */
  readonly verdict: 'differs' | 'alike' | 'open';
  /** How often chance alone would set the values as far apart as they were seen. */
  readonly p: number;
  /** Whether `p` is exact, or by so many arrangements drawn. */
  readonly isExact: boolean;
  readonly medians: readonly { readonly raw: number; readonly runs: number; readonly median: number }[];
  readonly shifts: readonly TrialShift[];
  /** Further runs of each value that would settle it, as far as can be told; 0 where it is settled. */
  readonly moreEach: number;
  /** Change from one run to the next, whatever the value, where it is beyond chance: a pack that sinks, a motor that warms. */
  readonly drift: number | null;
}

/**
 * Whether the values of a code differ in what was measured. Exact permutation test of the spread between the values'
 * means (all arrangements up to 50,000, else a seeded sample: then p counts the arrangement seen too), Hodges-Lehmann
 * shifts with intervals by the rank sum, Bonferroni over the values. Runs in the order in which they were made. Over all
 * looks together a code that does nothing is said to do something in one trial of twenty at most.
 * @param look 1 once the first runs are made, 2 after more were drawn, and so on
 * @returns refused: `noFigure` where one is none, `tooFew` under two runs of each value or fewer than two values
 * @example
 * const runs = [1.0, 1.1, 1.2, 1.3].map((measured) => ({ raw: 1, measured }));
 * const quicker = [0.2, 0.3, 0.4, 0.5].map((measured) => ({ raw: 5, measured }));
 * const found = judgeTrial({ values: [1, 5], matters: 0.3, seed: 1 }, [...runs, ...quicker]);
 * found.ok && [found.value.verdict, found.value.p.toFixed(3), found.value.shifts[0].shift.toFixed(1)]; // ['differs', '0.029', '-0.8']
 */
export function judgeTrial(
  { values, matters, seed }: Pick<TrialPlan, 'values' | 'matters' | 'seed'>,
  runs: readonly TrialRun[],
  look = 1,
): Result<TrialJudgement> {
  const bad =
    badFigure({ 'The difference that matters': [matters, 'aboveZero'] }) ??
    runs.map(({ measured }) => badFigure({ 'What was measured': [measured, 'notBelowZero'] })).find((each) => each);
  if (bad) return { ok: false, problem: bad };
  const groups = values.map((raw) => runs.filter((run) => run.raw === raw).map(({ measured }) => measured));
  if (groups.length < 2 || groups.some((group) => group.length < 2))
    return refuse('tooFew', 'Two values at least, each with two runs, are needed before anything can be said.');
  const { p, isExact } = chanceOf(groups, seed);
  const alpha = mayErr(look);
  const [first = [], ...others] = groups;
  const shifts = others.map((group, i): TrialShift => {
    const { shift, low, high } = rankSumInterval(first, group, alpha / others.length);
    return { raw: values[i + 1] ?? 0, shift, low, high };
  });
  const isAlike = shifts.every(({ low, high }) => Math.max(-low, high) < matters);
  const verdict = p <= alpha ? 'differs' : isAlike ? 'alike' : 'open';
  return ok({
    verdict,
    p,
    isExact,
    medians: values.map((raw, i) => ({ raw, runs: groups[i]?.length ?? 0, median: medianOf(groups[i] ?? []) })),
    shifts,
    moreEach: verdict === 'open' ? moreNeeded(first.length, shifts, matters, values.length) : 0,
    drift: driftOf(values, runs, seed),
  });
}

const mean = (all: readonly number[]): number => all.reduce((sum, each) => sum + each, 0) / all.length;

/** Sums of squares that differ by rounding alone are the same. */
const asFar = (spread: number, seen: number): boolean => spread >= seen - 1e-9 * Math.abs(seen);

/** How often an arrangement sets the groups' means at least as far apart as they were seen. */
function chanceOf(
  groups: readonly (readonly number[])[],
  seed: number,
): { readonly p: number; readonly isExact: boolean } {
  const all = groups.flat();
  const sizes = groups.map((group) => group.length);
  // The sum of squares about the whole mean moves with this alone.
  const spreadOf = (sums: readonly number[]): number =>
    sums.reduce((sum, each, i) => sum + each ** 2 / (sizes[i] ?? 1), 0);
  const centre = mean(all);
  const moved = all.map((each) => each - centre);
  const seen = spreadOf(groups.map((group) => group.reduce((sum, each) => sum + each - centre, 0)));
  if (arrangements(sizes) <= MOST_ARRANGEMENTS) {
    const { far, count } = throughAll(moved, sizes, (sums) => asFar(spreadOf(sums), seen));
    return { p: far / count, isExact: true };
  }
  const { uniform } = seeded(seed);
  const pool = Float64Array.from(moved);
  let far = 1;
  for (let draw = 0; draw < MOST_ARRANGEMENTS; draw++) if (asFar(spreadOf(drawn(pool, sizes, uniform)), seen)) far++;
  return { p: far / (MOST_ARRANGEMENTS + 1), isExact: false };
}

/** In how many ways so many runs can be shared out among the values; infinite beyond counting. */
function arrangements(sizes: readonly number[]): number {
  let [ways, placed] = [1, 0];
  for (const size of sizes) for (let i = 1; i <= size; i++) ways = (ways * ++placed) / i;
  return Math.round(ways);
}

function throughAll(
  all: readonly number[],
  sizes: readonly number[],
  isFar: (sums: readonly number[]) => boolean,
): { readonly far: number; readonly count: number } {
  const left = [...sizes];
  const sums = sizes.map(() => 0);
  let [far, count] = [0, 0];
  const place = (at: number): void => {
    if (at === all.length) {
      count++;
      if (isFar(sums)) far++;
      return;
    }
    for (let group = 0; group < left.length; group++) {
      if (left[group] === 0) continue;
      left[group] = (left[group] ?? 0) - 1;
      sums[group] = (sums[group] ?? 0) + (all[at] ?? 0);
      place(at + 1);
      sums[group] = (sums[group] ?? 0) - (all[at] ?? 0);
      left[group] = (left[group] ?? 0) + 1;
    }
  };
  place(0);
  return { far, count };
}

/** Sums of the groups in another arrangement of `pool`, which is left in it. Its own sum is 0, so the last group's follows. */
function drawn(pool: Float64Array, sizes: readonly number[], uniform: () => number): readonly number[] {
  const sums = sizes.map(() => 0);
  let [at, placed] = [0, 0];
  for (let group = 0; group < sizes.length - 1; group++) {
    let sum = 0;
    for (const end = at + (sizes[group] ?? 0); at < end; at++) {
      const j = at + Math.floor(uniform() * (pool.length - at));
      const taken = pool[j] ?? 0;
      pool[j] = pool[at] ?? 0;
      pool[at] = taken;
      sum += taken;
    }
    sums[group] = sum;
    placed += sum;
  }
  sums[sizes.length - 1] = -placed;
  return sums;
}

/** Fewest runs of each of two values with which a difference could be seen at all, and its interval be bounded. */
const LEAST_EACH = [0, 0, 4, 5, 5] as const;

/** Intervals shrink with the root of the runs: how many more bring the nearer of both answers in reach. */
function moreNeeded(each: number, shifts: readonly TrialShift[], matters: number, values: number): number {
  const least = Math.max(0, (LEAST_EACH[values] ?? 5) - each);
  const needed = shifts.map(({ shift, low, high }) => {
    const half = (high - low) / 2;
    if (!Number.isFinite(half)) return each + Math.max(1, least);
    const reach = Math.max(Math.abs(shift), matters - Math.abs(shift));
    return each * (half / reach) ** 2;
  });
  return Math.min(MOST_MORE, Math.max(1, least, Math.ceil(Math.max(...needed)) - each));
}

const DRIFT_DRAWS = 4_000;
const DRIFT_ALPHA = 0.01;

/** Slope of what was measured, less the mean of its value, over the number of the run; null where chance would do. */
function driftOf(values: readonly number[], runs: readonly TrialRun[], seed: number): number | null {
  const asked = runs.filter(({ raw }) => values.includes(raw));
  const means = new Map(
    values.map((raw) => [raw, mean(asked.filter((run) => run.raw === raw).map(({ measured }) => measured))]),
  );
  const rest = asked.map(({ raw, measured }) => measured - (means.get(raw) ?? 0));
  const middle = (rest.length - 1) / 2;
  const weights = rest.map((_, i) => i - middle);
  const squares = weights.reduce((sum, w) => sum + w ** 2, 0);
  const slope = (all: readonly number[]): number =>
    all.reduce((sum, each, i) => sum + each * (weights[i] ?? 0), 0) / squares;
  const seen = slope(rest);
  if (rest.length < 6 || rest.every((each) => each === 0)) return null;
  const { uniform } = seeded(seed + 1);
  let far = 1;
  for (let draw = 0; draw < DRIFT_DRAWS; draw++) if (Math.abs(slope(shuffled(rest, uniform))) >= Math.abs(seen)) far++;
  return far / (DRIFT_DRAWS + 1) <= DRIFT_ALPHA ? seen : null;
}
