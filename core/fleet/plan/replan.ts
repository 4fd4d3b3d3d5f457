import { indexed, type IndexedProblem } from './indexed-problem.js';
import { layOut, type Choice, type LaidOut } from './lay-out.js';
import type { DayPlan, PlannedTask, PlanProblem } from './plan-problem.js';
import { searchDay, type PlanSearch } from './search-day.js';
import { writtenOut } from './weigh.js';

/** What a unit that goes to somebody else counts, seconds of lateness of an order of weight 1: plans that jump are not kept to. */
const MOVED_S = 90;
/** A unit begun earlier or later by no more than this has not moved. */
const MOVES_FROM_S = 30 * 60;

/** Where a unit stands in a plan: who begins with it, and when. */
export interface PlannedStart {
  readonly personId: string | null;
  readonly startS: number;
}

/** A unit that stands otherwise than before. */
export interface Moved {
  readonly unitId: string;
  readonly from: PlannedStart | null;
  readonly to: PlannedStart | null;
  readonly why:
    /** It is not to be planned any more: held, done, withdrawn. */
    | 'gone'
    /** It was not there before. */
    | 'new'
    /** Whoever had it is not there then. */
    | 'personAway'
    /** Where it was to be ridden or charged is not open then. */
    | 'placeShut'
    /** It is given to somebody. */
    | 'chosen'
    /** It comes later. */
    | 'arrivesLater'
    /** Others moved. */
    | 'follows';
}

/** When and by whom hands are first on each unit. */
export function standings({ tasks }: Pick<DayPlan, 'tasks'>): ReadonlyMap<string, PlannedStart> {
  const first = new Map<string, PlannedStart>();
  for (const { unitId, kind, personId, startS } of tasks)
    if (kind === 'hands' && !first.has(unitId)) first.set(unitId, { personId, startS });
  return first;
}

/** A plan with all its times moved: where second 0 is another moment now. */
export const shifted = (plan: DayPlan, byS: number): DayPlan => ({
  ...plan,
  tasks: plan.tasks.map((task) => ({ ...task, startS: task.startS + byS, endS: task.endS + byS })),
  orders: plan.orders.map((order) => ({ ...order, readyS: order.readyS === null ? null : order.readyS + byS })),
});

/**
 * Goes on from a plan that stood, with the day as it is now: units in hand stay where they are, and what moves counts
 * against what it gains.
 * @param before with its times from this problem's start; tasks of it that are done are not looked at
 */
export function searchAgain(problem: PlanProblem, before: DayPlan, seed: number): PlanSearch {
  const was = standings(before);
  return searchDay(problem, {
    seed,
    before: (given) => choiceAsBefore(given, before.tasks),
    movedS: (given, laid) => MOVED_S * movedCount(given, laid, was),
  });
}

/** @param tries of the search; 0 only lays the plan that stood out anew, which takes some milliseconds for 300 units */
export function replan(problem: PlanProblem, before: DayPlan, seed: number, tries = 60): DayPlan {
  if (tries === 0) {
    const given = indexed(problem);
    return writtenOut(given, layOut(given, choiceAsBefore(given, before.tasks)));
  }
  const search = searchAgain(problem, before, seed);
  for (let i = 0; i < tries; i++) search.tryOnce();
  return search.plan();
}

/** The order of a plan that stood; what it did not know comes last. */
function choiceAsBefore(given: IndexedProblem, before: readonly PlannedTask[]): Choice {
  const people = new Map(given.problem.people.map(({ id }, i) => [id, i]));
  const stood = new Map(before.map((task) => [task.id, task]));
  const order = given.tasks.filter(({ task }) => task.kind !== 'wait').map(({ index }) => index);
  const at = (index: number): number => stood.get(given.tasks[index]?.task.id ?? '')?.startS ?? Infinity;
  order.sort((a, b) => (at(a) === at(b) ? a - b : at(a) - at(b)));
  const isThere = (who: number, { startS, endS }: PlannedTask): boolean =>
    (given.personHours[who] ?? []).some(({ fromS, toS }) => fromS <= Math.max(0, startS) && endS <= toS);
  // Whoever is not there any more leaves all of a bout to somebody who is.
  const left = new Set(
    given.tasks.flatMap(({ task, bout }) => {
      const was = stood.get(task.id);
      const had = people.get(was?.personId ?? '') ?? -1;
      return was && had >= 0 && !isThere(had, was) ? [bout] : [];
    }),
  );
  const who = given.tasks.map(({ task, able, bout }) => {
    const had = people.get(stood.get(task.id)?.personId ?? '') ?? -1;
    const chosen = given.bouts[bout]?.owner ?? -1;
    return chosen >= 0 || left.has(bout) || !able.includes(had) ? -1 : had;
  });
  return { order, who };
}

function movedCount(given: IndexedProblem, { table }: LaidOut, was: ReadonlyMap<string, PlannedStart>): number {
  let count = 0;
  for (const { unit, first, last } of given.units) {
    const before = was.get(unit.id);
    if (!before) continue;
    for (let index = first; index <= last; index++) {
      const who = table.person[index] as number;
      if (who < 0) continue;
      if (given.problem.people[who]?.id !== before.personId) count += 1;
      break;
    }
  }
  return count;
}

/** Units that stand otherwise in a plan than before, each with why, earliest first. */
export function movedBetween(problem: PlanProblem, before: DayPlan, after: DayPlan): readonly Moved[] {
  const was = standings(before);
  const is = standings(after);
  const units = new Map(problem.units.map((unit) => [unit.id, unit]));
  const hours = new Map(problem.people.map(({ id, hours: own }) => [id, own]));
  const places = new Map(problem.places.map(({ id, hours: own }) => [id, own]));
  const isShut = (unitId: string): boolean =>
    before.tasks.some(
      (task) =>
        task.unitId === unitId &&
        task.placeId !== null &&
        !(places.get(task.placeId) ?? []).some(
          ({ fromS, toS }) => fromS <= Math.max(0, task.startS) && task.endS <= toS,
        ),
    );
  const whyOf = (unitId: string, from: PlannedStart, to: PlannedStart): Moved['why'] => {
    const unit = units.get(unitId);
    if (unit?.owner && unit.owner === to.personId && from.personId !== to.personId) return 'chosen';
    if (unit && unit.arrivesS > from.startS + MOVES_FROM_S) return 'arrivesLater';
    if (
      from.personId !== null &&
      !(hours.get(from.personId) ?? []).some(({ fromS, toS }) => fromS <= Math.max(0, from.startS) && from.startS < toS)
    )
      return 'personAway';
    return isShut(unitId) ? 'placeShut' : 'follows';
  };
  const all = [...new Set([...was.keys(), ...is.keys()])].flatMap((unitId): readonly Moved[] => {
    const from = was.get(unitId) ?? null;
    const to = is.get(unitId) ?? null;
    if (to === null) return [{ unitId, from, to, why: 'gone' }];
    if (from === null) return [{ unitId, from, to, why: 'new' }];
    const isSame = from.personId === to.personId && Math.abs(from.startS - to.startS) <= MOVES_FROM_S;
    return isSame ? [] : [{ unitId, from, to, why: whyOf(unitId, from, to) }];
  });
  return all.sort((a, b) => (a.to?.startS ?? a.from?.startS ?? 0) - (b.to?.startS ?? b.from?.startS ?? 0));
}
