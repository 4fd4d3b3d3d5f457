import { expect, it } from 'vitest';
import { chargeMinutes } from './charge-time.js';

const pack = { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 10 } as const;
const minutes = (packV: number | null, currentA: number, over: object = {}): number => {
  const told = chargeMinutes({ ...pack, ...over }, packV, currentA);
  return told.ok ? told.value : NaN;
};

it('is what a pack lacks at the current of the charger, and the tail', () => {
  // 3.70 V a cell is half: 5 Ah at 2 A of which 97 % stay, 155 min, and 25.
  expect(minutes(37, 2)).toBe(180);
  expect(minutes(37, 4)).toBe(102);
  expect(minutes(42, 2)).toBe(25);
});

it('takes the emptier end where volts do not tell, and a pack as sent where nobody measured it', () => {
  const lfp = { chemistry: 'lfp', cellsInSeries: 12 };
  // A resting LFP cell at 3.28 V may have a fifth of its charge.
  expect(minutes(12 * 3.28, 2, lfp)).toBeGreaterThanOrEqual(240);
  expect(minutes(null, 2)).toBe(241);
});

it('refuses what is no figure', () => {
  expect(chargeMinutes(pack, 37, 0).ok).toBe(false);
  expect(chargeMinutes(pack, NaN, 2).ok).toBe(false);
});
