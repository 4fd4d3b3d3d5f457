import { dayBound, forecast, gapOf, searchDay, seeded } from '@decurio/core';

/** @typedef {import('@decurio/core').PlanProblem} PlanProblem */
/** @typedef {{ what: string, value: number, unit: string, yardstick: string, yardstickValue: number, limit: string }} Figure */

const HOUR_S = 3_600;
const UNITS = 300;
const PEOPLE = 8;
const SEARCH_MS = 2_000;

/** Plans of days of 300 units and 8 people: the first answer, a good one, and a forecast, beside the sum of a long list.
 * @returns {Figure[]} */
export function dayFigures() {
  const yardstick = 'a million square roots';
  const sums = () => {
    let sum = 0;
    for (let i = 0; i < 1e6; i++) sum += Math.sqrt(i);
    return sum;
  };
  // The second of each counts: the first one also reads the code in.
  const timed = (/** @type {() => unknown} */ work) => {
    work();
    const start = performance.now();
    work();
    return performance.now() - start;
  };
  const problem = busyDays(7);
  const yardMs = timed(sums);
  const firstMs = timed(() => searchDay(problem, { seed: 1 }));
  const search = searchDay(problem, { seed: 1 });
  const bound = dayBound(problem);
  for (const start = performance.now(); performance.now() - start < SEARCH_MS;) search.tryOnce();
  const plan = search.plan();
  const moveMs = timed(() => search.tryOnce());
  const forecastMs = timed(() =>
    forecast(
      problem,
      plan,
      (id) => ({ mean: Math.log(300), sd: 0.3, unsure: 0.1, count: 9, kindOf: id.at(-1) ?? '' }),
      1,
      {
        runs: 200,
      },
    ),
  );
  const figure = (/** @type {string} */ what, /** @type {number} */ value, /** @type {string} */ limit) => ({
    what,
    value,
    unit: 'ms',
    yardstick,
    yardstickValue: yardMs,
    limit,
  });
  return [
    figure(`plan of ${UNITS} units and ${PEOPLE} people, first answer`, firstMs, '200 ms'),
    figure('the same laid out once more, as for a drag', moveMs, '100 ms'),
    figure('its forecast, 200 runs', forecastMs, 'with the answer'),
    {
      what: 'the same searched for 2 s: beyond the bound',
      value: 100 * gapOf(problem, plan, bound),
      unit: '%',
      yardstick: 'the bound',
      yardstickValue: 100,
      limit: '5 %',
    },
  ];
}

/** Days of such a shop, by a seed.
 * @param {number} seed @returns {PlanProblem} */
function busyDays(seed) {
  const { uniform, normal } = seeded(seed);
  const hours = Array.from({ length: 10 }, (_, day) => [
    { fromS: day * 24 * HOUR_S, toS: (day * 24 + 4) * HOUR_S },
    { fromS: (day * 24 + 4.5) * HOUR_S, toS: (day * 24 + 8.5) * HOUR_S },
  ]).flat();
  const about = (/** @type {number} */ minutes) => Math.max(20, Math.round(minutes * 60 * Math.exp(0.3 * normal())));
  return {
    people: Array.from({ length: PEOPLE }, (_, i) => ({
      id: `p${i}`,
      name: `P${i}`,
      skills: i % 3 === 0 ? ['bench', 'ride', 'sign'] : ['bench', 'ride'],
      hours,
    })),
    places: ['yard0', 'yard1', 'yard2'].map((id) => ({ id, name: id, kind: 'yard', hours, packs: null })),
    stands: 3 * PEOPLE,
    weave: 3,
    setupS: { kind: 40, place: 15 },
    orders: Array.from({ length: 6 }, (_, o) => ({
      id: `o${o}`,
      name: `O${o}`,
      dueS: (o < 3 ? 8 : 32) * HOUR_S,
      weight: 1 + (o % 3),
    })),
    units: Array.from({ length: UNITS }, (_, u) => {
      const id = `u${u}`;
      /** @param {string} name @param {import('@decurio/core').StepId} step @param {number} minutes @param {object} [over] */
      const hands = (name, step, minutes, over = {}) => ({
        kind: /** @type {const} */ ('hands'),
        id: `${id}${name}`,
        step,
        lengthS: about(minutes),
        skill: /** @type {const} */ ('bench'),
        at: /** @type {const} */ ('stand'),
        notBy: [],
        apartFrom: null,
        ...over,
      });
      return {
        id,
        name: id,
        orderId: `o${u % 6}`,
        kind: `k${u % 3}`,
        arrivesS: uniform() < 0.1 ? Math.round(uniform() * 4 * HOUR_S) : 0,
        owner: null,
        inHand: false,
        after: [],
        tasks: [
          hands('k', 'keyIn', 10),
          {
            kind: /** @type {const} */ ('wait'),
            id: `${id}w`,
            step: /** @type {const} */ ('restart'),
            lengthS: about(2),
          },
          hands('r', 'readBack', 4),
          hands('c', 'calibrate', 2.5, { skill: 'ride', at: 'yard' }),
          hands('v', 'prove', 3, { skill: 'ride', at: 'yard' }),
          hands('s', 'signOff', 1, { skill: 'sign', at: 'aside' }),
        ],
      };
    }),
  };
}
