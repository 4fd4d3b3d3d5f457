import { describe, expect, it } from 'vitest';
import { of100 } from './of-100.js';

describe('a chance in words', () => {
  it('is rounded, and never sure either way', () => {
    expect([0, 0.4, 0.5, 61.4, 99.4, 99.5, 100].map(of100)).toEqual([
      'under 1 of 100',
      'under 1 of 100',
      '1 of 100',
      '61 of 100',
      '99 of 100',
      'over 99 of 100',
      'over 99 of 100',
    ]);
  });
});
