import type { IndexedProblem, IndexedTask } from './indexed-problem.js';
import { emptyTimetable, type Timetable } from './timetable.js';

/** What decides a plan: in which order tasks are put in, and by whom. */
export interface Choice {
  /** Tasks that need hands or a post, by index, each once. */
  readonly order: readonly number[];
  /** By task: who does it, or -1 for whoever is earliest. */
  readonly who: readonly number[];
}

/** What came of it. */
export interface LaidOut {
  readonly table: Timetable;
  /** Units for which there is no time. */
  readonly gaveUp: ReadonlySet<number>;
}

/**
 * Puts tasks in one by one in the order given, each as early as it goes among those before it; one whose turn has not
 * come, since its unit is not so far or no stand is free, is put in as soon as it is (serial schedule generation;
 * R. Kolisch, European Journal of Operational Research 90, 1996). Every plan in which nothing can be done earlier
 * without something else being done later comes of some order: given by their starts, such a plan's tasks give it back.
 */
export function layOut(given: IndexedProblem, { order, who }: Choice): LaidOut {
  const table = emptyTimetable(given);
  const gaveUp = new Set<number>();
  const waiting: number[] = [];
  const tryOne = (index: number): 'done' | 'notYet' => {
    const task = given.tasks[index] as IndexedTask;
    if (gaveUp.has(task.unit)) return 'done';
    if (!table.isReady(task)) return 'notYet';
    const slot = table.earliest(task, who[index] ?? -1);
    if (slot === null) return 'notYet';
    if (slot.startS === Infinity) {
      gaveUp.add(task.unit);
      table.giveUp(task);
    } else table.put(task, slot);
    return 'done';
  };
  for (const index of order) {
    if (tryOne(index) === 'notYet') {
      waiting.push(index);
      continue;
    }
    for (let i = 0; i < waiting.length;) {
      if (tryOne(waiting[i] as number) === 'notYet') i++;
      else {
        waiting.splice(i, 1);
        i = 0;
      }
    }
  }
  for (const index of waiting) gaveUp.add((given.tasks[index] as IndexedTask).unit);
  return { table, gaveUp };
}

/** The choice by which the same comes out again or something no later: by start, and by whom each was done. */
export function choiceOf(given: IndexedProblem, { table }: LaidOut): Choice {
  const { startS, person } = table;
  const order = table.order.filter((index) => (given.tasks[index] as IndexedTask).task.kind !== 'wait');
  const left = given.tasks.flatMap(({ index, task }) => (task.kind !== 'wait' && !table.isIn(index) ? [index] : []));
  // Sorting is stable: what begins in the same second stays in the order in which it was put in.
  order.sort((a, b) => (startS[a] as number) - (startS[b] as number));
  return { order: [...order, ...left], who: [...person] };
}
