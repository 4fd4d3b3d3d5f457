import type { DayBound } from './day-bound.js';
import { dispatch } from './dispatch.js';
import { indexed } from './indexed-problem.js';
import type { DayPlan, PlanProblem } from './plan-problem.js';
import { searchDay } from './search-day.js';
import { earliestDueRule } from './urgency.js';
import { writtenOut } from './weigh.js';

/** Tries of the search where nothing else is said: few where one takes long. */
const triesFor = (tasks: number): number => Math.max(150, Math.min(10_000, Math.round(400_000 / Math.max(1, tasks))));

/**
 * A plan of the day: who does what of which unit, where and when. Least late first, then least work in hand, then fewest
 * changes of place and display.
 * @param seed the same seed gives the same plan
 * @param tries of the search; where left out, so many as end within some seconds
 */
export function planDay(problem: PlanProblem, seed: number, tries?: number): DayPlan {
  const search = searchDay(problem, { seed });
  const most = tries ?? triesFor(search.given.tasks.length);
  for (let i = 0; i < most; i++) search.tryOnce();
  return search.plan();
}

/** The plan that a day makes where whoever is free takes what is due first: what a search has to better. */
export function earliestDueFirst(problem: PlanProblem): DayPlan {
  const given = indexed(problem);
  return writtenOut(given, dispatch(given, earliestDueRule(given)));
}

/** When everything of a plan is done, seconds. */
export const finishOf = ({ tasks }: Pick<DayPlan, 'tasks'>): number =>
  tasks.reduce((s, { endS }) => Math.max(s, endS), 0);

/**
 * How far a plan is at most from the best there can be, as a share: of when everything is done, and of when orders are
 * done counted from now, each as its weight. 0.03 is said as "within 3 % of the best there can be".
 */
export function gapOf(
  { orders }: Pick<PlanProblem, 'orders'>,
  plan: Pick<DayPlan, 'tasks' | 'cost'>,
  bound: DayBound,
): number {
  const finish = bound.finishS > 0 ? finishOf(plan) / bound.finishS - 1 : 0;
  const dueS = orders.reduce((sum, order) => sum + order.weight * Math.max(0, order.dueS ?? 0), 0);
  const late = (plan.cost.lateS - bound.lateS) / Math.max(1, dueS + bound.lateS);
  return Math.max(0, finish, late);
}
