import { shifted, type DayPlan, type PlanChange } from '@decurio/core';
import type { AskedChange, PlanView, Scenario, ScenarioOrder, WhatIfRequest } from '@decurio/contract';
import type { FastifyInstance } from 'fastify';
import { HttpProblem } from '../problems.js';
import { readInputs, type PlanInputs } from './inputs.js';
import { keepPlan, keptPlan, keptRevision, type KeptPlan, type PlanBody } from './kept-plan.js';
import { offeredOrder } from './offered-order.js';
import { prepare, type Prepared } from './prepare.js';
import { readyByOf, viewOf, movesOf } from './view.js';

type House = Pick<FastifyInstance, 'source' | 'planner'>;

/** The plan with everything it was made of, as it stands. */
export interface CurrentPlan {
  readonly kept: KeptPlan;
  readonly inputs: PlanInputs;
  readonly prepared: Prepared;
}

/** A first answer comes within this; what is better is found while it stands. */
const FIRST_MS = 120;
/** One that goes on from what stood is looked at longer: something stands meanwhile. */
const NEXT_MS = 500;
/** Made anew after so long though nothing moved: time did. */
const FRESH_MS = 5 * 60_000;
/** Tried on what was handed out for so long; then the day is read anew. */
const SEEN_MS = 60_000;
export const SEED = 1;

/** One plan is made at a time in a process; whoever asks meanwhile waits for the same. */
const making = new WeakMap<object, Promise<CurrentPlan>>();

/** What was handed out last: what is only tried is tried on what was seen. */
const handedOut = new WeakMap<object, CurrentPlan>();

/** The plan that stands, made anew where what it was made of moved. */
export async function currentPlan(house: House): Promise<CurrentPlan> {
  const known = making.get(house.source);
  if (known) return known;
  // Whole seconds: what is due at 12:00 is due at 12:00:00, and not at a fraction before.
  const made = makeCurrent(house, Math.floor(Date.now() / 1000) * 1000).finally(() => making.delete(house.source));
  making.set(house.source, made);
  handedOut.set(house.source, await made);
  return made;
}

async function makeCurrent(house: House, nowMs: number): Promise<CurrentPlan> {
  const inputs = await readInputs(house.source, house.planner);
  const prepared = prepare(inputs, nowMs);
  const kept = await keptPlan(house.source);
  if (kept?.basis === inputs.basis && nowMs - kept.body.startMs < FRESH_MS) return { kept, inputs, prepared };
  const next = await remade(house, inputs, prepared, kept, kept ? NEXT_MS : FIRST_MS);
  return { kept: next, inputs, prepared };
}

async function remade(
  { source, planner }: House,
  inputs: PlanInputs,
  prepared: Prepared,
  kept: KeptPlan | null,
  forMs: number,
): Promise<KeptPlan> {
  const { problem, lengths, surprises, startMs } = prepared;
  const before = kept && kept.body.plan.tasks.length > 0 ? planFrom(kept.body, startMs) : null;
  const { moved, ...made } = await planner.makePlan({ problem, lengths, surprises, seed: SEED, before, forMs });
  const facts = factsOf(inputs);
  const why = kept === null ? null : whyOf(kept.body.facts, inputs);
  const body: PlanBody = {
    startMs,
    ...made,
    facts,
    moves: why === null ? (kept?.body.moves ?? null) : { atMs: startMs, startMs, why, moved },
  };
  const stands = await keepPlan(source, kept?.revision ?? 0, inputs.basis, body, prepared);
  if (!stands) throw new HttpProblem('planStopped');
  return stands;
}

/** A plan that was made at another moment, in seconds from this one. */
export const planFrom = (body: PlanBody, startMs: number): DayPlan =>
  shifted(body.plan, Math.round((body.startMs - startMs) / 1000));

const factsOf = ({ units, orders, crewVersion, shopVersion }: PlanInputs): PlanBody['facts'] => ({
  held: units.filter(({ status }) => status === 'held').map(({ id }) => id),
  given: Object.fromEntries(units.flatMap(({ id, givenTo }) => (givenTo === null ? [] : [[id, givenTo]]))),
  orders: orders.map(({ id }) => id),
  crew: crewVersion,
  shop: shopVersion,
});

