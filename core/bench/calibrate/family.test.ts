import { describe, expect, it } from 'vitest';
import { code, fourKey, inputs, line, withCodes } from '../../testing/samples.js';
import { compileSetup } from '../../setup/compile/compile-setup.js';
import { calibrateTermsFor, comparable, type Family, type UnitRun } from './family.js';

const wheel = code('W1', 'wheelSize', { range: { min: 20, max: 29, step: 1 }, factory: 26, encoding: line('in') });
const map = {
  ...withCodes(fourKey, [...fourKey.codes, wheel]),
  speed: { rounding: 'nearest', decimals: 1, overshootKmh: 0 },
} as const;
const terms = compileSetup(inputs({ map })).speed!;
const runs = (count: number, k: (i: number) => number, wheelRaw = 28): UnitRun[] =>
  Array.from({ length: count }, (_, i) => ({
    visitId: `v-${i}`,
    serial: `S26-0${400 + i}`,
    u: 0.001,
    leftOut: null,
    k: k(i),
    at: '2026-11-25T10:00:00.000Z',
    wheelRaw,
    pulsesRaw: null,
    uCommon: 0,
  }));
const alike = (i: number): number => 1.035 + 0.002 * ((i % 3) - 1);
const family = (over: Partial<Family>): Family => ({
  map,
  terms,
  runs: runs(11, alike),
  learntSince: 0,
  rule: 'sample',
  ...over,
});

describe('the next unit of a family', () => {
  it('is run while fewer than eight were', () => {
    expect(calibrateTermsFor(family({ runs: [] }))).toMatchObject({
      runs: 'full',
      family: null,
      why: expect.stringContaining('None of this type'),
    });
    expect(calibrateTermsFor(family({ runs: runs(7, alike) }))).toMatchObject({ runs: 'full', family: null });
  });

  it('need not be run once they read alike, and is keyed by what was learnt', () => {
    const { runs: next, family: learnt, why } = calibrateTermsFor(family({}));
    expect([next, learnt?.count, learnt?.wheelRaw]).toEqual(['sample', 11, 28]);
    expect(learnt?.low).toBeLessThan(1.033);
    expect(why).toContain('11 of this type, display and tyre were run and read alike');
  });

  it('is run when it is its turn, and where house rules run every unit', () => {
    expect(calibrateTermsFor(family({ learntSince: 4 }))).toMatchObject({
      runs: 'full',
      why: expect.stringContaining('One in 5'),
    });
    expect(calibrateTermsFor(family({ rule: 'every' }))).toMatchObject({
      runs: 'full',
      why: 'House rules run every unit.',
    });
  });

  it('is run, and keyed by nothing learnt, after one that fell out', () => {
    const {
      runs: next,
      family: learnt,
      why,
    } = calibrateTermsFor(family({ runs: [...runs(11, alike), ...runs(1, () => 0.99)] }));
    expect([next, learnt]).toEqual(['full', null]);
    expect(why).toContain('S26-0400 read otherwise');
  });

  it('compares runs that were ridden with different wheel values', () => {
    const mixed = [...runs(1, () => 1.035 * (26 / 28), 26), ...runs(1, () => 1.035)];
    expect(comparable({ map, terms, runs: mixed }).map(({ k }) => k)).toEqual([
      expect.closeTo(1.035, 9),
      expect.closeTo(1.035, 9),
    ]);
  });
});
