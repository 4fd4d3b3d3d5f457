import { describe, expect, it } from 'vitest';
import { studentQuantile, normalQuantile, chiSquareQuantile } from './quantiles.js';
import { oneSidedFactor, twoSidedFactor } from './tolerance.js';

describe('quantiles', () => {
  it('are those of the tables', () => {
    expect(normalQuantile(0.975)).toBeCloseTo(1.959964, 5);
    expect(studentQuantile(0.975, 2)).toBeCloseTo(4.302653, 5);
    expect(studentQuantile(0.975, Infinity)).toBeCloseTo(1.959964, 5);
    expect(chiSquareQuantile(0.05, 9)).toBeCloseTo(3.325113, 5);
  });
});

describe('tolerance factors, 99 % content one-sided and 95 % two-sided at 95 % confidence', () => {
  it.each([
    [2, 37.094],
    [3, 10.553],
    [10, 3.981],
    [30, 3.064],
    [100, 2.684],
    [1000, 2.43],
  ])('one-sided, n = %d: %d', (n, factor) => {
    expect(oneSidedFactor(n)).toBeCloseTo(factor, 2);
  });

  it.each([
    [3, 9.789],
    [10, 3.393],
    [30, 2.555],
  ])('two-sided, n = %d: near the exact %d', (n, factor) => {
    expect(Math.abs(twoSidedFactor(n) / factor - 1)).toBeLessThan(0.025);
  });

  it('come down to the quantile of the population as samples grow', () => {
    expect(oneSidedFactor(100_000)).toBeCloseTo(normalQuantile(0.99), 1);
    expect(twoSidedFactor(1_000_000)).toBeCloseTo(normalQuantile(0.975), 2);
  });
});
