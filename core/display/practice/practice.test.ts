import { describe, expect, it } from 'vitest';
import { demoMap, demoMaps } from '../../testing/demo-maps.js';
import { isKeyed } from '../map/display-map.js';
import { exerciseSlips, makeExercise } from './exercise.js';
import { hold, tap } from '../map/gesture.js';
import { learnPace, type TimedPress } from './learn-pace.js';
import { DEFAULT_PACE } from '../plan/pace.js';
import { planKeys } from '../plan/plan-keys.js';
import { displayAtRest } from '../machine/simulate-display.js';

/** Chance that can be foretold. */
function chanceFrom(seed: number) {
  let now = seed;
  return () => {
    now = (now * 1103515245 + 12345) % 2147483648;
    return now / 2147483648;
  };
}

describe.each(
  demoMaps()
    .filter(isKeyed)
    .map((map) => [map.id, map] as const),
)('an exercise on %s', (_id, map) => {
  it('asks for codes that a plan can set', () => {
    for (let seed = 1; seed <= 5; seed++) {
      const { values, targets } = makeExercise(map, 'set', chanceFrom(seed));
      expect(Object.keys(targets).length).toBeGreaterThan(0);
      expect(Object.keys(targets).length).toBeLessThanOrEqual(5);
      expect(planKeys(map, targets, { values, at: null }).unreachable).toEqual([]);
    }
  });

  it('asks to read what the display holds', () => {
    const { values, targets } = makeExercise(map, 'read', chanceFrom(3));
    for (const [label, raw] of Object.entries(targets)) expect(values[label]).toBe(raw);
  });
});

describe('slips of an exercise', () => {
  const map = demoMap('tallow-four-key');
  const exercise = { kind: 'set', values: displayAtRest(map).stored, targets: { 'L1.1': 11, 'L4.1': 25 } } as const;

  it('are codes not at their target, and codes changed without being asked for', () => {
    expect(exerciseSlips(map, exercise, { ...exercise.values, 'L1.1': 11, 'L4.1': 26, 'L5.2': 51 })).toEqual({
      wrong: ['L4.1'],
      touched: ['L5.2'],
    });
    expect(exerciseSlips(map, exercise, { ...exercise.values, 'L1.1': 11, 'L4.1': 25 })).toEqual({
      wrong: [],
      touched: [],
    });
  });

  it('of a read-out are all that changed', () => {
    expect(
      exerciseSlips(map, { ...exercise, kind: 'read', targets: exercise.values }, { ...exercise.values, 'L1.1': 11 }),
    ).toEqual({ wrong: [], touched: ['L1.1'] });
  });
});

describe('a pace', () => {
  const taps = (ms: readonly number[], isAfterLook: boolean): TimedPress[] =>
    ms.map((sinceLastMs) => ({ gesture: tap('set'), sinceLastMs, isAfterLook }));
  const steady = [...taps([300, 310, 290, 320, 280, 300], false), ...taps([900, 950, 1000, 850, 900, 920], true)];

  it('is learnt as medians of taps, looks and holds', () => {
    const holds = [2200, 2250, 2300].map((sinceLastMs): TimedPress => ({
      gesture: hold(2000, 'set'),
      sinceLastMs,
      isAfterLook: false,
    }));
    expect(learnPace([...steady, ...holds])).toEqual({ tapMs: 300, lookMs: 610, holdExtraMs: 250 });
  });

  it('is not disturbed by one slip, nor by a pause', () => {
    expect(learnPace([...steady, ...taps([2000], false), ...taps([60_000], true)])).toMatchObject({
      tapMs: 300,
      lookMs: 610,
    });
  });

  it('stays what it was where too little was seen', () => {
    expect(learnPace(taps([100, 100], false))).toEqual(DEFAULT_PACE);
    expect(learnPace([], { tapMs: 1, holdExtraMs: 2, lookMs: 3 })).toEqual({ tapMs: 50, holdExtraMs: 2, lookMs: 50 });
  });
});
