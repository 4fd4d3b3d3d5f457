import { seeded, type Seeded } from '../../statistics/seeded.js';
import type { Length } from '../step-lengths.js';
import { indexed, type IndexedProblem } from './indexed-problem.js';
import type { DayPlan, PlanProblem } from './plan-problem.js';
import { playedThrough, playOf, type Play } from './play-through.js';

/** What a task's length may really be; null where it is as planned. */
export type LengthOf = (taskId: string) => (Length & { readonly kindOf: string }) | null;

/** How often a unit is held up by something nobody foresaw, and for how long. */
export interface Surprises {
  /** Of each unit, 0 to 1. */
  readonly chance: number;
  /** Natural logarithm of seconds. */
  readonly mean: number;
  readonly sd: number;
}

export const NO_SURPRISES: Surprises = { chance: 0, mean: 0, sd: 0 };

/** When an order is ready, as far as that can be known; seconds from the problem's start. */
export interface OrderForecast {
  readonly orderId: string;
  /** Ready by then with 50, 80, 90 and 95 of 100; null where it has units that cannot be laid out. */
  readonly ready: Readonly<Record<50 | 80 | 90 | 95, number>> | null;
  /** Of 100, that it is in time; null where nothing was promised, or it cannot be laid out. */
  readonly inTime: number | null;
}

/** An order with less than this of 100 is at risk; with less than the other it will rather be late than not. */
const AT_RISK = 80;
const RATHER_LATE = 50;

/** How an order stands that is not late yet, by its chance to be in time; null where it is well, or nobody knows. */
export const riskOf = (inTime: number | null): 'atRisk' | 'ratherLate' | null =>
  inTime === null || inTime >= AT_RISK ? null : inTime < RATHER_LATE ? 'ratherLate' : 'atRisk';

const RUNS = 1_000;

/**
 * A plan run many times with lengths drawn as they may turn out, everybody keeping to the plan's order of work.
 * How far the mean of a kind may be off is drawn once a run for all its units: what was learnt from few is wrong for all
 * of them alike.
 * @param runs a thousand tell a chance to about 1.5 of 100
 */
export function forecast(
  problem: PlanProblem,
  plan: DayPlan,
  lengthOf: LengthOf,
  seed: number,
  { runs = RUNS, surprises = NO_SURPRISES }: { readonly runs?: number; readonly surprises?: Surprises } = {},
): readonly OrderForecast[] {
  const given = indexed(problem);
  const play = playOf(given, plan);
  const draw = drawer(given, lengthOf, surprises);
  const random = seeded(seed);
  const readyS = problem.orders.map(() => new Float64Array(runs));
  for (let run = 0; run < runs; run++) {
    const ready = readyInRun(given, play, draw(random));
    for (const [o, s] of ready.entries()) (readyS[o] as Float64Array)[run] = s;
  }
  const lost = new Set(plan.unplaced.map(({ unitId }) => unitId));
  const lacking = new Set(problem.units.filter(({ id }) => lost.has(id)).map(({ orderId }) => orderId));
  return problem.orders.map(({ id, dueS }, o) => {
    const times = (readyS[o] as Float64Array).sort();
    if (lacking.has(id) || (times.at(-1) ?? -1) < 0) return { orderId: id, ready: null, inTime: null };
    const by = (of100: number): number => times[Math.min(runs - 1, Math.ceil((of100 / 100) * runs) - 1)] as number;
    return {
      orderId: id,
      ready: { 50: by(50), 80: by(80), 90: by(90), 95: by(95) },
      inTime: dueS === null ? null : (100 * times.filter((s) => s <= dueS).length) / runs,
    };
  });
}

/** What a day really brings: lengths by task, and by unit for how long it is held up at which of its tasks. */
export interface Drawn {
  readonly lengthS: Float64Array;
  readonly heldS: Float64Array;
  readonly heldAt: Int32Array;
}

/** Draws days. */
export function drawer(given: IndexedProblem, lengthOf: LengthOf, surprises: Surprises): (random: Seeded) => Drawn {
  const lengths = given.tasks.map(({ task }) => lengthOf(task.id));
  const kinds = new Map<string, number>();
  const kindAt = Int32Array.from(lengths, (each) => {
    const name = each?.kindOf ?? '';
    return kinds.get(name) ?? (kinds.set(name, kinds.size), kinds.size - 1);
  });
  const mean = Float64Array.from(lengths, (each) => each?.mean ?? NaN);
  const sd = Float64Array.from(lengths, (each) => each?.sd ?? 0);
  const unsure = Float64Array.from(lengths, (each) => each?.unsure ?? 0);
  const planned = Float64Array.from(given.tasks, ({ lengthS }) => lengthS);
  return ({ uniform, normal }) => {
    const off = Float64Array.from({ length: kinds.size }, normal);
    const lengthS = new Float64Array(planned.length);
    for (let i = 0; i < planned.length; i++)
      lengthS[i] = Number.isNaN(mean[i])
        ? (planned[i] as number)
        : Math.exp(
            (mean[i] as number) +
              (unsure[i] as number) * (off[kindAt[i] as number] as number) +
              (sd[i] as number) * normal(),
          );
    const heldS = new Float64Array(given.units.length);
    const heldAt = new Int32Array(given.units.length).fill(-1);
    for (const [u, { first, last }] of given.units.entries()) {
      if (surprises.chance === 0 || uniform() >= surprises.chance) continue;
      heldS[u] = Math.exp(surprises.mean + surprises.sd * normal());
      heldAt[u] = first + Math.floor(uniform() * (last - first + 1));
    }
    return { lengthS, heldS, heldAt };
  };
}

function readyInRun(given: IndexedProblem, play: Play, drawn: Drawn): readonly number[] {
  const endS = playedThrough(given, play, drawn);
  const ready = given.problem.orders.map(() => -1);
  for (const { order, last } of given.units)
    if (order >= 0 && play.isIn(last)) ready[order] = Math.max(ready[order] as number, endS[last] as number);
  return ready;
}
