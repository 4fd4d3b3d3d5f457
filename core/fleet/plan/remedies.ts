import { changedByAll, type PlanChange } from './change.js';
import { forecast, type LengthOf, type Surprises } from './forecast.js';
import type { DayPlan, PlanProblem, OpenTime } from './plan-problem.js';
import { replan } from './replan.js';

/** What could be done for an order, and its chance then. */
export interface Remedy {
  readonly change: PlanChange;
  /** Of 100 that the order is in time. */
  readonly inTime: number;
}

/** Somebody stays, or something is open, longer by so much. */
const LONGER_S = 5_400;
const HOUR_S = 3_600;
const FOLLOWING = 2;
const LAST_OF_DAY_S = 16 * HOUR_S;

export interface RemedyOptions {
  readonly seed: number;
  readonly runs?: number;
  readonly surprises?: Surprises;
  /** Kinds of units that may be proved in either place. */
  readonly eitherPlace?: readonly string[];
}

/**
 * What one change each would do for an order that is at risk, best first: somebody stays longer, a place is open longer,
 * another place is proved in, two of its units follow later. Those that help by less than a few of 100 are left out.
 * @param inTime of 100 as things stand
 */
export function remediesFor(
  problem: PlanProblem,
  plan: DayPlan,
  orderId: string,
  inTime: number,
  lengthOf: LengthOf,
  { seed, runs = 200, surprises, eitherPlace = [] }: RemedyOptions,
): readonly Remedy[] {
  const helped = candidates(problem, orderId, eitherPlace).map((change): Remedy => {
    const asked = changedByAll(problem, [change]);
    const next = replan(asked, plan, seed, 12);
    const told = forecast(asked, next, lengthOf, seed, surprises ? { runs, surprises } : { runs });
    return { change, inTime: told.find((order) => order.orderId === orderId)?.inTime ?? 0 };
  });
  return helped.filter((remedy) => remedy.inTime >= inTime + 4).sort((a, b) => b.inTime - a.inTime);
}

function candidates(problem: PlanProblem, orderId: string, eitherPlace: readonly string[]): readonly PlanChange[] {
  const dueS = problem.orders.find(({ id }) => id === orderId)?.dueS ?? null;
  const kinds = new Set(problem.units.filter((unit) => unit.orderId === orderId).map(({ kind }) => kind));
  const proved = eitherPlace.filter((kind) => kinds.has(kind));
  const has = (kind: string): boolean => problem.places.some((place) => place.kind === kind);
  return [
    ...problem.people.flatMap(({ id, hours }): readonly PlanChange[] => {
      const last = lastBefore(hours, dueS);
      return last === null ? [] : [{ kind: 'stays', personId: id, untilS: last + LONGER_S }];
    }),
    ...problem.places.flatMap(({ id, kind, hours }): readonly PlanChange[] => {
      const last = kind === 'post' ? null : lastBefore(hours, dueS);
      return last === null ? [] : [{ kind: 'opens', placeId: id, untilS: last + HOUR_S }];
    }),
    ...(proved.length > 0 && has('roller') ? [{ kind: 'proved', unitKinds: proved, at: 'roller' } as const] : []),
    ...(proved.length > 0 && has('yard') ? [{ kind: 'proved', unitKinds: proved, at: 'yard' } as const] : []),
    { kind: 'follow', orderId, units: FOLLOWING },
  ];
}

/** When the day's last stretch ends that an order could gain by; null where it ends after it is due, or there is none. */
function lastBefore(hours: readonly OpenTime[], dueS: number | null): number | null {
  const today = hours.filter(({ fromS }) => fromS < (dueS ?? LAST_OF_DAY_S) && fromS < LAST_OF_DAY_S);
  const last = today.at(-1);
  return last && (dueS === null || last.toS < dueS) ? last.toS : null;
}
