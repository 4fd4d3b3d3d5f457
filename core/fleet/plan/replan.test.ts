import { describe, expect, it } from 'vitest';
import { someDays } from '../../testing/any-day.js';
import { changedBy, changedByAll, type PlanChange } from './change.js';
import { planDay } from './plan-day.js';
import type { DayPlan, PlanProblem } from './plan-problem.js';
import { movedBetween, replan, shifted, standings } from './replan.js';
import { tightestOf } from './tightest.js';

const HOUR_S = 3_600;
const shop = (seed = 3): PlanProblem => someDays(seed, { units: 16, people: 3, orders: 2, days: 4 });
const problem = shop();
const plan = planDay(problem, 1, 60);
const [first] = [...standings(plan).entries()].sort(([, a], [, b]) => a.startS - b.startS);

describe('a plan that is made again', () => {
  it('moves nothing where nothing moved', () => {
    const again = replan(problem, plan, 2, 0);
    expect(movedBetween(problem, plan, again)).toEqual([]);
  });

  it('keeps most where it is when somebody goes home, and says of whom that was', () => {
    const gone = changedBy(problem, { kind: 'leaves', personId: 'p1', fromS: HOUR_S, untilS: 24 * HOUR_S });
    const next = replan(gone, plan, 2, 40);
    const moved = movedBetween(gone, plan, next);
    const others = (after: DayPlan): number =>
      movedBetween(gone, plan, after).filter(({ from, to }) => from?.personId !== to?.personId).length;
    expect(moved.filter(({ why }) => why === 'personAway').length).toBeGreaterThan(0);
    expect(others(next)).toBeLessThan(others(planDay(gone, 2, 40)));
    for (const task of next.tasks)
      if (task.personId === 'p1') expect(task.endS <= HOUR_S || task.startS >= 24 * HOUR_S).toBe(true);
  });

  it('obeys whoever takes another unit, and plans around it', () => {
    const [unitId, { personId }] = first!;
    const other = problem.people.find(({ id, skills }) => id !== personId && skills.includes('ride'))!.id;
    const given = changedBy(problem, { kind: 'give', unitId, personId: other });
    const next = replan(given, plan, 2, 30);
    expect(standings(next).get(unitId)?.personId).toBe(other);
    expect(movedBetween(given, plan, next).find((each) => each.unitId === unitId)?.why).toBe('chosen');
  });

  it('leaves what is in hand with whoever has it', () => {
    const [unitId] = first!;
    const begun: PlanProblem = {
      ...problem,
      units: problem.units.map((unit) => (unit.id === unitId ? { ...unit, owner: 'p2', inHand: true } : unit)),
    };
    expect(standings(replan(begun, plan, 2, 30)).get(unitId)?.personId).toBe('p2');
  });

  it('tells of a unit that is held, and of one that comes in', () => {
    const [unitId] = first!;
    const held: PlanProblem = { ...problem, units: problem.units.filter(({ id }) => id !== unitId) };
    expect(movedBetween(held, plan, replan(held, plan, 2, 10)).find((each) => each.unitId === unitId)?.why).toBe(
      'gone',
    );
    const before = planDay(held, 1, 20);
    expect(
      movedBetween(problem, before, replan(problem, before, 2, 10)).find((each) => each.unitId === unitId)?.why,
    ).toBe('new');
  });

  it('stands at its times, whatever moment it is told from', () => {
    const later = shifted(plan, -600);
    expect(later.tasks[0]?.startS).toBe((plan.tasks[0]?.startS ?? 0) - 600);
    expect(later.orders.map(({ readyS }) => readyS)).toEqual(plan.orders.map(({ readyS }) => (readyS ?? 0) - 600));
  });
});

describe('a change', () => {
  const changed = (change: PlanChange): PlanProblem => changedBy(problem, change);
  const hoursOf = (given: PlanProblem, id: string) =>
    [...given.people, ...given.places].find((each) => each.id === id)?.hours;

  it('lengthens the last stretch before a time, and shortens by an absence', () => {
    const stays = changed({ kind: 'stays', personId: 'p0', untilS: 10 * HOUR_S });
    expect(hoursOf(stays, 'p0')?.[1]).toEqual({ fromS: 4.5 * HOUR_S, toS: 10 * HOUR_S });
    const shut = changed({ kind: 'shuts', placeId: 'yard0', fromS: 2 * HOUR_S, untilS: 5 * HOUR_S });
    expect(hoursOf(shut, 'yard0')?.slice(0, 2)).toEqual([
      { fromS: 0, toS: 2 * HOUR_S },
      { fromS: 5 * HOUR_S, toS: 8.5 * HOUR_S },
    ]);
    expect(hoursOf(changed({ kind: 'opens', placeId: 'yard0', untilS: HOUR_S }), 'yard0')).toEqual(
      hoursOf(problem, 'yard0'),
    );
  });

  it('lets units follow later without their order, proves in another place, and moves what is due', () => {
    const follow = changed({ kind: 'follow', orderId: 'o0', units: 2 });
    expect(follow.units.filter(({ orderId }) => orderId === 'o0 later')).toHaveLength(2);
    const roller = changed({
      kind: 'proved',
      unitKinds: [...new Set(problem.units.map(({ kind }) => kind))],
      at: 'roller',
    });
    const proofs = roller.units.flatMap(({ tasks }) =>
      tasks.filter(({ step, kind }) => step === 'prove' && kind === 'hands'),
    );
    expect(proofs.every((task) => task.kind === 'hands' && task.at === 'roller')).toBe(true);
    expect(changed({ kind: 'due', orderId: 'o1', dueS: 5 }).orders[1]?.dueS).toBe(5);
  });

  it('takes one more order in beside those that stand', () => {
    const [unit] = problem.units;
    const order = { id: 'more', name: 'more', dueS: 9 * HOUR_S, weight: 1 };
    const taken = changed({ kind: 'takes', order, units: [{ ...unit!, id: 'more 0', orderId: 'more', owner: null }] });
    expect([taken.orders.at(-1), taken.units.at(-1)?.orderId]).toEqual([order, 'more']);
    expect(taken.units.slice(0, -1)).toEqual(problem.units);
  });

  it('that names nothing that is there changes nothing', () => {
    const none: readonly PlanChange[] = [
      { kind: 'stays', personId: 'nobody', untilS: 9e5 },
      { kind: 'give', unitId: 'none', personId: 'p0' },
      { kind: 'follow', orderId: 'none', units: 3 },
    ];
    expect(changedByAll(problem, none)).toEqual(problem);
  });
});

describe('what holds an order up', () => {
  it('is the place that is taken most until then', () => {
    const slow: PlanProblem = {
      ...problem,
      units: problem.units.map((unit) => ({
        ...unit,
        tasks: unit.tasks.map((task) => (task.step === 'calibrate' ? { ...task, lengthS: 1_500 } : task)),
      })),
    };
    const tight = tightestOf(slow, planDay(slow, 1, 20), 'o1');
    expect(tight?.of).toBe('yard');
    expect(tight!.takenS).toBeLessThanOrEqual(tight!.openS);
  });

  it('is nothing where there is time enough', () => {
    const one = { ...problem, units: problem.units.slice(0, 1) };
    expect(tightestOf(one, planDay(one, 1, 5), one.units[0]!.orderId)).toBeNull();
  });
});
