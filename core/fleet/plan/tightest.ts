import type { DayPlan, PlanProblem, OpenTime } from './plan-problem.js';

/** What holds an order up most: how much of its open time until then is taken. */
export interface Tightest {
  readonly of: 'people' | 'yard' | 'roller' | 'post';
  /** Seconds taken, by whatever order, and seconds there are, from now until the order is done. */
  readonly takenS: number;
  readonly openS: number;
}

/** Less than this share taken, nothing is tight: what holds it up is its units' own chain. */
const TIGHT = 0.7;

/**
 * What holds an order up, where anything does: of people and each kind of place the one of whose time most is taken
 * until the order is ready; null where none is tight, as where its last unit comes late.
 */
export function tightestOf(problem: PlanProblem, plan: DayPlan, orderId: string): Tightest | null {
  const readyS = plan.orders.find((order) => order.orderId === orderId)?.readyS ?? null;
  if (readyS === null) return null;
  const kindOf = new Map(problem.places.map(({ id, kind }) => [id, kind]));
  const taken = { people: 0, yard: 0, roller: 0, post: 0 };
  const needed = new Set<Tightest['of']>(['people']);
  const own = new Set(problem.units.filter((unit) => unit.orderId === orderId).map(({ id }) => id));
  for (const { startS, endS, personId, placeId, unitId } of plan.tasks) {
    const seconds = Math.max(0, Math.min(endS, readyS) - startS);
    if (personId !== null) taken.people += seconds;
    const kind = placeId === null ? undefined : kindOf.get(placeId);
    if (kind === undefined) continue;
    taken[kind] += seconds;
    if (own.has(unitId)) needed.add(kind);
  }
  const open = (all: readonly (readonly OpenTime[])[]): number =>
    all.flat().reduce((sum, { fromS, toS }) => sum + Math.max(0, Math.min(toS, readyS) - Math.max(0, fromS)), 0);
  const all = [...needed].map((of): Tightest => ({
    of,
    takenS: taken[of],
    openS: open(
      of === 'people'
        ? problem.people.map(({ hours }) => hours)
        : problem.places.filter(({ kind }) => kind === of).map(({ hours }) => hours),
    ),
  }));
  const share = ({ takenS, openS }: Tightest): number => (openS === 0 ? 0 : takenS / openS);
  const most = all.reduce((a, b) => (share(b) > share(a) ? b : a));
  return share(most) >= TIGHT ? most : null;
}
