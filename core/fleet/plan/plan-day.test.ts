import { describe, expect, it } from 'vitest';
import { lessLate } from '../../testing/all-schedules.js';
import { smallDay, someDays } from '../../testing/any-day.js';
import { howOften } from '../../testing/how-often.js';
import { dayBound } from './day-bound.js';
import { earliestDueFirst, finishOf, gapOf, planDay } from './plan-day.js';
import type { DayPlan, HandsTask, PlannedTask, PlanProblem } from './plan-problem.js';

const ALL_DAY = [{ fromS: 0, toS: 36_000 }];
const hands = (id: string, over: Partial<HandsTask> = {}): HandsTask => ({
  kind: 'hands',
  id,
  step: 'keyIn',
  lengthS: 600,
  skill: 'bench',
  at: 'stand',
  notBy: [],
  apartFrom: null,
  ...over,
});

/** One person, one order, units of ten minutes each, and whatever is otherwise. */
const day = (over: Partial<PlanProblem> = {}, units = 2): PlanProblem => ({
  people: [{ id: 'ines', name: 'Ines', skills: ['bench', 'ride', 'sign'], hours: ALL_DAY }],
  places: [],
  stands: 4,
  weave: 2,
  setupS: { kind: 0, place: 0 },
  orders: [{ id: 'o', name: '2611', dueS: 3_600, weight: 1 }],
  units: Array.from({ length: units }, (_, i) => unit(`u${i}`, [hands(`u${i} a`)])),
  ...over,
});
const unit = (
  id: string,
  tasks: PlanProblem['units'][number]['tasks'],
  over: object = {},
): PlanProblem['units'][number] => ({
  id,
  name: id,
  orderId: 'o',
  kind: 'k',
  arrivesS: 0,
  owner: null,
  inHand: false,
  after: [],
  tasks,
  ...over,
});
const of = ({ tasks }: DayPlan, id: string): PlannedTask => tasks.find((task) => task.id === id) as PlannedTask;

describe('a plan of a small day', () => {
  // In parts, so that no one test is long.
  it.each([0, 1, 2, 3, 4, 5])('is as little late as the best of all schedules, days %i of six', (part) => {
    const bettered = Array.from({ length: howOften(10, 50) }, (_, i) => 6 * i + part).flatMap((seed) => {
      const problem = smallDay(seed);
      const { cost } = planDay(problem, 1);
      if (cost.unplaced > 0 || cost.lateS === 0) return [];
      const way = lessLate(problem, cost.lateS, 60);
      return way ? [`${seed}: ${cost.lateS} s late, and ${way.join('; ')} is less`] : [];
    });
    expect(bettered).toEqual([]);
  });

  it('is often late in these days, so that there is something to be best at', () => {
    const late = Array.from({ length: 60 }, (_, seed) => planDay(smallDay(seed), 1, 200).cost).filter(
      ({ lateS }) => lateS > 0,
    );
    expect(late.length).toBeGreaterThan(40);
  });

  it('is never under what the bound says no plan goes below', () => {
    for (let seed = 0; seed < howOften(80, 300); seed++) {
      const problem = smallDay(seed);
      const plan = planDay(problem, 1, 100);
      if (plan.cost.unplaced > 0) continue;
      const bound = dayBound(problem);
      expect(plan.cost.lateS).toBeGreaterThanOrEqual(bound.lateS - 1e-6);
      expect(finishOf(plan)).toBeGreaterThanOrEqual(bound.finishS - 1e-6);
    }
  });
});

