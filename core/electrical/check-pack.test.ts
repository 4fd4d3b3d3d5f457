import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { certain } from '../result.js';
import type { Chemistry } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS, countsInSeries } from './cell.js';
import { checkPack, type PackVerdict } from './check-pack.js';

const pack = { chemistry: 'liIon' as Chemistry, cellsInSeries: 10, labelV: 36, capacityAh: 13 };
const verdict = (volts: number, of: Partial<typeof pack> = {}) => certain(checkPack({ ...pack, ...of }, volts));

describe('a pack at rest', () => {
  it.each<[number, PackVerdict, boolean]>([
    [0, 'open', true],
    [0.3, 'open', true],
    [18, 'ruined', true],
    [24.9, 'ruined', true],
    [25, 'watched', true],
    [29.9, 'watched', true],
    [30, 'empty', false],
    [34.4, 'empty', false],
    [34.5, 'fits', false],
    [42, 'fits', false],
    [42.1, 'tooHigh', true],
  ])('of ten Li-ion cells at %d V: %s, waits for somebody: %s', (volts, is, holds) => {
    expect(verdict(volts)).toMatchObject({ verdict: is, holds });
  });

  it.each<[Chemistry, number, PackVerdict]>([
    ['lfp', 12 * 1.9, 'ruined'],
    ['lfp', 12 * 2.0, 'watched'],
    ['lfp', 12 * 2.79, 'watched'],
    ['lfp', 12 * 2.8, 'empty'],
    ['lfp', 12 * 3.2, 'fits'],
    ['lfp', 12 * 3.66, 'tooHigh'],
    ['leadAcid', 12 * 1.4, 'ruined'],
    ['leadAcid', 12 * 1.9, 'watched'],
    ['leadAcid', 12 * 1.96, 'empty'],
    ['leadAcid', 12 * 2.05, 'fits'],
    ['leadAcid', 12 * 2.41, 'tooHigh'],
  ])('of twelve %s cells at %d V: %s, by its own figures', (chemistry, volts, is) => {
    expect(verdict(volts, { chemistry, cellsInSeries: 12 }).verdict).toBe(is);
  });

  it('is never told to be charged where charging could hurt', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<Chemistry>('liIon', 'lfp', 'leadAcid'),
        fc.integer({ min: 1, max: 36 }),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (chemistry, cellsInSeries, cellV) => {
          const { says, holds } = verdict(cellV * cellsInSeries, { chemistry, cellsInSeries });
          const { ruinedBelowV, watchedBelowV, fullV } = CELL_VOLTS[chemistry];
          if (cellV < ruinedBelowV - 1e-6 || cellV > fullV + 1e-6) {
            expect(says).toMatch(/Never charge|Do not charge|do not charge/);
            expect(holds).toBe(true);
          } else if (cellV < watchedBelowV - 1e-6) {
            expect(says).toContain('only while somebody watches');
            expect(holds).toBe(true);
          }
        },
      ),
    );
  });

  it('names every other count that would explain a reading: overlap is the rule', () => {
    expect(verdict(40).countsThatFit).toEqual([10, 12, 13]);
    expect(verdict(46.9).countsThatFit).toEqual([12, 13, 14, 15]);
    expect(verdict(46.9).says).toContain('46.9 V would fit 12, 13, 14 or 15 cells');
    expect(verdict(28, { cellsInSeries: 13 }).says).toContain('would fit 7 cells');
    expect(countsInSeries('liIon')).toEqual([7, 10, 12, 13, 14, 15, 16, 17, 20]);
  });

  it.each([NaN, Infinity, -1])('of %d V is refused, and of no cells', (volts) => {
    expect(checkPack(pack, volts)).toMatchObject({ ok: false, problem: { code: 'noFigure' } });
    expect(checkPack({ ...pack, cellsInSeries: 0 }, 36)).toMatchObject({ ok: false });
    expect(checkPack({ ...pack, cellsInSeries: 9.5 }, 36)).toMatchObject({ ok: false });
  });
});
