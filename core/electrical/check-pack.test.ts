import { expect, it } from 'vitest';
import { checkPack } from './check-pack.js';

const pack = { chemistry: 'liIon' as const, cellsInSeries: 10, labelV: 36, capacityAh: 13 };

it.each([
  [29.9, 'tooLow'],
  [30, 'fits'],
  [42, 'fits'],
  [42.1, 'tooHigh'],
] as const)('%d V on ten Li-ion cells is %s', (volts, verdict) => {
  expect(checkPack(pack, volts).verdict).toBe(verdict);
});

it('names every other count that would explain a reading: overlap is the rule', () => {
  expect(checkPack(pack, 40).countsThatFit).toEqual([10, 13]);
  expect(checkPack(pack, 46.9).countsThatFit).toEqual([13, 14]);
  expect(checkPack(pack, 52).countsThatFit).toEqual([13, 14, 16, 17]);
  expect(checkPack(pack, 46.9).says).toContain('Do not power it');
});

it('goes by the chemistry: a 36 V LFP pack of twelve is full at 43.8 V', () => {
  expect(checkPack({ ...pack, chemistry: 'lfp', cellsInSeries: 12 }, 43.5)).toMatchObject({
    verdict: 'fits',
    floorV: 30,
    fullV: 43.8,
  });
});
