import type { OpenTime, PlanOrder, PlanProblem, PlanTask, PlanUnit } from './plan-problem.js';

/** One thing that could be otherwise. Times are seconds from the problem's start. */
export type PlanChange =
  /** There until then, from when the last of that stretch ends now. */
  | { readonly kind: 'stays'; readonly personId: string; readonly untilS: number }
  | { readonly kind: 'leaves'; readonly personId: string; readonly fromS: number; readonly untilS: number }
  | { readonly kind: 'opens'; readonly placeId: string; readonly untilS: number }
  | { readonly kind: 'shuts'; readonly placeId: string; readonly fromS: number; readonly untilS: number }
  | { readonly kind: 'due'; readonly orderId: string; readonly dueS: number | null }
  /** Units of a kind are proved there. */
  | { readonly kind: 'proved'; readonly unitKinds: readonly string[]; readonly at: 'yard' | 'roller' }
  /** So many units of an order, those that are furthest from done, may follow later. */
  | { readonly kind: 'follow'; readonly orderId: string; readonly units: number }
  /** A unit is one person's; null leaves it to the plan. */
  | { readonly kind: 'give'; readonly unitId: string; readonly personId: string | null }
  /** One more order is taken in. */
  | { readonly kind: 'takes'; readonly order: PlanOrder; readonly units: readonly PlanUnit[] };

/** The problem as it would be. What a change names and is not there changes nothing. */
export function changedBy(problem: PlanProblem, change: PlanChange): PlanProblem {
  switch (change.kind) {
    case 'stays':
      return withHours(problem, 'people', change.personId, (hours) => until(hours, change.untilS));
    case 'leaves':
      return withHours(problem, 'people', change.personId, (hours) => without(hours, change.fromS, change.untilS));
    case 'opens':
      return withHours(problem, 'places', change.placeId, (hours) => until(hours, change.untilS));
    case 'shuts':
      return withHours(problem, 'places', change.placeId, (hours) => without(hours, change.fromS, change.untilS));
    case 'due':
      return {
        ...problem,
        orders: problem.orders.map((order) => (order.id === change.orderId ? { ...order, dueS: change.dueS } : order)),
      };
    case 'proved':
      return withUnits(problem, (unit) =>
        change.unitKinds.includes(unit.kind)
          ? { ...unit, tasks: unit.tasks.map((task) => provedAt(task, change.at)) }
          : unit,
      );
    case 'follow':
      return followed(problem, change.orderId, change.units);
    case 'takes':
      return { ...problem, orders: [...problem.orders, change.order], units: [...problem.units, ...change.units] };
    case 'give':
      return withUnits(problem, (unit) => (unit.id === change.unitId ? { ...unit, owner: change.personId } : unit));
  }
}

export const changedByAll = (problem: PlanProblem, changes: readonly PlanChange[]): PlanProblem =>
  changes.reduce(changedBy, problem);

function withHours<K extends 'people' | 'places'>(
  problem: PlanProblem,
  of: K,
  id: string,
  make: (hours: readonly OpenTime[]) => readonly OpenTime[],
): PlanProblem {
  const all: readonly { readonly id: string; readonly hours: readonly OpenTime[] }[] = problem[of];
  return { ...problem, [of]: all.map((each) => (each.id === id ? { ...each, hours: make(each.hours) } : each)) };
}

const withUnits = (problem: PlanProblem, make: (unit: PlanUnit) => PlanUnit): PlanProblem => ({
  ...problem,
  units: problem.units.map(make),
});

/** The last stretch that begins before `untilS` goes on until then. */
function until(hours: readonly OpenTime[], untilS: number): readonly OpenTime[] {
  const before = hours.filter(({ fromS }) => fromS < untilS);
  const last = before.at(-1);
  if (!last || last.toS >= untilS) return hours;
  return hours.flatMap((each) =>
    each === last ? [{ fromS: each.fromS, toS: untilS }] : each.fromS < untilS && each.fromS > last.fromS ? [] : [each],
  );
}

const without = (hours: readonly OpenTime[], fromS: number, untilS: number): readonly OpenTime[] =>
  hours.flatMap((each) =>
    each.toS <= fromS || each.fromS >= untilS
      ? [each]
      : [
          { fromS: each.fromS, toS: fromS },
          { fromS: untilS, toS: each.toS },
        ].filter((part) => part.toS > part.fromS),
  );

const provedAt = (task: PlanTask, at: 'yard' | 'roller'): PlanTask =>
  task.kind === 'hands' && task.step === 'prove' ? { ...task, at } : task;

/** What is left at a unit, seconds. */
const leftAt = ({ tasks }: PlanUnit): number => tasks.reduce((sum, { lengthS }) => sum + lengthS, 0);

function followed(problem: PlanProblem, orderId: string, count: number): PlanProblem {
  const later = new Set(
    problem.units
      .filter((unit) => unit.orderId === orderId && !unit.inHand)
      .sort((a, b) => b.arrivesS - a.arrivesS || leftAt(b) - leftAt(a))
      .slice(0, count)
      .map(({ id }) => id),
  );
  const rest = `${orderId} later`;
  const order = problem.orders.find(({ id }) => id === orderId);
  if (!order || later.size === 0) return problem;
  return {
    ...problem,
    orders: [...problem.orders, { ...order, id: rest, dueS: null }],
    units: problem.units.map((unit) => (later.has(unit.id) ? { ...unit, orderId: rest } : unit)),
  };
}
