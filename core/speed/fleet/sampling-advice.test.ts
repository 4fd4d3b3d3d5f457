import { describe, expect, it } from 'vitest';
import { seeded } from '../../statistics/seeded.js';
import { familyRatio, type FamilyRun } from './family-ratio.js';
import { expectedOf, outOfFamily } from './out-of-family.js';
import { samplingAdvice, type SamplingQuestion } from './sampling-advice.js';

const runs = (...ks: readonly number[]): readonly FamilyRun[] =>
  ks.map((k, i) => ({
    visitId: `v-${i}`,
    serial: `S26-${String(400 + i).padStart(4, '0')}`,
    k,
    u: 0.001,
    at: '2026-11-25T10:00:00Z',
    leftOut: null,
  }));
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

  it('is nothing from one unit, or from figures that are none', () => {
    expect(familyRatio(runs(1), 0)).toBeNull();
    expect(familyRatio(runs(1, NaN), 0)).toBeNull();
    expect(familyRatio(runs(1, -1.03), 0)).toBeNull();
    expect(familyRatio(runs(1, 1.03), NaN)).toBeNull();
    expect(familyRatio(runs(1, 1.03), -0.01)).toBeNull();
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
    expect(outOfFamily(withOne).map(({ index, seen }) => [index, seen])).toEqual([[10, 'atOnce']]);
    expect(samplingAdvice({ ...base, runs: withOne })).toMatchObject({
      next: 'full',
      why: 'surprise',
      outsider: 'S26-0400',
    });
    const after = [...withOne, ...runs(1.032, 1.033, 1.031)];
    expect(samplingAdvice({ ...base, runs: after, capHolds: () => true })).toMatchObject({ next: 'sample' });
  });
});

describe('a unit that does not read as its family', () => {
  const seven = runs(0.968, 0.971, 0.965, 0.9665, 0.9695, 0.9655, 0.9705);

  it('is noticed as the eighth: nothing is learnt from seven at -3.2 % and one at +4.1 %', () => {
    const withOdd = [...seven, ...runs(1.041)];
    expect(outOfFamily(withOdd).map(({ index }) => index)).toEqual([7]);
    const advice = samplingAdvice({ ...base, runs: withOdd });
    expect(advice).toMatchObject({ next: 'full', why: 'surprise', inFamily: 7 });
  });

  it('is noticed as the fourth', () => {
    expect(outOfFamily(runs(1.03, 1.032, 1.031, 1.12)).map(({ index }) => index)).toEqual([3]);
    expect(expectedOf(runs(1.03, 1.032), 0.001)).toBeNull();
  });

  it('counts as none of the eight that must read alike', () => {
    const later = [...seven, ...runs(1.041), ...runs(0.968, 0.969)];
    expect(samplingAdvice({ ...base, runs: later })).toMatchObject({ why: 'surprise', inFamily: 9 });
    const after = [...later, ...runs(0.967)];
    const advice = samplingAdvice({ ...base, runs: after, capHolds: (low) => low > 0.95 });
    expect(advice).toMatchObject({ next: 'full', why: 'capNotSure', inFamily: 10 });
    const explained = after.map((run) =>
      run.k === 1.041 ? { ...run, leftOut: { words: 'its tyre was flat', by: 'Ines M.' } } : run,
    );
    expect(samplingAdvice({ ...base, runs: explained, capHolds: (low) => low > 0.95 })).toMatchObject({
      next: 'sample',
      why: 'learnt',
      odd: [],
      inFamily: 10,
    });
  });

  it('cannot hide by being the first, and widening what is expected of the others', () => {
    const first = runs(1.041, 0.968, 0.971, 0.965, 0.9665, 0.9695, 0.9655, 0.9705, 0.968);
    expect(outOfFamily(first).map(({ index, seen }) => [index, seen])).toEqual([[0, 'lookingBack']]);
    const two = runs(1.041, 0.968, 1.05, 0.971, 0.965, 0.9665, 0.9695, 0.9655, 0.9705, 0.968);
    expect(outOfFamily(two).map(({ index }) => index)).toEqual([0, 2]);
  });

  it('is given the doubt of its own run: a spot reading that is far off is no surprise', () => {
    const [odd] = runs(1.0);
    const rough = [...seven, { ...odd!, u: 0.02 }];
    expect(outOfFamily([...seven, odd!]).map(({ index }) => index)).toEqual([7]);
    expect(outOfFamily(rough)).toEqual([]);
  });

  it.each([4, 8, 12, 20, 40])('is rarely named where all %i are of one kind', (count) => {
    let alarmed = 0;
    for (let seed = 1; seed <= 400; seed++) {
      const { normal } = seeded(1000 * count + seed);
      const all = outOfFamily(runs(...Array.from({ length: count }, () => 1 + 0.006 * normal())));
      if (all.some(({ seen }) => seen === 'lookingBack')) alarmed++;
    }
    expect(alarmed / 400).toBeLessThanOrEqual(0.03);
  });

  it('is found, one among twelve, wherever it stands', () => {
    let found = 0;
    for (let seed = 1; seed <= 120; seed++) {
      const { normal } = seeded(seed);
      const ks = Array.from({ length: 12 }, () => 1 + 0.003 * normal());
      ks[seed % 12] = 1.06;
      if (outOfFamily(runs(...ks)).some(({ index }) => index === seed % 12)) found++;
    }
    expect(found).toBe(120);
  });
});
