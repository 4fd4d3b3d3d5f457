import {
  changedByAll,
  compileSetup,
  forecast,
  gapOf,
  movedBetween,
  offerOf,
  planKeys,
  remediesFor,
  replan,
  searchAgain,
  searchDay,
  tightestOf,
  type DayPlan,
  type LengthOf,
  type Moved,
  type OrderForecast,
  type OrderOffer,
  type PlanChange,
  type PlanOrder,
  type PlanProblem,
  type PlanUnit,
  type Remedy,
  type SetupInputs,
  type Surprises,
  type TaskLength,
  type Tightest,
} from '@decurio/core';

/*
 * Plans are worked out here, in a thread of its own: the server goes on answering meanwhile, and one that takes too long
 * is ended.
 */

interface Given {
  readonly problem: PlanProblem;
  readonly lengths: Readonly<Record<string, TaskLength>>;
  readonly surprises: Surprises;
  readonly seed: number;
}

export interface PlanTask extends Given {
  /** The plan that stood, its times from this problem's start. */
  readonly before: DayPlan | null;
  /** How long it is searched, ms. */
  readonly forMs: number;
}

export interface PlanMade {
  readonly plan: DayPlan;
  readonly forecasts: readonly OrderForecast[];
  readonly tightest: Readonly<Record<string, Tightest>>;
  readonly gap: number;
  readonly beyondS: number;
  readonly moved: readonly Moved[];
}

const lengthIn =
  (lengths: Given['lengths']): LengthOf =>
  (id) =>
    lengths[id] ?? null;

/** Runs of a forecast: fewer where a day has many tasks, so that an answer comes at once. */
const runsFor = ({ units }: PlanProblem): number => (units.length > 150 ? 200 : 600);

/** Goes on from the plan that stood, or begins, for a time. */
export function makePlan({ problem, lengths, surprises, seed, before, forMs }: PlanTask): PlanMade {
  const until = performance.now() + forMs;
  const search = before ? searchAgain(problem, before, seed) : searchDay(problem, { seed });
  while (performance.now() < until) search.tryOnce();
  const plan = search.plan();
  const { bound } = search;
  const forecasts = forecast(problem, plan, lengthIn(lengths), seed, { runs: runsFor(problem), surprises });
  return {
    plan,
    forecasts,
    tightest: Object.fromEntries(
      forecasts.flatMap(({ orderId }) => {
        const tight = tightestOf(problem, plan, orderId);
        return tight ? [[orderId, tight]] : [];
      }),
    ),
    gap: gapOf(problem, plan, bound),
    beyondS: Math.max(0, plan.cost.lateS - bound.lateS),
    moved: before ? movedBetween(problem, before, plan) : [],
  };
}

export interface WhatIfTask extends Given {
  readonly plan: DayPlan;
  readonly scenarios: readonly (readonly PlanChange[])[];
  /** At once: laid out, and no days run through. */
  readonly look: 'atOnce' | 'careful';
}

export interface ScenarioMade {
  readonly plan: DayPlan;
  readonly forecasts: readonly OrderForecast[];
  readonly moved: readonly Moved[];
}

/** More tasks than this are not searched through while somebody drags. */
const MANY = 900;
/** Tasks that are run through for the chances: fewer days of it where a day has more. */
const ANSWERED = 60_000;

export function whatIf({
  problem,
  lengths,
  surprises,
  seed,
  plan,
  scenarios,
  look,
}: WhatIfTask): readonly ScenarioMade[] {
  return scenarios.map((changes) => {
    const asked = changedByAll(problem, changes);
    const tasks = plan.tasks.length;
    const isDrag = changes.every(({ kind }) => kind === 'give');
    const next = replan(asked, plan, seed, isDrag ? (tasks < MANY ? 1 : 0) : tasks < MANY ? 12 : 4);
    return {
      plan: next,
      forecasts:
        look === 'atOnce'
          ? []
          : forecast(asked, next, lengthIn(lengths), seed, {
              runs: Math.max(40, Math.min(300, Math.round(ANSWERED / Math.max(1, tasks)))),
              surprises,
            }),
      moved: movedBetween(asked, plan, next),
    };
  });
}

export interface RemedyTask extends Given {
  readonly plan: DayPlan;
  readonly orderId: string;
  readonly inTime: number;
  readonly eitherPlace: readonly string[];
}

export const remedies = ({
  problem,
  plan,
  orderId,
  inTime,
  lengths,
  seed,
  surprises,
  eitherPlace,
}: RemedyTask): readonly Remedy[] =>
  remediesFor(problem, plan, orderId, inTime, lengthIn(lengths), { seed, surprises, eitherPlace });

export interface OfferTask extends Given {
  readonly plan: DayPlan;
  readonly order: PlanOrder;
  readonly units: readonly PlanUnit[];
  readonly wantedS: number | null;
}

export const offer = ({ problem, plan, order, units, wantedS, lengths, seed, surprises }: OfferTask): OrderOffer =>
  offerOf(problem, plan, { order, units }, wantedS, lengthIn(lengths), { seed, surprises });

export interface KeyTask {
  readonly inputs: SetupInputs;
}

/** From how the maker delivers it, menu closed, at the pace of somebody who does it every day. */
export function keySeconds({ inputs }: KeyTask): number {
  const { targets } = compileSetup(inputs);
  const wanted = Object.fromEntries(
    targets.flatMap(({ label, raw, locked, secret }) => (raw === null || locked || secret ? [] : [[label, raw]])),
  );
  return planKeys(inputs.map, wanted, { values: {}, at: null }).estimatedMs / 1000;
}
