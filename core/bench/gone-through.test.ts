import { describe, expect, it } from 'vitest';
import { mayAskTogether } from './gone-through.js';

describe('what was gone through before', () => {
  const HOUR_MS = 3_600_000;
  const before = { at: 100 * HOUR_MS, items: ['clear of the ground', 'how to cut power'] };

  it('are asked together for the rest of the shift, and one by one after it', () => {
    const asked = [0, 5, 10, 10.1].map((hours) => mayAskTogether(before, before.items, before.at + hours * HOUR_MS));
    expect(asked).toEqual([true, true, true, false]);
  });

  it('are asked one by one where one is new, where none were, and where the clock went back', () => {
    expect(mayAskTogether(before, [...before.items, 'the horn is loud'], before.at)).toBe(false);
    expect(mayAskTogether(null, before.items, before.at)).toBe(false);
    expect(mayAskTogether(before, before.items, before.at - 1)).toBe(false);
  });
});
