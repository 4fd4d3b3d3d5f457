import { shuffled } from '../../statistics/shuffled.js';
import type { IndexedProblem } from './indexed-problem.js';
import type { Choice, LaidOut } from './lay-out.js';

/** One change to a choice, at random: a unit or a task goes earlier or later, two change places, a unit goes to somebody else. */
export function moved(given: IndexedProblem, choice: Choice, laid: LaidOut, uniform: () => number): Choice {
  const { order } = choice;
  if (order.length < 2) return choice;
  const pick = (count: number): number => Math.min(count - 1, Math.floor(uniform() * count));
  // Now and then all over again: hollows of a small day are deep and close.
  if (order.length <= FEW && uniform() < ANEW) return anyChoice(given, choice, uniform);
  const chance = uniform();
  const index = order[pick(order.length)] as number;
  const reach = Math.max(2, Math.ceil(order.length * (uniform() < 0.5 ? 0.05 : 0.5)));
  const by = 1 + pick(reach);
  if (chance < 0.3) return withShifted(choice, (each) => each === index, uniform() < 0.6 ? -by : by);
  if (chance < 0.55) {
    const { unit } = given.tasks[lateOne(given, laid, index, uniform)] as (typeof given.tasks)[number];
    return withShifted(choice, (each) => given.tasks[each]?.unit === unit, uniform() < 0.75 ? -by : by);
  }
  if (chance < 0.8) return withOther(given, choice, index, pick);
  return withSwapped(given, choice, index, order[pick(order.length)] as number);
}

/** So few tasks that a day may as well be begun anew. */
export const FEW = 24;
const ANEW = 0.2;

/** Any order, and any owners. */
export function anyChoice(given: IndexedProblem, { order, who }: Choice, uniform: () => number): Choice {
  const owners = given.bouts.map(({ tasks, owner }) => {
    if (owner >= 0) return -1;
    const able = given.tasks[tasks[0] as number]?.able ?? [];
    return able[Math.floor(uniform() * able.length)] ?? -1;
  });
  return {
    order: uniform() < 0.5 ? shuffled(order, uniform) : order,
    who: who.map((_, index) => {
      const task = given.tasks[index] as (typeof given.tasks)[number];
      const owner = owners[task.bout] as number;
      return owner >= 0 && task.apartFrom === -1 && task.able.includes(owner) ? owner : -1;
    }),
  };
}

/** Mostly a task of an order that is late: the others are seldom in the way. */
function lateOne(given: IndexedProblem, { table }: LaidOut, index: number, uniform: () => number): number {
  const { orders } = given.problem;
  const late = given.units.filter(({ order, last }) => {
    const dueS = orders[order]?.dueS ?? null;
    return dueS !== null && (table.endS[last] as number) > dueS;
  });
  if (late.length === 0 || uniform() < 0.4) return index;
  return late[Math.floor(uniform() * late.length)]?.first ?? index;
}

function withShifted({ order, who }: Choice, isOne: (index: number) => boolean, by: number): Choice {
  const shifted = order.map((index, at) => ({ index, at: isOne(index) ? at + by + (by > 0 ? 0.5 : -0.5) : at }));
  shifted.sort((a, b) => a.at - b.at);
  return { order: shifted.map(({ index }) => index), who };
}

/** A unit's bout, or a single task of it, by somebody else. */
function withOther(
  given: IndexedProblem,
  { order, who }: Choice,
  index: number,
  pick: (count: number) => number,
): Choice {
  const task = given.tasks[index] as (typeof given.tasks)[number];
  const bout = given.bouts[task.bout] as (typeof given.bouts)[number];
  const had = who[index] ?? -1;
  const others = task.able.filter((each) => each !== had);
  const other = others[pick(others.length)] ?? -1;
  const next = [...who];
  // What the whole bout was done by one goes to the other with it; what it needs a second person for is found anew.
  for (const each of bout.tasks)
    if (who[each] === had || given.tasks[each]?.apartFrom !== -1)
      next[each] = given.tasks[each]?.able.includes(other) && given.tasks[each]?.apartFrom === -1 ? other : -1;
  if (bout.owner >= 0) for (const each of bout.tasks) next[each] = who[each] ?? -1;
  return { order, who: next };
}

function withSwapped(given: IndexedProblem, { order, who }: Choice, a: number, b: number): Choice {
  const [x, y] = [given.tasks[a]?.bout, given.tasks[b]?.bout];
  if (x === y) return withShifted({ order, who }, (each) => each === a, -1);
  const at = order.flatMap((index, i) => (given.tasks[index]?.bout === x || given.tasks[index]?.bout === y ? [i] : []));
  const [first, second] = (order.indexOf(a) < order.indexOf(b) ? [y, x] : [x, y]) as [number, number];
  const tasksOf = (bout: number): readonly number[] => order.filter((index) => given.tasks[index]?.bout === bout);
  const swapped = [...tasksOf(first), ...tasksOf(second)];
  const next = [...order];
  for (const [i, position] of at.entries()) next[position] = swapped[i] as number;
  return { order: next, who };
}
