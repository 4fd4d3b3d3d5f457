import { describe, expect, it } from 'vitest';
import { someDays } from '../../testing/any-day.js';
import { forecast, type LengthOf } from './forecast.js';
import { planDay } from './plan-day.js';
import { offerOf } from './promise-order.js';
import { remediesFor } from './remedies.js';

const HOUR_S = 3_600;
const problem = someDays(4, { units: 20, people: 3, orders: 2, days: 6 });
const readyAt = new Map(planDay(problem, 1, 60).orders.map(({ orderId, readyS }) => [orderId, readyS ?? 0]));
/** Due when they are ready as planned, give or take a little. */
const given = {
  ...problem,
  orders: problem.orders.map((order, i) => ({
    ...order,
    dueS: (readyAt.get(order.id) ?? 0) + (i === 0 ? 1_200 : -60),
    weight: 1,
  })),
};
const plan = planDay(given, 1, 60);
const taskOf = new Map(given.units.flatMap(({ tasks }) => tasks.map((task) => [task.id, task])));
const lengthOf: LengthOf = (id) => {
  const task = taskOf.get(id) ?? offeredTasks.get(id);
  return task?.kind === 'hands'
    ? { mean: Math.log(task.lengthS) - 0.045, sd: 0.3, unsure: 0, count: 9, kindOf: task.step }
    : null;
};
const offered = {
  order: { id: 'new', name: 'new', dueS: null, weight: 1 },
  units: given.units.slice(0, 10).map((unit) => ({
    ...unit,
    id: `${unit.id} new`,
    orderId: 'new',
    tasks: unit.tasks.map((task) => ({ ...task, id: `${task.id} new` })),
  })),
};
const offeredTasks = new Map(offered.units.flatMap(({ tasks }) => tasks.map((task) => [task.id, task])));

describe('an order that is offered', () => {
  it('behind all that was promised makes none of it later', () => {
    const { behind, wanted } = offerOf(given, plan, offered, null, lengthOf, { seed: 1 });
    expect(wanted).toBeNull();
    const last = Math.max(...plan.orders.map(({ readyS }) => readyS ?? 0));
    expect(behind.ready![90]).toBeGreaterThan(last);
    expect(behind.ready![50]).toBeLessThanOrEqual(behind.ready![90]);
  });

  it('wanted sooner, is ready sooner, and tells what it pushes', () => {
    const { behind, wanted } = offerOf(given, plan, offered, 2 * HOUR_S, lengthOf, { seed: 1 });
    expect(wanted!.forecast.ready![50]).toBeLessThan(behind.ready![50]);
    expect(wanted!.pushes.length).toBeGreaterThan(0);
    for (const { lateS, inTime } of wanted!.pushes)
      expect(lateS.after > lateS.before || (inTime.after ?? 0) < (inTime.before ?? 0)).toBe(true);
  });

  it('that nobody can work has no time, and nothing is promised', () => {
    const lost = { ...offered, units: offered.units.map((unit) => ({ ...unit, after: ['nowhere', unit.id] })) };
    expect(offerOf(given, plan, lost, null, lengthOf, { seed: 1, runs: 50 }).behind.ready).toBeNull();
  });
});

describe('what would help an order at risk', () => {
  // Nine hours of work for one person who is there for eight and a half, due an hour later.
  const tight = {
    ...someDays(2, { units: 1, people: 1, orders: 1, days: 1 }),
    orders: [{ id: 'o0', name: 'o0', dueS: 10 * HOUR_S, weight: 1 }],
  };
  const long = {
    ...tight,
    units: Array.from({ length: 9 }, (_, i) => ({
      ...tight.units[0]!,
      id: `u${i}`,
      arrivesS: 0,
      tasks: [{ ...tight.units[0]!.tasks[0]!, id: `u${i}`, lengthS: 55 * 60 }],
    })),
  };
  const tomorrow = {
    ...long,
    people: long.people.map((person) => ({
      ...person,
      hours: [...person.hours, { fromS: 24 * HOUR_S, toS: 30 * HOUR_S }],
    })),
  };
  const stands = planDay(tomorrow, 1, 20);
  const exact: LengthOf = (id) => ({ mean: Math.log(55 * 60), sd: 0.02, unsure: 0, count: 9, kindOf: id });

  it('is found: somebody stays, or units follow later, each with its chance then', () => {
    const [before] = forecast(tomorrow, stands, exact, 1, { runs: 100 });
    expect(before!.inTime).toBeLessThan(20);
    const found = remediesFor(tomorrow, stands, 'o0', before!.inTime!, exact, { seed: 1 });
    expect(found.map(({ change }) => change.kind).sort()).toEqual(['follow', 'stays']);
    for (const { inTime } of found) expect(inTime).toBeGreaterThan(80);
  });

  it('is nothing where nothing is at risk', () => {
    const easy = { ...tomorrow, orders: [{ ...tomorrow.orders[0]!, dueS: 40 * HOUR_S }] };
    expect(remediesFor(easy, stands, 'o0', 100, exact, { seed: 1, runs: 50 })).toEqual([]);
  });
});
