import type { IndexedProblem, IndexedTask } from './indexed-problem.js';
import { latestEnds, type LatestEnds } from './latest-ends.js';
import type { OpenTime } from './plan-problem.js';
import { endWithBreaks, firstFit } from './windows.js';

/** Where and by whom a task would be done, and when; `startS` is Infinity where there is no time for it. */
export interface Slot {
  readonly startS: number;
  readonly endS: number;
  readonly person: number;
  readonly place: number;
}

/** What somebody or something is taken by, in order of time. */
interface Taken {
  readonly start: number[];
  readonly end: number[];
  readonly kind: number[];
  readonly where: number[];
}

/**
 * What is laid out so far. Tasks are put in one by one, each as early as it goes among those that stand: every resource
 * holds by construction.
 */
export interface Timetable {
  readonly startS: Float64Array;
  readonly endS: Float64Array;
  readonly person: Int32Array;
  readonly place: Int32Array;
  /** Tasks in the order they were put in. */
  readonly order: number[];
  /** Who has a bout in hand, or -1 while that is open. */
  readonly owner: Int32Array;
  readonly isIn: (task: number) => boolean;
  /** What stands before it is laid out: its unit's earlier tasks, and units it waits for. */
  readonly isReady: (task: IndexedTask) => boolean;
  /** The second from which it could be done for all that its unit says. */
  readonly readyS: (task: IndexedTask) => number;
  /** The earliest it goes, by this person (-1: whoever is earliest). Null where nobody's hands or no stand are free before others are through. */
  readonly earliest: (task: IndexedTask, person: number) => Slot | null;
  /** Puts it in, and the waits that follow it. */
  readonly put: (task: IndexedTask, slot: Slot) => void;
  /** No time is left for this task or what follows it: its unit stands aside, and holds nobody up. */
  readonly giveUp: (task: IndexedTask) => void;
}

const NOWHERE = -1;

