import type { Drawn } from './forecast.js';
import type { IndexedProblem, IndexedTask } from './indexed-problem.js';
import { latestEnds } from './latest-ends.js';
import type { DayPlan, Window } from './plan-problem.js';
import { endWithBreaks, firstFit } from './windows.js';

/** The order of work of a plan: what everybody and everything takes up after what, whatever time it becomes. */
export interface Play {
  /** Tasks in order of their start. */
  readonly order: Int32Array;
  readonly person: Int32Array;
  readonly place: Int32Array;
  readonly isIn: (task: number) => boolean;
}

export function playOf(given: IndexedProblem, { tasks }: Pick<DayPlan, 'tasks'>): Play {
  const at = new Map(given.tasks.map(({ task, index }) => [task.id, index]));
  const people = new Map(given.problem.people.map(({ id }, i) => [id, i]));
  const places = new Map(given.problem.places.map(({ id }, i) => [id, i]));
  const person = new Int32Array(given.tasks.length).fill(-1);
  const place = new Int32Array(given.tasks.length).fill(-1);
  const laid = new Uint8Array(given.tasks.length);
  const order: number[] = [];
  for (const { id, personId, placeId } of tasks) {
    const index = at.get(id);
    if (index === undefined) continue;
    order.push(index);
    laid[index] = 1;
    if (personId !== null) person[index] = people.get(personId) ?? -1;
    if (placeId !== null) place[index] = places.get(placeId) ?? -1;
  }
  // A wait of no length begins with what follows it: what is first in its unit stays first.
  const startS = new Map(tasks.map(({ id, startS: s }) => [at.get(id), s]));
  order.sort((a, b) => (startS.get(a) ?? 0) - (startS.get(b) ?? 0) || a - b);
  return { order: Int32Array.from(order), person, place, isIn: (task) => laid[task] === 1 };
}

/**
 * When each task ends, where lengths are these and everybody keeps to the order of the plan: nobody begins before the one
 * before is done, nor in a break, and a place is taken by one after the other. A unit that is held up stands aside with
 * all that is left of it, holds nobody up meanwhile, and takes the rest of its own time afterwards.
 */
export function playedThrough(given: IndexedProblem, { order, person, place }: Play, drawn: Drawn): Float64Array {
  const { tasks, units, bouts, problem } = given;
  const { setupS, weave, stands } = problem;
  const endS = new Float64Array(tasks.length);
  const personFree = new Float64Array(problem.people.length);
  const lastTask = new Int32Array(problem.people.length).fill(-1);
  const placeFree = new Float64Array(problem.places.length);
  const hands = problem.people.map(() => latestEnds(weave));
  const floor = latestEnds(stands);
  const owner = new Int32Array(bouts.length).fill(-1);
  for (const [b, bout] of bouts.entries())
    if (bout.inHand) {
      owner[b] = bout.owner;
      floor.open();
      hands[bout.owner]?.open();
    }
  for (const index of order) {
    const task = tasks[index] as IndexedTask;
    const bout = bouts[task.bout] as (typeof bouts)[number];
    const unit = units[task.unit] as (typeof units)[number];
    const who = person[index] as number;
    const where = place[index] as number;
    const lengthS = drawn.lengthS[index] as number;
    const isHeld = (drawn.heldAt[task.unit] as number) >= 0 && index >= (drawn.heldAt[task.unit] as number);
    const isFirst = bout.tasks[0] === index;
    const isLast = bout.tasks[bout.tasks.length - 1] === index;
    let s = task.previous >= 0 ? (endS[task.previous] as number) : Math.max(0, unit.unit.arrivesS);
    for (const other of task.previous < 0 ? unit.after : []) s = Math.max(s, endS[units[other]?.last ?? 0] as number);
    if (isHeld && index === drawn.heldAt[task.unit]) s += drawn.heldS[task.unit] as number;
    if (!isHeld) {
      if (bout.atStand && isFirst && !bout.inHand)
        s = Math.max(s, known(floor.freeS()), known(hands[who]?.freeS() ?? 0));
      if (who >= 0) {
        const last = tasks[lastTask[who] as number];
        const setup = last
          ? (last.kind === task.kind ? 0 : setupS.kind) + (last.where === task.where ? 0 : setupS.place)
          : 0;
        s = Math.max(s, (personFree[who] as number) + setup);
      }
      if (where >= 0) s = Math.max(s, placeFree[where] as number);
    }
    const end = who < 0 && where < 0 ? s + lengthS : endIn(hoursFor(given, who, where), s, lengthS, task.isSplit);
    endS[index] = end;
    if (!isHeld) {
      if (who >= 0) {
        personFree[who] = end;
        lastTask[who] = index;
      }
      if (where >= 0) placeFree[where] = end;
    }
    if (!bout.atStand) continue;
    if (isFirst && !bout.inHand) floor.open();
    if (who >= 0 && owner[task.bout] === -1) {
      owner[task.bout] = who;
      hands[who]?.open();
    }
    if (isLast) {
      const heldFrom = drawn.heldAt[task.unit] as number;
      const leftS =
        heldFrom < 0 || heldFrom > index
          ? end
          : heldFrom <= (bout.tasks[0] as number)
            ? 0
            : (endS[heldFrom - 1] as number);
      floor.shut(leftS);
      hands[owner[task.bout] as number]?.shut(leftS);
    }
  }
  return endS;
}

/** In the order of a plan one is always free: what is not over there yet does not stand in the way. */
const known = (s: number): number => (s === Infinity ? 0 : s);

function hoursFor(given: IndexedProblem, who: number, where: number): readonly Window[] {
  if (who < 0) return given.placeHours[where] ?? [];
  return where < 0 ? (given.personHours[who] ?? []) : given.jointHours(who, where);
}

/** Who is at it goes on into a break for what is begun; what does not fit at all goes on after each. */
const OVERTIME_S = 600;

function endIn(hours: readonly Window[], s: number, lengthS: number, isSplit: boolean): number {
  if (!isSplit) {
    const at = firstFit(hours, s, Math.max(0, lengthS - OVERTIME_S));
    if (at < Infinity) return at + lengthS;
  }
  const end = endWithBreaks(hours, s, lengthS);
  return end < Infinity ? end : Math.max(s, hours.at(-1)?.toS ?? 0) + lengthS;
}