/** What set a new plan off, in a sentence; null where work just went on. */
function whyOf(was: PlanBody['facts'], inputs: PlanInputs): string | null {
  const is = factsOf(inputs);
  const serial = (id: string): string => inputs.units.find((unit) => unit.id === id)?.serial ?? '';
  const held = is.held.filter((id) => !was.held.includes(id)).map(serial);
  const back = was.held.filter((id) => !is.held.includes(id) && serial(id) !== '').map(serial);
  const given = Object.entries(is.given).filter(([id, to]) => was.given[id] !== to);
  const taken = is.orders.filter((id) => !was.orders.includes(id));
  const numbers = taken.map((id) => inputs.orders.find((order) => order.id === id)?.number ?? '');
  const nameOf = (id: string): string => inputs.crew?.people.find((person) => person.id === id)?.name ?? id;
  if (held.length > 0) return `${held.slice(0, 3).join(', ')} ${held.length === 1 ? 'is' : 'are'} held.`;
  if (given.length > 0)
    return given
      .slice(0, 3)
      .map(([id, to]) => `${serial(id)} was given to ${nameOf(to)}.`.replace('..', '.'))
      .join(' ');
  if (numbers.length > 0) return `${numbers.slice(0, 3).join(', ')} ${numbers.length === 1 ? 'was' : 'were'} taken in.`;
  if (is.crew !== was.crew) return 'Who is there, and when, was changed.';
  if (is.shop !== was.shop) return 'Stands, yard or posts were changed.';
  if (back.length > 0) return `${back.slice(0, 3).join(', ')} ${back.length === 1 ? 'is' : 'are'} held no more.`;
  return null;
}

/** The plan after something was decided: one that was being made before that does not count. */
export async function planAfter(house: House, userId: string): Promise<PlanView> {
  await making.get(house.source)?.catch(() => undefined);
  return planView(house, userId);
}

export async function planView(house: House, userId: string): Promise<PlanView> {
  return viewOf(await currentPlan(house), userId);
}

const LONGEST_MS = 30_000;
const SLICE_MS = 700;
/** So many stretches without anything better, and it is left. */
const FRUITLESS = 8;

/** Looks longer for a better plan, a line for each stretch of the search, until it is stopped or its time is over. */
export async function* lookLonger(
  house: House,
  userId: string,
  forMs: number,
  signal: AbortSignal,
): AsyncGenerator<{ readonly share: number; readonly gap: number; readonly view: PlanView | null }> {
  let { kept, inputs, prepared } = await currentPlan(house);
  const most = Math.min(forMs, LONGEST_MS);
  let fruitless = 0;
  const begun = performance.now();
  const spent = (): number => (performance.now() - begun) / most;
  for (let seed = SEED; spent() < 1 && fruitless < FRUITLESS && !signal.aborted;) {
    // Nothing is laid out: no search finds more.
    if (kept.body.plan.tasks.length === 0) return;
    seed += 1;
    const { problem, lengths, surprises, startMs } = prepared;
    const before = planFrom(kept.body, startMs);
    const made = await house.planner.makePlan({ problem, lengths, surprises, seed, before, forMs: SLICE_MS }, signal);
    const isBetter =
      made.plan.cost.lateS < before.cost.lateS ||
      (made.plan.cost.lateS === before.cost.lateS &&
        made.plan.cost.unplaced <= before.cost.unplaced &&
        made.gap < kept.body.gap);
    fruitless = isBetter ? 0 : fruitless + 1;
    if (isBetter) {
      const { plan, forecasts, tightest, gap, beyondS } = made;
      const body: PlanBody = { ...kept.body, startMs, plan, forecasts, tightest, gap, beyondS };
      const stands = await keepPlan(house.source, kept.revision, kept.basis, body, prepared);
      if (stands) kept = stands;
      if (stands?.basis !== inputs.basis) ({ kept, inputs, prepared } = await currentPlan(house));
    }
    yield {
      share: Math.min(1, spent()),
      gap: kept.body.gap,
      view: isBetter ? viewOf({ kept, inputs, prepared }, userId) : null,
    };
  }
}

/** How orders would stand, were some things otherwise. */
export async function whatIf(
  house: House,
  { revision, scenarios, look }: WhatIfRequest,
  signal: AbortSignal,
): Promise<readonly Scenario[]> {
  const current = await asSeen(house, revision);
  const { kept, prepared } = current;
  const { problem, surprises, startMs } = prepared;
  const asked = await Promise.all(scenarios.map((changes) => changesOf(house, changes, current)));
  const made = await house.planner.whatIf(
    {
      problem,
      lengths: Object.assign({}, prepared.lengths, ...asked.map(({ lengths }) => lengths)) as Prepared['lengths'],
      surprises,
      seed: SEED,
      plan: planFrom(kept.body, startMs),
      scenarios: asked.map(({ changes }) => changes),
      look,
    },
    signal,
  );
  return made.map(({ plan, forecasts, moved }) => {
    const all = plan.orders.map(({ orderId, readyS }): ScenarioOrder => {
      const told = forecasts.find((each) => each.orderId === orderId);
      return {
        orderId,
        readyMs: readyS === null ? null : startMs + readyS * 1000,
        readyBy: readyByOf(told?.ready ?? null, startMs),
        inTime: told?.inTime ?? null,
      };
    });
    const stands = new Set(problem.orders.map(({ id }) => id));
    return {
      orders: all.filter(({ orderId }) => stands.has(orderId)),
      tried: all.filter(({ orderId }) => orderId.startsWith(TRIED)),
      moved: movesOf(moved, startMs),
      unplaced: plan.unplaced.length,
    };
  });
}

