import type { Seeded } from '../../statistics/seeded.js';
import type { DayBound } from './day-bound.js';
import type { Rule } from './dispatch.js';
import type { IndexedProblem } from './indexed-problem.js';

/** What a rule of urgency goes by. */
export interface Urgency {
  /** By when each order is aimed to be done, seconds, by index. */
  readonly doneS: readonly number[];
  /** How many times its own length ahead of that a unit is begun that is to be charged. */
  readonly ahead: number;
  /** Seconds somebody rather waits for what is in hand than begins another. */
  readonly patienceS: number;
}

const PATIENCES_S = [30, 0, 120] as const;
const AHEAD = [6, 2, 20] as const;
/** Units that are to be begun within so much of each other may change places, to go on with the same display. */
const BUCKET_S = 1_800;

/** Rules worth trying on any day: by what is due, by what weighs most, by what the bound says can be done. */
export function urgenciesFor({ problem: { orders } }: IndexedProblem, bound: DayBound): readonly Urgency[] {
  const due = orders.map(({ dueS }) => dueS ?? bound.finishS * 2);
  const most = Math.max(...orders.map(({ weight }) => weight), 1);
  const aims = [due, bound.doneS, orders.map(({ weight }, o) => ((due[o] as number) * most) / weight)];
  return AHEAD.flatMap((ahead) =>
    PATIENCES_S.flatMap((patienceS) => aims.map((doneS): Urgency => ({ doneS, ahead, patienceS }))),
  );
}

/** The same rule, a little otherwise. */
export const varied = ({ doneS, ahead, patienceS }: Urgency, { uniform, normal }: Seeded): Urgency => ({
  doneS: doneS.map((s) => (uniform() < 0.4 ? s * Math.exp(0.3 * normal()) : s)),
  ahead: uniform() < 0.3 ? Math.max(1, ahead * Math.exp(0.5 * normal())) : ahead,
  patienceS: uniform() < 0.3 ? Math.round(180 * uniform()) : patienceS,
});

/** Ranks of units under a rule: what has to be begun first, so that its order is done when it is aimed to be, goes first. */
export function ruleOf(given: IndexedProblem, { doneS, ahead, patienceS }: Urgency): Rule {
  const keyed = given.units.map(({ order, unit, first, last }, u) => {
    let chainS = 0;
    for (let i = first; i <= last; i++) chainS += given.tasks[i]?.lengthS ?? 0;
    const isCharged = unit.tasks.some(({ kind }) => kind === 'charge');
    const startS = (doneS[order] ?? 0) - chainS * (isCharged ? ahead : 1);
    return { u, unit, startS, bucket: Math.floor(startS / BUCKET_S) };
  });
  keyed.sort(
    (a, b) =>
      Number(b.unit.inHand) - Number(a.unit.inHand) ||
      a.bucket - b.bucket ||
      a.unit.kind.localeCompare(b.unit.kind) ||
      a.startS - b.startS ||
      a.u - b.u,
  );
  const rank = new Array<number>(given.units.length).fill(0);
  for (const [i, { u }] of keyed.entries()) rank[u] = i;
  return { rank, patienceS };
}

/** What is due first goes first, unit by unit as they stand in the order: what anybody would do without a plan. */
export function earliestDueRule({ problem: { orders }, units }: IndexedProblem): Rule {
  const byDue = orders
    .map((_, o) => o)
    .sort((a, b) => (orders[a]?.dueS ?? Infinity) - (orders[b]?.dueS ?? Infinity) || a - b);
  const place = new Map(byDue.map((o, i) => [o, i]));
  return {
    rank: units.map(({ order }, u) => (place.get(order) ?? byDue.length) * units.length + u),
    patienceS: 0,
  };
}
