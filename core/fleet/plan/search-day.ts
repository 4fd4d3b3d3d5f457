import { seeded } from '../../statistics/seeded.js';
import { boundOf, type DayBound } from './day-bound.js';
import { dispatch, type Rule } from './dispatch.js';
import { indexed, type IndexedProblem } from './indexed-problem.js';
import { choiceOf, layOut, type Choice, type LaidOut } from './lay-out.js';
import { anyChoice, FEW, moved } from './moves.js';
import type { DayPlan, PlanCost, PlanProblem } from './plan-problem.js';
import { earliestDueRule, ruleOf, urgenciesFor, varied, type Urgency } from './urgency.js';
import { compareCosts, costOf, writtenOut } from './weigh.js';

/** More tasks than this are better moved all together, by other rules, than one by one. */
const MANY = 300;
/** Tries without anything better after which it goes on from the best. */
const PATIENCE = 80;

/** A plan on its way: better the longer it is asked for more. */
export interface PlanSearch {
  readonly given: IndexedProblem;
  /** Worked out when it is first asked for. */
  readonly bound: DayBound;
  /** The best so far. */
  readonly best: () => LaidOut;
  readonly cost: () => PlanCost;
  /** Tries once more. @returns whether it became better */
  readonly tryOnce: () => boolean;
  readonly plan: () => DayPlan;
}

export interface SearchOptions {
  /** Of all that is tried: the same gives the same. */
  readonly seed: number;
  /** What to begin from beside the rules: a plan that stood so far. */
  readonly before?: (given: IndexedProblem) => Choice | null;
  /** Seconds that a plan counts as later than it is: for what it moves. */
  readonly movedS?: (given: IndexedProblem, laid: LaidOut) => number;
}

/**
 * Begins a search, with what earliest due first makes: a plan stands at once, and no later one is worse. Rules of urgency
 * come first, then single moves of the best so far, going on now and then from what is a little worse (annealing at one
 * temperature, with restarts).
 */
export function searchDay(problem: PlanProblem, { seed, before, movedS }: SearchOptions): PlanSearch {
  const given = indexed(problem);
  const random = seeded(seed);
  const weighed = (laid: LaidOut) => {
    const cost = costOf(given, laid);
    return { laid, cost: movedS ? { ...cost, lateS: cost.lateS + movedS(given, laid) } : cost };
  };
  const byRule = (rule: Rule) => weighed(dispatch(given, rule));
  let best = byRule(earliestDueRule(given));
  const chosen = before?.(given) ?? null;
  if (chosen !== null) {
    const kept = weighed(layOut(given, chosen));
    if (compareCosts(kept.cost, best.cost) <= 0) best = kept;
  }
  let known: DayBound | null = null;
  const bound = (): DayBound => (known ??= boundOf(given));
  let untried: Urgency[] | null = null;
  let rule: { readonly urgency: Urgency; readonly cost: PlanCost } | null = null;
  let current = { ...best, choice: choiceOf(given, best.laid) };
  let since = 0;
  let tries = 0;
  const taskS = given.tasks.reduce((sum, { lengthS }) => sum + lengthS, 0) / Math.max(1, given.tasks.length);
  const shareOfRules = given.tasks.length > MANY ? 0.6 : 0.02;

  const goOnFrom = (next: typeof best) => {
    current = { ...next, choice: choiceOf(given, next.laid) };
  };
  const tryRule = (urgency: Urgency): boolean => {
    const next = byRule(ruleOf(given, urgency));
    if (rule === null || compareCosts(next.cost, rule.cost) <= 0) rule = { urgency, cost: next.cost };
    if (compareCosts(next.cost, best.cost) >= 0) return false;
    best = next;
    goOnFrom(next);
    return true;
  };
  const tryMove = (): boolean => {
    const next = weighed(layOut(given, moved(given, current.choice, current.laid, random.uniform)));
    since += 1;
    if (compareCosts(next.cost, current.cost) <= 0 || isBearable(next.cost, current.cost, taskS, random.uniform()))
      goOnFrom(next);
    const isBetter = compareCosts(next.cost, best.cost) < 0;
    if (isBetter) best = next;
    if (isBetter) since = 0;
    if (since > PATIENCE) {
      const isFew = current.choice.order.length <= FEW;
      const afresh = isFew && random.uniform() < 0.6 ? anyChoice(given, current.choice, random.uniform) : null;
      goOnFrom(afresh ? weighed(layOut(given, afresh)) : best);
      since = 0;
    }
    return isBetter;
  };

  return {
    given,
    get bound() {
      return bound();
    },
    best: () => best.laid,
    cost: () => best.cost,
    tryOnce: () => {
      tries += 1;
      // What stood is mended first: rules make all of it anew.
      const next =
        chosen !== null && tries % 4 !== 0 ? undefined : (untried ??= [...urgenciesFor(given, bound())]).shift();
      if (next) return tryRule(next);
      return rule !== null && random.uniform() < shareOfRules ? tryRule(varied(rule.urgency, random)) : tryMove();
    },
    plan: () => writtenOut(given, best.laid),
  };
}

/** Worse by about the length of a task or two, and seldom. */
function isBearable(cost: PlanCost, than: PlanCost, taskS: number, chance: number): boolean {
  if (cost.unplaced > than.unplaced) return false;
  const worse = Math.max(0, cost.lateS - than.lateS) + 0.2 * Math.max(0, cost.workS - than.workS);
  return chance < 0.4 * Math.exp(-worse / taskS);
}
