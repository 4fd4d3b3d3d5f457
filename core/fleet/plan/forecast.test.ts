import { describe, expect, it } from 'vitest';
import { riskOf } from './forecast.js';
import { workedDay } from '../../testing/simulated-days.js';

describe('a forecast', () => {
  it.each([
    ['of days on which all goes on', { chance: 0, mean: 0, sd: 0 }],
    ['of days on which one unit in ten is held up', { chance: 0.1, mean: Math.log(3_600), sd: 0.8 }],
  ])('%s is kept: of orders said to be ready with 80 of 100, 77 to 83 are', (_, surprises) => {
    const orders = Array.from({ length: 400 }, (__, seed) => workedDay(seed, surprises)).flat();
    const kept = (of: 50 | 80 | 90 | 95): number =>
      (100 * orders.filter(({ said, readyS }) => readyS <= said[of]).length) / orders.length;
    expect(kept(80)).toBeGreaterThanOrEqual(77);
    expect(kept(80)).toBeLessThanOrEqual(83);
  });
});

it('an order is at risk under 80 of 100, and will rather be late under 50; of what nobody knows nothing is said', () => {
  expect([100, 80, 79, 50, 49, 0, null].map(riskOf)).toEqual([
    null,
    null,
    'atRisk',
    'atRisk',
    'ratherLate',
    'ratherLate',
    null,
  ]);
});
