import { describe, expect, it } from 'vitest';
import type { Glass, Gesture, TakenPress } from '@decurio/core';
import { scoreOf, timed } from './use-score.js';

const riding: Glass = { kind: 'riding', level: null, mode: null, icons: [] };
const at = (label: string): Glass => ({
  kind: 'menu',
  label,
  shows: label,
  raw: 1,
  text: '1',
  focus: 'name',
  digit: null,
  page: 'Menu',
});
const tap: Gesture = { kind: 'tap', key: 'set' };
const taken: readonly TakenPress[] = [
  { gesture: { kind: 'hold', keys: ['set'], ms: 2000 }, atMs: 5000, before: riding, after: at('A') },
  { gesture: tap, atMs: 6000, before: at('A'), after: at('A') },
  { gesture: tap, atMs: 6400, before: at('A'), after: at('B') },
  { gesture: tap, atMs: 7500, before: at('B'), after: at('B') },
];

describe('an exercise', () => {
  it('is timed from where its first hold began, and counted against the best plan', () => {
    const best = {
      steps: [{ gesture: tap }, { gesture: { kind: 'wait', ms: 900 } }, { gesture: tap }] as never,
      estimatedMs: 3000,
      longestGapMs: 0,
      unreachable: [],
      atLeastMs: 0,
      isShortest: true,
    };
    expect(scoreOf(taken, best, 7500)).toEqual({ presses: 4, seconds: 4.5, bestPresses: 2, bestSeconds: 3 });
    expect(scoreOf([], best, 0)).toMatchObject({ presses: 0, seconds: 0 });
  });

  it('tells presses after which one had to look from those on the same item', () => {
    expect(timed(taken).map(({ sinceLastMs, isAfterLook }) => [sinceLastMs, isAfterLook])).toEqual([
      [1000, true],
      [400, false],
      [1100, true],
    ]);
  });
});
