import { describe, expect, it } from 'vitest';
import { isLate } from './lateness.js';

describe('an order', () => {
  const order = { dueAt: '2026-11-26T08:00', units: 12, sealed: 11 };

  it('is late from the minute it was due, while a unit is not sealed', () => {
    expect(isLate(order, '2026-11-26T07:59')).toBe(false);
    expect(isLate(order, '2026-11-26T08:00')).toBe(true);
    expect(isLate(order, '2027-01-01T00:00')).toBe(true);
  });

  it('is not late once all are sealed', () => {
    expect(isLate({ ...order, sealed: 12 }, '2026-11-27T08:00')).toBe(false);
  });

  it('is late although none of its units has come', () => {
    expect(isLate({ ...order, units: 0, sealed: 0 }, '2026-11-27T08:00')).toBe(true);
  });
});
