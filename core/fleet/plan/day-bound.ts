import { indexed, type IndexedProblem, type IndexedTask } from './indexed-problem.js';
import type { PlanProblem, OpenTime } from './plan-problem.js';
import { endWithBreaks, firstFit } from './windows.js';

/** What no plan of a problem goes below, of those units that can be laid out. */
export interface DayBound {
  /** Weighted seconds late of all orders: compare `PlanCost.lateS`. */
  readonly lateS: number;
  /** When everything is done at the earliest, seconds. */
  readonly finishS: number;
  /** The order in which orders are done where lateness is the least that this bound allows, by index. */
  readonly sequence: readonly number[];
  /** When each order could be done at the earliest if they were done in that sequence, seconds, by index. */
  readonly doneS: readonly number[];
}

/** More orders than this are not held against each other one by one: there are two to their power of ways. */
const MOST_ORDERS = 12;

/**
 * A lower bound on lateness and finish. Each set of orders is done no sooner than the longest of its units takes by
 * itself, and no sooner than those who alone can do a part of its work have had the hours for it, from its earliest start
 * and before its least tail. Over the sequences in which orders can be done the least lateness is found by dynamic
 * programming (E. L. Lawler, Sequencing to minimize the weighted number of tardy jobs, 1973, with these completion times).
 */
export const dayBound = (problem: PlanProblem): DayBound => boundOf(indexed(problem));

export function boundOf(given: IndexedProblem): DayBound {
  const { orders } = given.problem;
  const loads = loadsOf(given);
  const taken = orders.flatMap((_, o) => (given.units.some(({ order }) => order === o) ? [o] : []));
  const doneBy = (set: readonly number[]): number => Math.max(0, ...loads.map((load) => load(set)));
  const lateBy = (o: number, at: number): number => {
    const { dueS, weight } = orders[o] as (typeof orders)[number];
    return dueS === null ? 0 : weight * Math.max(0, at - dueS);
  };
  const doneIn = (sequence: readonly number[]): readonly number[] => {
    const doneS = orders.map(() => 0);
    for (const [i, o] of sequence.entries()) doneS[o] = doneBy(sequence.slice(0, i + 1));
    return doneS;
  };
  const finishS = doneBy([...taken, -1]);
  if (taken.length > MOST_ORDERS) {
    const alone = taken.reduce((sum, o) => sum + lateBy(o, doneBy([o])), 0);
    const last = Math.min(...taken.map((o) => lateBy(o, finishS)));
    const byDue = [...taken].sort((a, b) => (orders[a]?.dueS ?? Infinity) - (orders[b]?.dueS ?? Infinity));
    return { lateS: Math.max(alone, last), finishS, sequence: byDue, doneS: doneIn(byDue) };
  }
  const sets = 1 << taken.length;
  const least = new Float64Array(sets);
  const lastOf = new Int32Array(sets).fill(-1);
  for (let set = 1; set < sets; set++) {
    const members = taken.filter((_, i) => (set >> i) & 1);
    const at = doneBy(members);
    least[set] = Infinity;
    for (const [i, o] of taken.entries()) {
      if (((set >> i) & 1) === 0) continue;
      const late = (least[set & ~(1 << i)] as number) + lateBy(o, at);
      if (late < (least[set] as number)) {
        least[set] = late;
        lastOf[set] = i;
      }
    }
  }
  const sequence: number[] = [];
  for (let set = sets - 1; set > 0; set &= ~(1 << (lastOf[set] as number)))
    sequence.unshift(taken[lastOf[set] as number] as number);
  return { lateS: least[sets - 1] ?? 0, finishS, sequence, doneS: doneIn(sequence) };
}

/** When a set of orders is done at the earliest, for one reason. Order -1 are units of no order. */
type Load = (orders: readonly number[]) => number;

function loadsOf(given: IndexedProblem): readonly Load[] {
  const heads = new Float64Array(given.tasks.length);
  const tails = new Float64Array(given.tasks.length);
  const chainOf = new Map<number, number>();
  for (const { unit, order, first, last } of given.units) {
    let s = Math.max(0, unit.arrivesS);
    for (let index = first; index <= last; index++) {
      const task = given.tasks[index] as IndexedTask;
      const { startS, endS } = earliestAlone(given, task, s);
      heads[index] = startS;
      s = endS;
    }
    for (let index = last - 1; index >= first; index--)
      tails[index] = (tails[index + 1] as number) + (given.tasks[index + 1] as IndexedTask).lengthS;
    chainOf.set(order, Math.max(chainOf.get(order) ?? 0, s));
  }
  const chain: Load = (orders) => Math.max(0, ...orders.map((o) => chainOf.get(o) ?? 0));
  const byPeople = poolsOf(given.tasks.map(({ able }) => able)).map((pool) =>
    loadOn(given, pool, given.personHours, ({ able }) => able, heads, tails),
  );
  const byPlaces = poolsOf(given.tasks.map(({ places }) => places)).map((pool) =>
    loadOn(given, pool, given.placeHours, ({ places }) => places, heads, tails),
  );
  return [chain, ...byPeople, ...byPlaces];
}

