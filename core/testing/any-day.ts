import type { HandsTask, PlanProblem, PlanTask, PlanUnit, Skill, OpenTime } from '../fleet/plan/plan-problem.js';
import { seeded } from '../statistics/seeded.js';

/** A day of three units or four and a few seconds, in which everything that can be in the way is in the way. */
export function smallDay(seed: number): PlanProblem {
  const { uniform } = seeded(seed);
  const among = (count: number): number => Math.min(count - 1, Math.floor(uniform() * count));
  const count = 2 + among(3);
  const hours = (): readonly OpenTime[] => {
    const from = among(2);
    const at = 4 + among(4);
    return uniform() < 0.5
      ? [{ fromS: from, toS: 200 }]
      : [
          { fromS: from, toS: at },
          { fromS: at + 1 + among(2), toS: 200 },
        ];
  };
  const hands = (id: string, over: Partial<HandsTask> = {}): HandsTask => ({
    kind: 'hands',
    id,
    step: 'keyIn',
    lengthS: 1 + among(3),
    skill: 'bench',
    at: 'stand',
    notBy: [],
    apartFrom: null,
    ...over,
  });
  const units = Array.from({ length: count }, (_, u): PlanUnit => {
    const id = `u${u}`;
    const tasks: PlanTask[] = [hands(`${id}a`)];
    if (uniform() < 0.5) tasks.push({ kind: 'wait', id: `${id}w`, step: 'restart', lengthS: 1 + among(3) });
    const second = uniform();
    if (second < 0.3) tasks.push(hands(`${id}b`, { skill: 'ride', at: 'yard' }));
    else if (second < 0.5) tasks.push(hands(`${id}b`, { apartFrom: `${id}a` }));
    else if (second < 0.7)
      tasks.push({ kind: 'charge', id: `${id}c`, step: 'prove', lengthS: 2 + among(3), pack: '36' }, hands(`${id}d`));
    else tasks.push(hands(`${id}b`));
    if (tasks.length < 4 && uniform() < 0.4)
      tasks.push(hands(`${id}s`, { step: 'signOff', lengthS: 1, skill: 'sign', at: 'aside' }));
    return {
      id,
      name: id,
      orderId: `o${u % 2}`,
      kind: `k${among(2)}`,
      arrivesS: uniform() < 0.3 ? among(5) : 0,
      owner: null,
      inHand: false,
      after: [],
      tasks,
    };
  });
  const skills: readonly (readonly Skill[])[] = [
    ['bench', 'ride', 'sign'],
    uniform() < 0.5 ? ['bench', 'ride'] : ['bench'],
  ];
  return {
    people: skills.map((each, i) => ({ id: `p${i}`, name: `P${i}`, skills: each, hours: hours() })),
    places: [
      { id: 'yard', name: 'Yard', kind: 'yard', hours: hours(), packs: null },
      { id: 'post', name: 'Post', kind: 'post', hours: [{ fromS: 0, toS: 200 }], packs: null },
    ],
    stands: 2 + among(2),
    weave: 1 + among(2),
    setupS: { kind: among(2), place: among(2) },
    orders: [0, 1].map((o) => ({ id: `o${o}`, name: `O${o}`, dueS: 3 + among(8), weight: 1 + among(3) })),
    units,
  };
}

const HOUR_S = 3_600;

/** Some days of such a shop: hours with a break, units of five kinds in orders due at the end of some morning or day. */
export function someDays(
  seed: number,
  { units, people, orders, days = 10 }: { units: number; people: number; orders: number; days?: number },
): PlanProblem {
  const { uniform, normal } = seeded(seed);
  const hours = Array.from({ length: days }, (_, day): readonly OpenTime[] => [
    { fromS: day * 24 * HOUR_S, toS: (day * 24 + 4) * HOUR_S },
    { fromS: (day * 24 + 4.5) * HOUR_S, toS: (day * 24 + 8.5) * HOUR_S },
  ]).flat();
  const about = (minutes: number): number => Math.max(20, Math.round(minutes * 60 * Math.exp(0.3 * normal())));
  const work = units * 23 * 60;
  const lastDay = Math.max(1, Math.ceil(work / people / (8 * HOUR_S)));
  const posts = Math.max(1, people);
  return {
    people: Array.from({ length: people }, (_, i) => ({
      id: `p${i}`,
      name: `P${i}`,
      skills: (i % 3 === 0 ? ['bench', 'ride', 'sign'] : i % 4 === 3 ? ['bench'] : ['bench', 'ride']) as Skill[],
      hours,
    })),
    places: [
      ...Array.from({ length: Math.ceil(people / 3) }, (_, i) => ({
        id: `yard${i}`,
        name: `Yard ${i}`,
        kind: 'yard' as const,
        hours,
        packs: null,
      })),
      { id: 'roller', name: 'Roller', kind: 'roller', hours, packs: null },
      ...Array.from({ length: posts }, (_, i) => ({
        id: `post${i}`,
        name: `Post ${i}`,
        kind: 'post' as const,
        hours,
        packs: i % 2 === 0 ? ['36', '48'] : ['36'],
      })),
    ],
    stands: people * 3,
    weave: 3,
    setupS: { kind: 40, place: 15 },
    orders: Array.from({ length: orders }, (_, o) => ({
      id: `o${o}`,
      name: `O${o}`,
      dueS: (24 * Math.floor(uniform() * lastDay) + (uniform() < 0.5 ? 4 : 8)) * HOUR_S,
      weight: 1 + Math.floor(uniform() * 3),
    })),
    units: Array.from({ length: units }, (_, u): PlanUnit => {
      const id = `u${u}`;
      const hands = (
        name: string,
        step: HandsTask['step'],
        minutes: number,
        over: Partial<HandsTask> = {},
      ): HandsTask => ({
        kind: 'hands',
        id: `${id}${name}`,
        step,
        lengthS: about(minutes),
        skill: 'bench',
        at: 'stand',
        notBy: [],
        apartFrom: null,
        ...over,
      });
      const tasks: PlanTask[] = [
        hands('k', 'keyIn', 10),
        { kind: 'wait', id: `${id}w`, step: 'restart', lengthS: about(2) },
        hands('r', 'readBack', 4),
        hands('c', 'calibrate', 2.5, { skill: 'ride', at: 'yard' }),
      ];
      if (uniform() < 0.15)
        tasks.push({
          kind: 'charge',
          id: `${id}p`,
          step: 'prove',
          lengthS: about(50),
          pack: u % 2 === 0 ? '36' : '48',
        });
      tasks.push(
        hands('v', 'prove', 3, { skill: 'ride', at: uniform() < 0.3 ? 'roller' : 'yard' }),
        hands('s', 'signOff', 1, { skill: 'sign', at: 'aside' }),
      );
      return {
        id,
        name: id,
        orderId: `o${Math.floor((u * orders) / units)}`,
        kind: `k${Math.floor((u * orders) / units) % 3}`,
        arrivesS: uniform() < 0.1 ? Math.round(uniform() * 4 * HOUR_S) : 0,
        owner: null,
        inHand: false,
        after: [],
        tasks,
      };
    }),
  };
}
