import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyChoices, walk } from '../testing/any-visit.js';
import { cleanVisit, deedsOf, read, TEO, type Act } from '../testing/visit-script.js';
import { visitQuality } from './visit-quality.js';

const at = (s: number): string => new Date(Date.UTC(2026, 10, 24, 9, 0, s)).toISOString();
const quality = (acts: readonly Act[]) => visitQuality(deedsOf(acts));
const stepOf = (acts: readonly Act[], step: string) => quality(acts).steps.find((each) => each.step === step);

describe('what a visit says of the work', () => {
  it('is right at first where nothing went wrong, and counts every second once', () => {
    const { steps, slips, holds } = quality(cleanVisit);
    expect(steps.every(({ isFirstRight }) => isFirstRight)).toBe(true);
    expect(steps.every(({ userId }) => userId === TEO.userId)).toBe(true);
    expect([slips, holds]).toEqual([{}, []]);
    const minutes = steps.reduce((sum, each) => sum + each.minutes, 0);
    expect(minutes).toBeCloseTo((cleanVisit.length - 1) / 60, 9);
  });

  it('names a code that was misread, and says that read back was not right at first', () => {
    const i = cleanVisit.findIndex(([kind]) => kind === 'codeRead');
    const acts = [...cleanVisit.slice(0, i), read('L1', 12), ...cleanVisit.slice(i)];
    expect(quality(acts).slips).toEqual({ L1: 1 });
    expect(stepOf(acts, 'readBack')?.isFirstRight).toBe(false);
    expect(stepOf(acts, 'keyIn')?.isFirstRight).toBe(true);
  });

  it('counts a hold by its cause and its hours, and none of it as work', () => {
    const i = cleanVisit.findIndex(([kind]) => kind === 'codeRead');
    const deeds = deedsOf([
      ...cleanVisit.slice(0, i),
      ['held', { reason: 'parts', words: 'no bell' }],
      ['released', { words: 'bell there' }],
      ...cleanVisit.slice(i),
    ]).map((deed, n) => ({ ...deed, at: n > i ? at(n + 7200) : deed.at }));
    const { holds, steps } = visitQuality(deeds);
    expect(holds).toEqual([{ reason: 'parts', hours: expect.closeTo(2, 2) as number }]);
    expect(steps.reduce((sum, { minutes }) => sum + minutes, 0)).toBeLessThan(1);
    expect(steps.find(({ step }) => step === 'readBack')?.isFirstRight).toBe(false);
  });

  it('cuts pauses, and a clock that runs backwards', () => {
    const deeds = deedsOf(cleanVisit).map((deed, n) => ({ ...deed, at: at(n === 5 ? -50 : n > 7 ? n + 1200 : n) }));
    const minutes = visitQuality(deeds).steps.reduce((sum, each) => sum + each.minutes, 0);
    expect(minutes).toBeLessThan(deeds.length / 60 + 1);
    expect(minutes).toBeGreaterThan(0);
  });

  it('is no person’s where several made it', () => {
    const other = { ...TEO, userId: 'u-other' };
    const acts = cleanVisit.map((act): Act =>
      act[0] === 'codeKeyed' && act[1].label === 'L2' ? (['codeKeyed', act[1], other] as Act) : act,
    );
    expect(stepOf(acts, 'keyIn')?.userId).toBeNull();
    expect(stepOf(acts, 'readBack')?.userId).toBe(TEO.userId);
  });

  it('comes to an end for whatever people do to a unit', () => {
    fc.assert(
      fc.property(anyChoices(), (choices) => {
        const { deeds } = walk(choices);
        const { steps, holds } = visitQuality(deeds);
        for (const { minutes } of steps) expect(minutes).toBeGreaterThanOrEqual(0);
        for (const { hours } of holds) expect(hours).toBeGreaterThanOrEqual(0);
        expect(new Set(steps.map(({ step }) => step)).size).toBe(steps.length);
      }),
      { numRuns: 60 },
    );
  });
});
