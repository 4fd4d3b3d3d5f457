import type { IndexedProblem } from './indexed-problem.js';
import type { LaidOut } from './lay-out.js';
import type { DayPlan, PlanCost, PlannedTask } from './plan-problem.js';

/** Whether a plan is better (negative) or worse (positive) than another. */
export const compareCosts = (a: PlanCost, b: PlanCost): number =>
  a.unplaced - b.unplaced || a.lateS - b.lateS || a.workS - b.workS || a.changes - b.changes;

/** What it counts that the floor is empty, in units: a tail of one unit keeps a whole shop open. */
const LAST = 0.5;

/** When every order is ready, by index; -1 where it has no unit that can be laid out. */
function readiness(
  given: IndexedProblem,
  { table, gaveUp }: LaidOut,
): { readonly readyS: Float64Array; workS: number } {
  const readyS = new Float64Array(given.problem.orders.length).fill(-1);
  let workS = 0;
  let lastS = 0;
  for (const [u, { order, last }] of given.units.entries()) {
    if (gaveUp.has(u)) continue;
    const end = table.endS[last] as number;
    workS += end;
    lastS = Math.max(lastS, end);
    if (order >= 0 && end > (readyS[order] as number)) readyS[order] = end;
  }
  return { readyS, workS: workS + LAST * given.units.length * lastS };
}

/** What a plan costs, without writing it out. */
export function costOf(given: IndexedProblem, laid: LaidOut): PlanCost {
  const { readyS, workS } = readiness(given, laid);
  let lateS = 0;
  for (const [o, { dueS, weight }] of given.problem.orders.entries())
    if (dueS !== null && (readyS[o] as number) > dueS) lateS += weight * ((readyS[o] as number) - dueS);
  return { unplaced: given.unplaced.length + laid.gaveUp.size, lateS, workS, changes: changesIn(given, laid) };
}

function changesIn(given: IndexedProblem, { table }: LaidOut): number {
  const lastOf = new Int32Array(given.problem.people.length).fill(-1);
  let changes = 0;
  const order = [...table.order].sort((a, b) => (table.startS[a] as number) - (table.startS[b] as number));
  for (const index of order) {
    const who = table.person[index] as number;
    if (who < 0) continue;
    const task = given.tasks[index];
    const last = given.tasks[lastOf[who] as number];
    lastOf[who] = index;
    if (task && last) changes += Number(task.kind !== last.kind) + Number(task.where !== last.where);
  }
  return changes;
}

/** Writes a plan out, with names. */
export function writtenOut(given: IndexedProblem, laid: LaidOut): DayPlan {
  const { table, gaveUp } = laid;
  const { people, places, orders } = given.problem;
  const { readyS } = readiness(given, laid);
  const tasks = table.order
    .map((index): PlannedTask => {
      const { task, unit, isSplit } = given.tasks[index] as (typeof given.tasks)[number];
      return {
        id: task.id,
        unitId: given.units[unit]?.unit.id ?? '',
        step: task.step,
        kind: task.kind,
        startS: table.startS[index] as number,
        endS: table.endS[index] as number,
        personId: people[table.person[index] as number]?.id ?? null,
        placeId: places[table.place[index] as number]?.id ?? null,
        isSplit,
      };
    })
    .sort((a, b) => a.startS - b.startS);
  return {
    tasks,
    orders: orders.map(({ id, dueS }, o) => {
      const ready = readyS[o] as number;
      return {
        orderId: id,
        readyS: ready < 0 ? null : ready,
        lateS: dueS === null || ready < 0 ? 0 : Math.max(0, ready - dueS),
      };
    }),
    unplaced: [
      ...given.unplaced,
      ...[...gaveUp].map((u) => ({ unitId: given.units[u]?.unit.id ?? '', why: 'noTime' as const })),
    ],
    cost: costOf(given, laid),
  };
}
