import { describe, expect, it } from 'vitest';
import { lessLate } from '../../testing/all-schedules.js';
import { smallDay } from '../../testing/any-day.js';
import { planDay } from './plan-day.js';

describe('a plan of a small day', () => {
  it('is as little late as the best of all there are', () => {
    let late = 0;
    const bettered: number[] = [];
    for (let seed = 0; seed < 300; seed++) {
      const problem = smallDay(seed);
      const { cost } = planDay(problem, 1);
      if (cost.unplaced > 0) continue;
      if (cost.lateS > 0) late += 1;
      if (cost.lateS > 0 && lessLate(problem, cost.lateS, 60)) bettered.push(seed);
    }
    console.log(late, bettered);
    expect(bettered).toEqual([]);
  });
});
