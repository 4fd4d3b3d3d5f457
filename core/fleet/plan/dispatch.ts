import type { IndexedProblem, IndexedTask } from './indexed-problem.js';
import type { LaidOut } from './lay-out.js';
import { emptyTimetable, type Slot } from './timetable.js';

/** By what it is decided who takes what next. */
export interface Rule {
  /** Rank of every unit, by index: the smaller goes first. */
  readonly rank: ArrayLike<number>;
  /** Seconds somebody rather waits for a unit in hand than begins another. */
  readonly patienceS: number;
}

/** Looked at among those that could be begun, at most. */
const LOOKED_AT = 6;

/**
 * A plan made as a day goes: whoever is free first takes what is most pressing, a unit in hand before a new one
 * (list scheduling by urgency). Fast, and good where much is to be done; a search begins with it.
 */
export function dispatch(given: IndexedProblem, { rank, patienceS }: Rule): LaidOut {
  const { tasks, bouts, units, problem } = given;
  const table = emptyTimetable(given);
  const gaveUp = new Set<number>();
  const clock = new Float64Array(problem.people.length);
  const lastHourS = given.personHours.map((hours) => hours.at(-1)?.toS ?? 0);
  const lastKind = new Int32Array(problem.people.length).fill(-1);
  const lastWhere = new Int32Array(problem.people.length).fill(-1);
  const isIdle = new Uint8Array(problem.people.length);
  /** Next tasks of bouts in hand. */
  const inHand = new Set<number>();
  /** First tasks of bouts to be begun, by rank. */
  const open: number[] = [];
  const waitsFor = new Map<number, number[]>();

  const taskAt = (index: number): IndexedTask => tasks[index] as IndexedTask;
  const rankOf = (index: number): number => rank[taskAt(index).unit] as number;
  const orderOf = (index: number): number => units[taskAt(index).unit]?.order ?? -1;
  const enqueue = (index: number): void => {
    let at = open.length;
    while (at > 0 && rankOf(open[at - 1] as number) > rankOf(index)) at--;
    open.splice(at, 0, index);
  };
  const drop = (task: IndexedTask): void => {
    gaveUp.add(task.unit);
    table.giveUp(task);
    goOn(-1, task.unit);
  };
  /** What comes up once a task is in: the next of its unit, and units that waited for it. */
  const goOn = (next: number, unit: number): void => {
    if (next >= 0) {
      const task = taskAt(next);
      const bout = bouts[task.bout];
      if (task.task.kind === 'charge') charge(task);
      else if (bout?.atStand && bout.tasks[0] === next && !bout.inHand) enqueue(next);
      else inHand.add(next);
      isIdle.fill(0);
      return;
    }
    for (const other of waitsFor.get(unit) ?? []) {
      const { first, after } = units[other] as (typeof units)[number];
      if (after.every((each) => gaveUp.has(each) || table.isIn((units[each] as (typeof units)[number]).last)))
        goOn(nextIn(first), other);
    }
  };
  const nextIn = (from: number): number => {
    let index = from;
    while (index >= 0 && table.isIn(index)) index = taskAt(index).next;
    return index;
  };
  const charge = (task: IndexedTask): void => {
    const slot = table.earliest(task, -1);
    if (slot === null || slot.startS === Infinity) return drop(task);
    table.put(task, slot);
    goOn(nextIn(task.index), task.unit);
  };

  const isLate = (who: number, slot: Slot): boolean => slot.startS > (clock[who] as number) + patienceS;
  /** Whether this person rather goes on with one than with the other: where they stand, then what presses more. */
  const isRather = (who: number, a: IndexedTask, b: IndexedTask): boolean => {
    const goes = ({ where }: IndexedTask): number => Number(where !== lastWhere[who]);
    return goes(a) !== goes(b) ? goes(a) < goes(b) : rankOf(a.index) < rankOf(b.index);
  };

  /** What this person does next, with when; null where there is nothing. */
  const best = (who: number): { readonly task: IndexedTask; readonly slot: Slot } | null => {
    let chosen: { readonly task: IndexedTask; readonly slot: Slot } | null = null;
    const consider = (index: number): boolean => {
      const task = taskAt(index);
      if (!task.able.includes(who)) return false;
      const bout = bouts[task.bout] as (typeof bouts)[number];
      const has = table.owner[task.bout] as number;
      const whose = has >= 0 ? has : bout.owner;
      const isOthers = whose >= 0 && whose !== who && task.able.includes(whose);
      // Its owner goes on with it, unless that is not there any more.
      if (isOthers && table.readyS(task) + task.lengthS <= (lastHourS[whose] as number)) return false;
      const slot = table.earliest(task, isOthers ? -1 : who);
      if (slot === null || slot.person !== who) return false;
      if (slot.startS === Infinity) {
        if (task.able.every((other) => table.earliest(task, other)?.startS === Infinity)) {
          inHand.delete(index);
          if (open.includes(index)) open.splice(open.indexOf(index), 1);
          drop(task);
        }
        return false;
      }
      const isNow = !isLate(who, slot);
      if (
        chosen === null ||
        (isNow
          ? isLate(who, chosen.slot) || isRather(who, task, chosen.task)
          : isLate(who, chosen.slot) && slot.startS < chosen.slot.startS)
      )
        chosen = { task, slot };
      return isNow;
    };
    let isFound = false;
    for (const index of inHand) isFound = consider(index) || isFound;
    if (isFound) return chosen;
    let later = -1;
    let laterS = Infinity;
    const looked: number[] = [];
    const until = (clock[who] as number) + patienceS;
    for (const index of open) {
      const task = taskAt(index);
      if (!task.able.includes(who) || gaveUp.has(task.unit)) continue;
      const s = table.readyS(task);
      if (s <= until) looked.push(index);
      else if (s < laterS) [later, laterS] = [index, s];
      if (looked.length === LOOKED_AT) break;
    }
    // Of one order those like the last one go before.
    const first = looked[0] === undefined ? -1 : orderOf(looked[0]);
    const alike = (index: number): number => Number(orderOf(index) !== first || taskAt(index).kind !== lastKind[who]);
    for (const index of looked.sort((a, b) => alike(a) - alike(b) || rankOf(a) - rankOf(b)))
      if (consider(index)) return chosen;
    if (later >= 0 && chosen === null) consider(later);
    return chosen;
  };

  for (const [u, { after }] of units.entries())
    for (const each of after) waitsFor.set(each, [...(waitsFor.get(each) ?? []), u]);
  for (const { first, after } of units) if (after.length === 0) goOn(nextIn(first), taskAt(first).unit);
  for (;;) {
    let who = -1;
    for (let p = 0; p < clock.length; p++)
      if (isIdle[p] === 0 && (who < 0 || (clock[p] as number) < (clock[who] as number))) who = p;
    if (who < 0) break;
    const next = best(who);
    if (next === null) {
      isIdle[who] = 1;
      continue;
    }
    // Somebody else may be free before this one could begin.
    if (isOtherSooner(clock, isIdle, who, next.slot.startS)) {
      clock[who] = next.slot.startS;
      continue;
    }
    table.put(next.task, next.slot);
    clock[who] = next.slot.endS;
    lastKind[who] = next.task.kind;
    lastWhere[who] = next.task.where;
    inHand.delete(next.task.index);
    const at = open.indexOf(next.task.index);
    if (at >= 0) open.splice(at, 1);
    isIdle.fill(0);
    goOn(nextIn(next.task.index), next.task.unit);
  }
  for (const index of [...inHand, ...open]) gaveUp.add(taskAt(index).unit);
  for (const [u, { last }] of units.entries()) if (!table.isIn(last)) gaveUp.add(u);
  return { table, gaveUp };
}

function isOtherSooner(clock: Float64Array, isIdle: Uint8Array, who: number, startS: number): boolean {
  for (let p = 0; p < clock.length; p++) if (p !== who && isIdle[p] === 0 && (clock[p] as number) < startS) return true;
  return false;
}