describe('a plan', () => {
  it('is never later than earliest due first', () => {
    const later = Array.from({ length: howOften(200, 1_000) }, (_, seed) => seed).filter((seed) => {
      const problem = someDays(seed, { units: 9, people: 2, orders: 3, days: 4 });
      return planDay(problem, 1, 20).cost.lateS > earliestDueFirst(problem).cost.lateS;
    });
    expect(later).toEqual([]);
  });

  it.each([1, 2, 3].slice(0, howOften(1, 3)))(
    'of 300 units and 8 people is within 5 % of the best there can be, days %i',
    (seed) => {
      const problem = someDays(seed, { units: 300, people: 8, orders: 6 });
      const plan = planDay(problem, 1, 420);
      expect(plan.unplaced).toEqual([]);
      expect(gapOf(problem, plan, dayBound(problem))).toBeLessThan(0.05);
    },
  );

  it('is the same for the same seed, and keeps every rule of the day', () => {
    for (let seed = 0; seed < 12; seed++) {
      const problem = someDays(seed, { units: 30, people: 4, orders: 3 });
      const plan = planDay(problem, 7, 60);
      expect(planDay(problem, 7, 60)).toEqual(plan);
      expect(broken(problem, plan)).toEqual([]);
    }
  });

  it('weaves: one is keyed while another restarts, up to what one person has in hand', () => {
    const both = (u: string) =>
      unit(u, [hands(`${u} a`), { kind: 'wait', id: `${u} w`, step: 'restart', lengthS: 600 }, hands(`${u} b`)]);
    const woven = planDay(day({ units: [both('u0'), both('u1')] }), 1, 100);
    const single = planDay(day({ units: [both('u0'), both('u1')], weave: 1 }), 1, 100);
    expect(finishOf(woven)).toBe(2_400);
    expect(finishOf(single)).toBe(3_600);
  });

  it('has a second person read where somebody else has to', () => {
    const read = unit('u0', [hands('key'), hands('read', { apartFrom: 'key' })]);
    const two = day({
      people: [...day().people, { id: 'teo', name: 'Teo', skills: ['bench'], hours: ALL_DAY }],
      units: [read],
    });
    const plan = planDay(two, 1, 50);
    expect(of(plan, 'key').personId).not.toBe(of(plan, 'read').personId);
    expect(planDay(day({ units: [read] }), 1, 10).unplaced).toEqual([{ unitId: 'u0', why: 'nobodyElse' }]);
  });

  it('takes the yard and each post one at a time, a pack only where it fits', () => {
    const post = (id: string, packs: readonly string[] | null) => ({
      id,
      name: id,
      kind: 'post' as const,
      hours: ALL_DAY,
      packs,
    });
    const charged = (u: string) =>
      unit(u, [{ kind: 'charge', id: `${u} c`, step: 'prove', lengthS: 3_000, pack: '48' }]);
    const plan = planDay(
      day({ places: [post('any', null), post('36 only', ['36'])], units: [charged('u0'), charged('u1')] }),
      1,
      50,
    );
    expect(plan.tasks.map(({ placeId, startS }) => [placeId, startS])).toEqual([
      ['any', 0],
      ['any', 3_000],
    ]);
  });
});

describe('what stands in the way is said, and the rest is laid out', () => {
  it.each([
    ['nobody is there', { people: [] }, 'noSkill'],
    ['nobody has the skill', { people: [{ ...day().people[0]!, skills: ['ride'] as const }] }, 'noSkill'],
    ['there is no yard', { units: [unit('u0', [hands('a', { skill: 'ride', at: 'yard' })])] }, 'noPlace'],
    [
      'no post takes its pack',
      { units: [unit('u0', [{ kind: 'charge', id: 'c', step: 'prove', lengthS: 60, pack: '60' }])] },
      'noPost',
    ],
    [
      'units wait for each other',
      { units: [unit('u0', [hands('a')], { after: ['u1'] }), unit('u1', [hands('b')], { after: ['u0'] })] },
      'waitsInCircle',
    ],
    [
      'nobody is there long enough in all',
      { people: [{ ...day().people[0]!, hours: [{ fromS: 0, toS: 300 }] }] },
      'noTime',
    ],
  ])('%s', (_, over, why) => {
    const plan = planDay(day(over as Partial<PlanProblem>), 1, 20);
    expect(new Set(plan.unplaced.map((each) => each.why))).toEqual(new Set([why]));
    expect(plan.tasks).toEqual([]);
  });

  it('one that waits for such a unit waits too, and others do not', () => {
    const units = [
      unit('lost', [hands('x', { skill: 'ride', at: 'yard' })]),
      unit('after', [hands('y')], { after: ['lost'] }),
      unit('fine', [hands('z')]),
    ];
    const plan = planDay(day({ units }), 1, 20);
    expect(plan.unplaced.map(({ unitId, why }) => [unitId, why])).toEqual([
      ['lost', 'noPlace'],
      ['after', 'waitsForUnplaced'],
    ]);
    expect(of(plan, 'z').startS).toBe(0);
  });

  it('a step longer than anybody is there at a stretch goes on after breaks', () => {
    const hours = [
      { fromS: 0, toS: 3_000 },
      { fromS: 5_000, toS: 9_000 },
    ];
    const long = day({
      people: [{ ...day().people[0]!, hours }],
      units: [unit('u0', [hands('a', { lengthS: 5_000 })])],
    });
    expect(of(planDay(long, 1, 10), 'a')).toMatchObject({ startS: 0, endS: 7_000, isSplit: true });
  });

  it('no break is worked through by what fits beside it', () => {
    const hours = [
      { fromS: 0, toS: 900 },
      { fromS: 2_000, toS: 9_000 },
    ];
    const plan = planDay(day({ people: [{ ...day().people[0]!, hours }] }), 1, 20);
    expect(plan.tasks.map(({ startS }) => startS)).toEqual([0, 2_000]);
  });

  it('2,000 units are laid out', () => {
    const plan = planDay(someDays(5, { units: 2_000, people: 12, orders: 20, days: 21 }), 1, 0);
    expect(plan.tasks.length).toBeGreaterThan(12_000);
    expect(plan.unplaced).toEqual([]);
  });
});

