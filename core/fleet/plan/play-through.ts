import type { Drawn } from './forecast.js';
import type { IndexedProblem, IndexedTask } from './indexed-problem.js';
import { latestEnds } from './latest-ends.js';
import type { DayPlan, OpenTime } from './plan-problem.js';
import { endWithBreaks, firstFit } from './windows.js';

/**
 * The order of work of a plan: what everybody and everything takes up after what, whatever time it becomes. Arrays stand
 * by position in that order, so that a thousand days are run through it without looking anything up.
 */
export interface Play {
  /** Tasks in order of their start. */
  readonly order: Int32Array;
  readonly person: Int32Array;
  readonly place: Int32Array;
  readonly unit: Int32Array;
  readonly bout: Int32Array;
  readonly previous: Int32Array;
  /** Kind of unit and place, for set-ups. */
  readonly kind: Int32Array;
  readonly where: Int32Array;
  /** Of a bout at a stand: 1 where it opens it, 2 where it ends it, 3 both; 0 within, or elsewhere. */
  readonly turn: Uint8Array;
  readonly atStand: Uint8Array;
  readonly isSplit: Uint8Array;
  /** When it may be done; null for a wait. */
  readonly hours: readonly (readonly OpenTime[] | null)[];
  readonly isIn: (task: number) => boolean;
}

export function playOf(given: IndexedProblem, { tasks }: Pick<DayPlan, 'tasks'>): Play {
  const at = new Map(given.tasks.map(({ task, index }) => [task.id, index]));
  const people = new Map(given.problem.people.map(({ id }, i) => [id, i]));
  const places = new Map(given.problem.places.map(({ id }, i) => [id, i]));
  const laid = new Uint8Array(given.tasks.length);
  const planned = tasks.flatMap(({ id, startS, personId, placeId }) => {
    const index = at.get(id);
    if (index === undefined) return [];
    laid[index] = 1;
    const who = personId === null ? -1 : (people.get(personId) ?? -1);
    const where = placeId === null ? -1 : (places.get(placeId) ?? -1);
    return [{ startS, who, where, task: given.tasks[index] as IndexedTask }];
  });
  // A wait of no length begins with what follows it: what is first in its unit stays first.
  planned.sort((a, b) => a.startS - b.startS || a.task.index - b.task.index);
  const ints = (of: (one: (typeof planned)[number]) => number): Int32Array => Int32Array.from(planned, of);
  const boutOf = ({ bout }: IndexedTask) => given.bouts[bout] as (typeof given.bouts)[number];
  return {
    order: ints(({ task }) => task.index),
    person: ints(({ who }) => who),
    place: ints(({ where }) => where),
    unit: ints(({ task }) => task.unit),
    bout: ints(({ task }) => task.bout),
    previous: ints(({ task }) => task.previous),
    kind: ints(({ task }) => task.kind),
    where: ints(({ task }) => task.where),
    turn: Uint8Array.from(planned, ({ task }) => {
      const { tasks: all, inHand } = boutOf(task);
      return (all[0] === task.index && !inHand ? 1 : 0) + (all.at(-1) === task.index ? 2 : 0);
    }),
    atStand: Uint8Array.from(planned, ({ task }) => Number(boutOf(task).atStand)),
    isSplit: Uint8Array.from(planned, ({ task }) => Number(task.isSplit)),
    hours: planned.map(({ who, where }) => hoursFor(given, who, where)),
    isIn: (task) => laid[task] === 1,
  };
}

function hoursFor(given: IndexedProblem, who: number, where: number): readonly OpenTime[] | null {
  if (who < 0) return where < 0 ? null : (given.placeHours[where] ?? []);
  return where < 0 ? (given.personHours[who] ?? []) : given.jointHours(who, where);
}

/**
 * When each task ends, where lengths are these and everybody keeps to the order of the plan: nobody begins before the one
 * before is done, nor in a break, and a place is taken by one after the other. A unit that is held up stands aside with
 * all that is left of it, holds nobody up meanwhile, and takes the rest of its own time afterwards.
 */
