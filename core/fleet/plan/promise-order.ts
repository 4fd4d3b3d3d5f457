import { forecast, type LengthOf, type OrderForecast, type Surprises } from './forecast.js';
import type { DayPlan, PlanOrder, PlanProblem, PlanUnit } from './plan-problem.js';
import { replan } from './replan.js';

/** What an order would do to others. */
export interface Push {
  readonly orderId: string;
  /** Seconds late before and after, as planned. */
  readonly lateS: { readonly before: number; readonly after: number };
  /** Of 100 that it is in time; null where nothing was promised. */
  readonly inTime: { readonly before: number | null; readonly after: number | null };
}

/** What can be promised of an order that is offered. */
export interface OrderOffer {
  /** When it is ready behind all that was promised, which it makes no later than it is. */
  readonly behind: OrderForecast;
  /** When it is ready if it is wanted by a time, and what it pushes then; null where no time was asked. */
  readonly wanted: { readonly forecast: OrderForecast; readonly pushes: readonly Push[] } | null;
}

/** Less than this nobody minds, of 100 and in seconds. */
const MINDED = { inTime: 3, lateS: 300 };

/** Counts for so little that every order that was promised goes before it. */
const LAST = 1e-6;

/**
 * Before an order is taken: the first time by which it can be ready with 90 of 100 (`behind.ready[90]`), and where it is
 * wanted sooner, what that would push.
 * @param plan of what is there, for `problem`
 * @param wantedS by when it is wanted, or null
 */
export function offerOf(
  problem: PlanProblem,
  plan: DayPlan,
  offered: { readonly order: PlanOrder; readonly units: readonly PlanUnit[] },
  wantedS: number | null,
  lengthOf: LengthOf,
  { seed, runs = 400, surprises }: { readonly seed: number; readonly runs?: number; readonly surprises?: Surprises },
): OrderOffer {
  const options = surprises ? { runs, surprises } : { runs };
  const with_ = (dueS: number | null, weight: number): PlanProblem => ({
    ...problem,
    orders: [...problem.orders, { ...offered.order, dueS, weight }],
    units: [...problem.units, ...offered.units],
  });
  const told = (asked: PlanProblem): { readonly plan: DayPlan; readonly all: readonly OrderForecast[] } => {
    const next = replan(asked, plan, seed, 30);
    return { plan: next, all: forecast(asked, next, lengthOf, seed, options) };
  };
  const own = (all: readonly OrderForecast[]): OrderForecast =>
    all.find(({ orderId }) => orderId === offered.order.id) ?? { orderId: offered.order.id, ready: null, inTime: null };
  // Due at once, and of next to no weight: as soon as it goes without making anything else later.
  const behind = own(told(with_(0, LAST)).all);
  if (wantedS === null) return { behind, wanted: null };
  const before = forecast(problem, plan, lengthOf, seed, options);
  const sooner = told(with_(wantedS, offered.order.weight));
  const pushes = problem.orders.map(({ id }): Push => {
    const late = ({ orders }: DayPlan): number => orders.find(({ orderId }) => orderId === id)?.lateS ?? 0;
    const inTime = (all: readonly OrderForecast[]): number | null =>
      all.find(({ orderId }) => orderId === id)?.inTime ?? null;
    return {
      orderId: id,
      lateS: { before: late(plan), after: late(sooner.plan) },
      inTime: { before: inTime(before), after: inTime(sooner.all) },
    };
  });
  return {
    behind,
    wanted: {
      forecast: own(sooner.all),
      pushes: pushes.filter(
        ({ lateS, inTime }) =>
          lateS.after > lateS.before + MINDED.lateS ||
          (inTime.before !== null && inTime.after !== null && inTime.after < inTime.before - MINDED.inTime),
      ),
    },
  };
}