/** What a plan breaks of its day, in words: hours, skills, one at a time, order of steps, stands, what one has in hand. */
function broken(problem: PlanProblem, { tasks }: DayPlan): readonly string[] {
  const says: string[] = [];
  const taskOf = new Map(problem.units.flatMap((each) => each.tasks.map((task) => [task.id, task])));
  const within = (hours: readonly { fromS: number; toS: number }[], { startS, endS }: PlannedTask): boolean =>
    hours.some(({ fromS, toS }) => fromS <= startS && endS <= toS);
  const apart = (name: string, all: readonly PlannedTask[]): void => {
    const ordered = [...all].sort((a, b) => a.startS - b.startS);
    for (const [i, task] of ordered.entries())
      if (i > 0 && task.startS < (ordered[i - 1]?.endS ?? 0)) says.push(`${name} has two at once at ${task.startS}`);
  };
  for (const person of problem.people) {
    const own = tasks.filter(({ personId }) => personId === person.id);
    apart(person.id, own);
    for (const task of own) {
      const { skill } = taskOf.get(task.id) as HandsTask;
      if (!person.skills.includes(skill)) says.push(`${person.id} may not ${skill}`);
      if (!within(person.hours, task)) says.push(`${person.id} is not there at ${task.startS}`);
    }
  }
  for (const place of problem.places) {
    const own = tasks.filter(({ placeId }) => placeId === place.id);
    apart(place.id, own);
    if (own.some((task) => !within(place.hours, task))) says.push(`${place.id} is shut`);
  }
  const spans: { from: number; to: number; who: string | null }[] = [];
  for (const each of problem.units) {
    const own = each.tasks.map(({ id }) => tasks.find((task) => task.id === id) as PlannedTask);
    for (const [i, task] of own.entries()) {
      if (i > 0 && task.startS < (own[i - 1]?.endS ?? 0)) says.push(`${task.id} is before its turn`);
      if (i === 0 && task.startS < each.arrivesS) says.push(`${task.id} is before it came`);
    }
    let open: (typeof spans)[number] | null = null;
    for (const [i, task] of own.entries()) {
      const given = each.tasks[i]!;
      if (given.kind === 'charge' || (given.kind === 'hands' && given.at === 'aside')) open = null;
      else if (open === null) spans.push((open = { from: task.startS, to: task.endS, who: task.personId }));
      else open.to = task.endS;
    }
  }
  for (const { from } of spans) {
    const now = spans.filter((span) => span.from <= from && span.to > from);
    if (now.length > problem.stands) says.push(`too many stand at ${from}`);
    for (const { id } of problem.people)
      if (now.filter(({ who }) => who === id).length > problem.weave)
        says.push(`${id} has too many in hand at ${from}`);
  }
  return says;
}