export function playedThrough(given: IndexedProblem, play: Play, drawn: Drawn): Float64Array {
  const { bouts, units, problem } = given;
  const { setupS, weave, stands } = problem;
  const { order, person, place, unit, bout, previous, kind, where, turn, atStand, isSplit, hours } = play;
  const endS = new Float64Array(given.tasks.length);
  const personFree = new Float64Array(problem.people.length);
  const lastKind = new Int32Array(problem.people.length).fill(-1);
  const lastWhere = new Int32Array(problem.people.length);
  const placeFree = new Float64Array(problem.places.length);
  const hands = problem.people.map(() => latestEnds(weave));
  const floor = latestEnds(stands);
  const owner = new Int32Array(bouts.length).fill(-1);
  for (const [b, { inHand, owner: whose }] of bouts.entries())
    if (inHand) {
      owner[b] = whose;
      floor.open();
      hands[whose]?.open();
    }
  for (let i = 0; i < order.length; i++) {
    const index = order[i] as number;
    const u = unit[i] as number;
    const b = bout[i] as number;
    const who = person[i] as number;
    const at = place[i] as number;
    const heldAt = drawn.heldAt[u] as number;
    const isHeld = heldAt >= 0 && index >= heldAt;
    const opens = atStand[i] === 1 && ((turn[i] as number) & 1) === 1;
    let s: number;
    if ((previous[i] as number) >= 0) s = endS[previous[i] as number] as number;
    else {
      const { unit: whole, after } = units[u] as (typeof units)[number];
      s = Math.max(0, whole.arrivesS);
      for (const other of after) s = Math.max(s, endS[units[other]?.last ?? 0] as number);
    }
    if (isHeld) {
      if (index === heldAt) s += drawn.heldS[u] as number;
    } else {
      if (opens) {
        s = Math.max(s, known(floor.freeS()));
        if (who >= 0) s = Math.max(s, known((hands[who] as (typeof hands)[number]).freeS()));
      }
      if (who >= 0) {
        const isFirst = lastKind[who] === -1;
        const setup =
          (isFirst || lastKind[who] === kind[i] ? 0 : setupS.kind) +
          (isFirst || lastWhere[who] === where[i] ? 0 : setupS.place);
        s = Math.max(s, (personFree[who] as number) + setup);
      }
      if (at >= 0) s = Math.max(s, placeFree[at] as number);
    }
    const lengthS = drawn.lengthS[index] as number;
    const open = hours[i] as readonly OpenTime[] | null;
    const end = open === null ? s + lengthS : endIn(open, s, lengthS, isSplit[i] === 1);
    endS[index] = end;
    if (!isHeld && who >= 0) {
      personFree[who] = end;
      lastKind[who] = kind[i] as number;
      lastWhere[who] = where[i] as number;
    }
    if (!isHeld && at >= 0) placeFree[at] = end;
    if (atStand[i] === 0) continue;
    if (opens) floor.open();
    if (who >= 0 && owner[b] === -1) {
      owner[b] = who;
      hands[who]?.open();
    }
    if (((turn[i] as number) & 2) === 2) {
      const first = (bouts[b] as (typeof bouts)[number]).tasks[0] as number;
      const leftS = heldAt < 0 || heldAt > index ? end : heldAt <= first ? 0 : (endS[heldAt - 1] as number);
      floor.shut(leftS);
      hands[owner[b] as number]?.shut(leftS);
    }
  }
  return endS;
}

/** In the order of a plan one is always free: what is not over there yet does not stand in the way. */
const known = (s: number): number => (s === Infinity ? 0 : s);

/** Who is at it goes on into a break for what is begun; what does not fit at all goes on after each. */
const OVERTIME_S = 600;

function endIn(hours: readonly OpenTime[], s: number, lengthS: number, isSplit: boolean): number {
  if (!isSplit) {
    const at = firstFit(hours, s, Math.max(0, lengthS - OVERTIME_S));
    if (at < Infinity) return at + lengthS;
  }
  const end = endWithBreaks(hours, s, lengthS);
  return end < Infinity ? end : Math.max(s, hours.at(-1)?.toS ?? 0) + lengthS;
}