/** As it was handed out, so long as it stands: an answer while somebody drags reads nothing anew. */
async function asSeen(house: House, revision: number): Promise<CurrentPlan> {
  const seen = handedOut.get(house.source);
  const isFresh = seen !== undefined && Date.now() - seen.prepared.startMs < SEEN_MS;
  if (!isFresh || seen.kept.revision !== revision) return onRevision(house, revision);
  if ((await keptRevision(house.source)) !== revision) throw new HttpProblem('planMoved');
  return seen;
}

/** What is decided is decided on the plan that was seen. */
export async function onRevision(house: House, revision: number): Promise<CurrentPlan> {
  // One that moved already is not made anew to say so.
  const stands = await keptRevision(house.source);
  if (stands !== null && stands !== revision) throw new HttpProblem('planMoved');
  const current = await currentPlan(house);
  if (current.kept.revision !== revision) throw new HttpProblem('planMoved');
  return current;
}

/** Changes as core has them, and how long what they bring in takes. */
async function changesOf(
  house: House,
  changes: readonly AskedChange[],
  { inputs, prepared }: CurrentPlan,
): Promise<{ readonly changes: readonly PlanChange[]; readonly lengths: Prepared['lengths'] }> {
  const made: PlanChange[] = [];
  let lengths: Prepared['lengths'] = {};
  for (const [i, change] of changes.entries()) {
    if (change.kind !== 'takes') {
      made.push(changeOf(change, prepared));
      continue;
    }
    const { typeId, units, dueMs } = change;
    const dueS = Math.round((dueMs - prepared.startMs) / 1000);
    const of = { orderId: `${TRIED}${i}`, units: [{ typeId, mapId: null, count: units }], arrivesS: 0, dueS };
    const offered = await offeredOrder(house, of, inputs, prepared);
    made.push({ kind: 'takes', order: offered.order, units: offered.units });
    lengths = { ...lengths, ...offered.lengths };
  }
  return { changes: made, lengths };
}

/** How ids of orders begin that are only tried. */
const TRIED = 'tried ';

function changeOf(
  change: Exclude<AskedChange, { readonly kind: 'takes' }>,
  { startMs, kindsOf }: Prepared,
): PlanChange {
  const seconds = (ms: number): number => Math.round((ms - startMs) / 1000);
  switch (change.kind) {
    case 'stays':
    case 'opens':
      return { ...change, untilS: seconds(change.untilMs) } as PlanChange;
    case 'leaves':
    case 'shuts':
      return { ...change, fromS: seconds(change.fromMs), untilS: seconds(change.untilMs) } as PlanChange;
    case 'due':
      return { kind: 'due', orderId: change.orderId, dueS: seconds(change.dueMs) };
    case 'proved':
      return { kind: 'proved', unitKinds: kindsOf[change.vehicle], at: change.at };
    case 'follow':
    case 'give':
      return change;
  }
}

/** What could be done for an order at risk, best first, as changes that can be asked for and kept. */
export async function remediesOf(
  house: House,
  orderId: string,
  signal: AbortSignal,
): Promise<readonly { readonly change: AskedChange; readonly inTime: number }[]> {
  const { kept, prepared } = await currentPlan(house);
  const { problem, lengths, surprises, startMs, kindsOf } = prepared;
  const inTime = kept.body.forecasts.find((order) => order.orderId === orderId)?.inTime ?? null;
  if (inTime === null) return [];
  const ms = (s: number): number => startMs + s * 1000;
  const found = await house.planner.remedies(
    {
      problem,
      lengths,
      surprises,
      seed: SEED,
      plan: planFrom(kept.body, startMs),
      orderId,
      inTime,
      eitherPlace: kindsOf.scooter,
    },
    signal,
  );
  return found.flatMap(({ change, inTime: then }) => {
    const asked = askedOf(change, ms);
    return asked ? [{ change: asked, inTime: then }] : [];
  });
}

function askedOf(change: PlanChange, ms: (s: number) => number): AskedChange | null {
  switch (change.kind) {
    case 'stays':
      return { kind: 'stays', personId: change.personId, untilMs: ms(change.untilS) };
    case 'opens':
      return { kind: 'opens', placeId: change.placeId, untilMs: ms(change.untilS) };
    case 'proved':
      return { kind: 'proved', vehicle: 'scooter', at: change.at };
    case 'follow':
      return change;
    default:
      return null;
  }
}
