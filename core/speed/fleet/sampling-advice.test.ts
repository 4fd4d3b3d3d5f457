import { describe, expect, it } from 'vitest';
import { seeded } from '../../statistics/seeded.js';
import { familyRatio, outsiders, samplingAdvice, type FamilyRun, type SamplingQuestion } from './sampling-advice.js';

const runs = (...ks: readonly number[]): readonly FamilyRun[] =>
  ks.map((k, i) => ({ serial: `S26-${String(400 + i).padStart(4, '0')}`, k, at: '2026-11-25T10:00:00Z' }));
const ten = runs(1.031, 1.035, 1.029, 1.033, 1.036, 1.03, 1.032, 1.034, 1.031, 1.033);
const base: SamplingQuestion = { runs: ten, uCommon: 0, capHolds: () => true, shownHolds: () => true, oneIn: 5 };

describe('what a family is learnt to be', () => {
  it('is its mean, spread, tolerance and where the next one falls', () => {
    const family = familyRatio(ten, 0);
    expect(family?.mean).toBeCloseTo(1.0324, 6);
    expect(family?.spread).toBeCloseTo(0.002221, 5);
    expect((family?.mean ?? 0) - (family?.capLow ?? 0)).toBeCloseTo(3.981 * 0.002221, 4);
    expect(family?.tolerance.high).toBeCloseTo(1.0324 + 3.407 * 0.002221, 4);
    expect(family?.next.high).toBeCloseTo(1.0324 + 2.262 * 0.002221 * Math.sqrt(1.1), 4);
  });

  it('is never surer than the bench that all of it was measured on', () => {
    expect(familyRatio(ten, 0.01)?.capLow).toBeLessThan((familyRatio(ten, 0)?.capLow ?? 0) - 0.016);
  });

  it('is nothing from one unit', () => {
    expect(familyRatio(runs(1), 0)).toBeNull();
  });

  it('keeps its word: the cap bound lies under 99 of 100 units in at least 19 of 20 families', () => {
    let kept = 0;
    for (let seed = 1; seed <= 500; seed++) {
      const { normal } = seeded(seed);
      const family = familyRatio(runs(...Array.from({ length: 10 }, () => 1 + 0.005 * normal())), 0);
      if ((family?.capLow ?? 2) <= 1 - 2.3263 * 0.005) kept++;
    }
    expect(kept / 500).toBeGreaterThan(0.93);
    expect(kept / 500).toBeLessThan(0.97);
  });
});

describe('how many must be run', () => {
  it('all of the first eight', () => {
    expect(samplingAdvice({ ...base, runs: ten.slice(0, 7) })).toMatchObject({ next: 'full', why: 'tooFew', oneIn: 1 });
    expect(samplingAdvice(base)).toMatchObject({ next: 'sample', why: 'learnt', oneIn: 5 });
  });

  it('all, while the bounds carried through the codes do not hold', () => {
    expect(samplingAdvice({ ...base, capHolds: (lowest) => lowest >= 1.03 })).toMatchObject({
      next: 'full',
      why: 'capNotSure',
    });
    expect(samplingAdvice({ ...base, shownHolds: ({ low }) => low >= 1.03 })).toMatchObject({
      next: 'full',
      why: 'showsUnder',
    });
  });

  it('the next three after one that fell out of its family, which is named', () => {
    const withOne = [...ten, ...runs(0.99)];
    expect(outsiders(withOne, 0).map(({ index }) => index)).toEqual([10]);
    expect(samplingAdvice({ ...base, runs: withOne })).toMatchObject({
      next: 'full',
      why: 'surprise',
      outsider: 'S26-0400',
    });
    const after = [...withOne, ...runs(1.032, 1.033, 1.031)];
    expect(samplingAdvice({ ...base, runs: after, capHolds: () => true })).toMatchObject({ next: 'sample' });
  });
});