function earliestAlone(given: IndexedProblem, task: IndexedTask, s: number): { startS: number; endS: number } {
  const { able, places, lengthS, isSplit } = task;
  const alternatives: (readonly OpenTime[])[] =
    able.length === 0
      ? places.map((at) => given.placeHours[at] ?? [])
      : places.length === 0
        ? able.map((who) => given.personHours[who] ?? [])
        : able.flatMap((who) => places.map((at) => given.jointHours(who, at)));
  if (alternatives.length === 0) return { startS: s, endS: s + lengthS };
  const starts = alternatives.map((hours) => firstFit(hours, s, isSplit ? 1 : lengthS));
  const ends = alternatives.map((hours, i) =>
    isSplit ? endWithBreaks(hours, starts[i] as number, lengthS) : (starts[i] as number) + lengthS,
  );
  // What cannot be done at all is no bound of anything.
  const endS = Math.min(...ends);
  return endS === Infinity ? { startS: s, endS: s } : { startS: Math.min(...starts), endS };
}

/** Sets of persons, or of places, that some task is left to, and all of them together. */
function poolsOf(sets: readonly (readonly number[])[]): readonly (readonly number[])[] {
  const pools = new Map<string, readonly number[]>();
  for (const set of sets) if (set.length > 0) pools.set(set.join(' '), set);
  const all = [...new Set(sets.flat())].sort((a, b) => a - b);
  if (all.length > 0) pools.set(all.join(' '), all);
  return [...pools.values()];
}

function loadOn(
  given: IndexedProblem,
  pool: readonly number[],
  hours: readonly (readonly OpenTime[])[],
  candidates: (task: IndexedTask) => readonly number[],
  heads: Float64Array,
  tails: Float64Array,
): Load {
  const members = new Set(pool);
  const byOrder = new Map<number, { workS: number; headS: number; tailS: number }>();
  for (const task of given.tasks) {
    const may = candidates(task);
    if (may.length === 0 || !may.every((each) => members.has(each))) continue;
    const { order } = given.units[task.unit] as (typeof given.units)[number];
    const own = byOrder.get(order) ?? { workS: 0, headS: Infinity, tailS: Infinity };
    own.workS += task.lengthS;
    own.headS = Math.min(own.headS, heads[task.index] as number);
    own.tailS = Math.min(own.tailS, tails[task.index] as number);
    byOrder.set(order, own);
  }
  const enoughAt = capacity(pool.map((each) => hours[each] ?? []));
  return (orders) => {
    let workS = 0;
    let headS = Infinity;
    let tailS = Infinity;
    for (const o of orders) {
      const own = byOrder.get(o);
      if (!own) continue;
      workS += own.workS;
      headS = Math.min(headS, own.headS);
      tailS = Math.min(tailS, own.tailS);
    }
    if (workS === 0) return 0;
    const at = enoughAt(headS, workS);
    // More than there are hours for: no plan holds it, and none is bounded by it.
    return at === Infinity ? 0 : at + tailS;
  };
}

/** By when a pool has had so many seconds of hours from a second on, all its members together. */
function capacity(hours: readonly (readonly OpenTime[])[]): (fromS: number, workS: number) => number {
  const turns = hours
    .flatMap((windows) => windows.flatMap(({ fromS, toS }) => [[fromS, 1] as const, [toS, -1] as const]))
    .sort(([a], [b]) => a - b);
  const at: number[] = [0];
  const had: number[] = [0];
  const rate: number[] = [0];
  for (const [s, by] of turns) {
    const i = at.length - 1;
    const sum = (had[i] as number) + (rate[i] as number) * (s - (at[i] as number));
    at.push(s);
    had.push(sum);
    rate.push((rate[i] as number) + by);
  }
  const before = (list: readonly number[], value: number): number => {
    let low = 0;
    let high = list.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((list[middle] as number) <= value) low = middle + 1;
      else high = middle;
    }
    return Math.max(0, low - 1);
  };
  return (fromS, workS) => {
    const i = before(at, fromS);
    const wanted = (had[i] as number) + (rate[i] as number) * (fromS - (at[i] as number)) + workS;
    if (wanted > (had.at(-1) as number) + 1e-6) return Infinity;
    let j = before(had, wanted - 1e-9);
    while ((rate[j] as number) === 0 && j < rate.length - 1) j++;
    return (at[j] as number) + Math.max(0, wanted - (had[j] as number)) / Math.max(1, rate[j] as number);
  };
}
