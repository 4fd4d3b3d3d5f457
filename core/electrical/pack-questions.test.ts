import { describe, expect, it } from 'vitest';
import { doubtAboutPack } from './pack-label.js';
import { classesThatExplain, gaugeUnderEachClass, percentWords } from './voltage-class.js';
import { cutoffWish } from './cutoff.js';

const pack = (labelV: number, cellsInSeries: number, chemistry: 'liIon' | 'lfp' | 'leadAcid' = 'liIon') => ({
  labelV,
  cellsInSeries,
  chemistry,
});

describe('a pack', () => {
  it.each([
    [pack(48, 13)],
    [pack(52, 14)],
    [pack(60, 16)],
    [pack(60, 17)],
    [pack(36, 12, 'lfp')],
    [pack(48, 15, 'lfp')],
    [pack(24, 12, 'leadAcid')],
    [pack(46, 13)],
  ])('%j is not questioned', (one) => {
    expect(doubtAboutPack(one)).toBeNull();
  });

  it('of 52 V with 13 cells is questioned, and told what 13 cells are called', () => {
    expect(doubtAboutPack(pack(52, 13))).toBe(
      'A 52 V pack usually has 14 cells in series, not 13; 13 cells run from 39.0 to 54.6 V and are usually called 48 V. Read the label once more.',
    );
    expect(doubtAboutPack(pack(36, 10, 'lfp'))).toContain('usually has 12 cells');
    expect(doubtAboutPack(pack(80, 13))).toContain('80 V does not go with 13 cells');
  });
});

describe('a gauge set to another class', () => {
  it('shows more than full, or empty, of a pack that is neither', () => {
    const shown = Object.fromEntries(gaugeUnderEachClass('liIon', 50).map(({ labelV, says }) => [labelV, says]));
    expect(shown).toEqual({
      24: 'more than full',
      36: 'more than full',
      48: 'plausible',
      52: 'plausible',
      60: 'plausible',
      72: 'empty',
    });
  });

  it('is told by what it shows: "empty" at 39.5 V is a class for more cells', () => {
    expect(classesThatExplain('liIon', 39.5, 0)).toContain(52);
    expect(classesThatExplain('liIon', 39.5, 0)).not.toContain(36);
    expect(classesThatExplain('liIon', 54, 140)).toEqual([24, 36]);
  });

  it('of LFP on its plateau tells no percentage, and all of the plateau is explained by it', () => {
    const on16 = gaugeUnderEachClass('lfp', 52.5).find(({ labelV }) => labelV === 48);
    expect(on16).toMatchObject({ says: 'plausible', charge: { toPercent: 100 } });
    expect(percentWords(on16!.charge!)).toBe('20 to 100');
    for (const shown of [20, 30, 40, 55, 80, 90]) expect(classesThatExplain('lfp', 52.5, shown)).toContain(48);
  });

  it('counts with every number of cells that a label goes with', () => {
    const of60 = (volts: number) => gaugeUnderEachClass('liIon', volts).find(({ labelV }) => labelV === 60);
    expect(of60(71.4)?.says).toBe('plausible');
    expect(of60(71.5)?.says).toBe('more than full');
    expect(of60(62.9)?.charge?.fromPercent).toBeCloseTo(50, 6);
    expect(of60(62.9)?.charge?.toPercent).toBeGreaterThan(75);
  });
});

describe('where the ride ends', () => {
  it('lies off the knee of the cells: LFP never under 2.8 V', () => {
    const lfp = { ...pack(36, 12, 'lfp'), capacityAh: 10, protectionTripsV: null, profile: null };
    expect(cutoffWish(lfp, 0.1, null).volts).toBe(33.6);
    expect(cutoffWish(lfp, 0.5, null).volts).toBe(36);
  });

  const full = { ...pack(36, 10), capacityAh: 10, protectionTripsV: null, profile: null };

  it("is decided by cells, controller or the pack's own protection", () => {
    expect(cutoffWish(full, 0.1, null)).toEqual({ volts: 31, strictly: false, decidedBy: 'cells' });
    expect(cutoffWish(full, 0.1, 33)).toEqual({ volts: 33, strictly: false, decidedBy: 'controller' });
    expect(cutoffWish({ ...full, protectionTripsV: 34 }, 0.1, 33)).toEqual({
      volts: 34,
      strictly: true,
      decidedBy: 'protection',
    });
    expect(cutoffWish({ ...full, protectionTripsV: 28 }, 0.1, 20)).toEqual({
      volts: 31,
      strictly: false,
      decidedBy: 'cells',
    });
  });
});