export function emptyTimetable(given: IndexedProblem): Timetable {
  const { tasks, bouts, units, problem, personHours, placeHours, jointHours } = given;
  const { setupS, weave, stands } = problem;
  const startS = new Float64Array(tasks.length).fill(-1);
  const endS = new Float64Array(tasks.length).fill(-1);
  const person = new Int32Array(tasks.length).fill(-1);
  const place = new Int32Array(tasks.length).fill(-1);
  const owner = new Int32Array(bouts.length).fill(-1);
  const order: number[] = [];
  const people: readonly Taken[] = personHours.map(nothing);
  const places: readonly Taken[] = placeHours.map(nothing);
  const hands = personHours.map(() => latestEnds(weave));
  const floor = latestEnds(stands);
  for (const [b, bout] of bouts.entries()) {
    if (!bout.inHand) continue;
    owner[b] = bout.owner;
    floor.open();
    if (bout.owner >= 0) hands[bout.owner]?.open();
  }

  const isIn = (task: number): boolean => (startS[task] as number) >= 0;
  const boutOf = (task: IndexedTask) => bouts[task.bout] as (typeof bouts)[number];
  const isFirst = (task: IndexedTask): boolean => boutOf(task).tasks[0] === task.index;
  const isLast = (task: IndexedTask): boolean => boutOf(task).tasks.at(-1) === task.index;
  const unitOf = (task: IndexedTask) => units[task.unit] as (typeof units)[number];

  const isReady = (task: IndexedTask): boolean =>
    task.previous >= 0
      ? isIn(task.previous)
      : unitOf(task).after.every((other) => isIn((units[other] as (typeof units)[number]).last));

  const readyS = (task: IndexedTask): number => {
    if (task.previous >= 0) return endS[task.previous] as number;
    const { unit, after } = unitOf(task);
    return after.reduce(
      (s, other) => Math.max(s, endS[(units[other] as (typeof units)[number]).last] as number),
      Math.max(0, unit.arrivesS),
    );
  };

  const setup = (fromKind: number, fromWhere: number, toKind: number, toWhere: number): number =>
    (fromKind === toKind ? 0 : setupS.kind) + (fromWhere === toWhere ? 0 : setupS.place);

  const freePerson = (who: number, task: IndexedTask, s: number, lengthS: number): number => {
    const { start, end, kind, where } = people[who] as Taken;
    let at = s;
    for (let i = firstAfter(end, at - setupS.kind - setupS.place); ; i++) {
      if (i > 0)
        at = Math.max(
          at,
          (end[i - 1] as number) + setup(kind[i - 1] as number, where[i - 1] as number, task.kind, task.where),
        );
      if (
        i >= start.length ||
        at + lengthS + setup(task.kind, task.where, kind[i] as number, where[i] as number) <= (start[i] as number)
      )
        return at;
    }
  };

  const freePlace = (where: number, s: number, lengthS: number): number => {
    const { start, end } = places[where] as Taken;
    let at = s;
    for (let i = firstAfter(end, at); i < start.length; i++) {
      if (at + lengthS <= (start[i] as number)) return at;
      at = Math.max(at, end[i] as number);
    }
    return at;
  };

  const fit = (task: IndexedTask, who: number, where: number, from: number): Slot => {
    const hours: readonly OpenTime[] =
      who < 0
        ? (placeHours[where] as readonly OpenTime[])
        : where < 0
          ? (personHours[who] as readonly OpenTime[])
          : jointHours(who, where);
    let s = from;
    let endsAt = s;
    for (let before = NaN; s !== before;) {
      before = s;
      s = firstFit(hours, s, task.isSplit ? 1 : task.lengthS);
      endsAt = task.isSplit ? endWithBreaks(hours, s, task.lengthS) : s + task.lengthS;
      if (endsAt === Infinity) return { startS: Infinity, endS: Infinity, person: who, place: where };
      if (who >= 0) s = freePerson(who, task, s, endsAt - s);
      if (where >= 0) s = freePlace(where, s, endsAt - s);
    }
    return { startS: s, endS: endsAt, person: who, place: where };
  };

  const earliestAt = (task: IndexedTask, who: number, from: number): Slot => {
    let best = fit(task, who, task.places[0] ?? NOWHERE, from);
    for (let i = 1; i < task.places.length; i++) {
      const slot = fit(task, who, task.places[i] as number, from);
      if (slot.startS < best.startS) best = slot;
    }
    return best;
  };

  const earliest = (task: IndexedTask, asked: number): Slot | null => {
    const bout = boutOf(task);
    let from = readyS(task);
    if (task.able.length === 0) return earliestAt(task, -1, from);
    const opens = bout.atStand && isFirst(task) && !bout.inHand;
    if (opens) {
      from = Math.max(from, floor.freeS());
      if (from === Infinity) return null;
    }
    const has = owner[task.bout] as number;
    const not = task.apartFrom < 0 ? -1 : (person[task.apartFrom] as number);
    const mayDo = (who: number): boolean => who !== not && task.able.includes(who);
    const fitFor = (who: number): Slot | null => {
      const free = bout.atStand && isFirst(task) && has < 0 ? (hands[who] as LatestEnds).freeS() : 0;
      return free === Infinity ? null : earliestAt(task, who, Math.max(from, free));
    };
    if (asked >= 0 && mayDo(asked)) return fitFor(asked);
    const whose = has >= 0 ? has : bout.owner;
    const own = whose >= 0 && mayDo(whose) ? fitFor(whose) : null;
    // Whoever is not there any more leaves it to others.
    if (own && own.startS < Infinity) return own;
    if (own === null && whose >= 0 && mayDo(whose)) return null;
    let best: Slot | null = null;
    for (const who of task.able) {
      if (!mayDo(who)) continue;
      const slot = fitFor(who);
      if (slot && (best === null || slot.endS < best.endS)) best = slot;
    }
    return best;
  };

  const record = (task: IndexedTask, slot: Slot): void => {
    startS[task.index] = slot.startS;
    endS[task.index] = slot.endS;
    person[task.index] = slot.person;
    place[task.index] = slot.place;
    order.push(task.index);
    const bout = boutOf(task);
    if (!bout.atStand) return;
    if (isFirst(task) && !bout.inHand) floor.open();
    if (task.able.length > 0 && owner[task.bout] === -1) {
      owner[task.bout] = slot.person;
      hands[slot.person]?.open();
    }
    if (isLast(task)) {
      floor.shut(slot.endS);
      const has = owner[task.bout] as number;
      if (has >= 0) hands[has]?.shut(slot.endS);
    }
  };

  const put = (task: IndexedTask, slot: Slot): void => {
    record(task, slot);
    if (slot.person >= 0) insert(people[slot.person] as Taken, slot, task.kind, task.where);
    if (slot.place >= 0) insert(places[slot.place] as Taken, slot, 0, 0);
    for (let next = task.next; next >= 0;) {
      const wait = tasks[next] as IndexedTask;
      if (wait.task.kind !== 'wait') break;
      const from = endS[wait.previous] as number;
      record(wait, { startS: from, endS: from + wait.lengthS, person: -1, place: -1 });
      next = wait.next;
    }
  };

  const giveUp = (task: IndexedTask): void => {
    const bout = boutOf(task);
    const isBegun = bout.inHand || isIn(bout.tasks[0] as number);
    if (!bout.atStand || !isBegun) return;
    const has = owner[task.bout] as number;
    floor.shut(readyS(task));
    if (has >= 0) hands[has]?.shut(readyS(task));
  };

  const timetable: Timetable = {
    startS,
    endS,
    person,
    place,
    order,
    owner,
    isIn,
    isReady,
    readyS,
    earliest,
    put,
    giveUp,
  };
  for (const { first } of units) {
    // A unit that only has to wait stands already.
    const task = tasks[first] as IndexedTask;
    if (task.task.kind !== 'wait') continue;
    const from = readyS(task);
    put(task, { startS: from, endS: from + task.lengthS, person: -1, place: -1 });
  }
  return timetable;
}

const nothing = (): Taken => ({ start: [], end: [], kind: [], where: [] });

function insert({ start, end, kind, where }: Taken, slot: Slot, ofKind: number, at: number): void {
  const i = firstAfter(start, slot.startS);
  if (i === start.length) {
    start.push(slot.startS);
    end.push(slot.endS);
    kind.push(ofKind);
    where.push(at);
    return;
  }
  start.splice(i, 0, slot.startS);
  end.splice(i, 0, slot.endS);
  kind.splice(i, 0, ofKind);
  where.splice(i, 0, at);
}

/** Index of the first that is greater than `s`, of a rising list. */
function firstAfter(rising: readonly number[], s: number): number {
  let low = 0;
  let high = rising.length;
  if (high === 0 || (rising[high - 1] as number) <= s) return high;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((rising[middle] as number) > s) high = middle;
    else low = middle + 1;
  }
  return low;
}
