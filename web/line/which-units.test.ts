import { describe, expect, it } from 'vitest';
import type { LineUnit } from '@decurio/contract';
import { choicesOf, ranksOf, whichIn } from './which-units.js';

const unit = (n: number, over: Partial<LineUnit> = {}): LineUnit => ({
  id: `u${n}`,
  serial: `S-${n}`,
  typeName: 'Samphire 26',
  status: 'waiting',
  step: null,
  ladder: 'tttttttttx',
  heldReason: null,
  heldWords: null,
  worker: null,
  station: null,
  visitId: null,
  returnedWhy: null,
  odd: null,
  waits: null,
  waitsUntil: null,
  handedTo: null,
  handedOverAt: null,
  stored: null,
  isSpare: false,
  own: null,
  ...over,
});
const units = Array.from({ length: 25 }, (_, i) => {
  if (i === 3) return unit(i, { status: 'held', step: 'keyIn' });
  if (i === 14) return unit(i, { status: 'open', step: 'keyIn', worker: 'Teo R.' });
  if (i === 15) return unit(i, { status: 'open', step: 'readBack', worker: 'Ines M.' });
  return unit(i, i >= 20 ? { status: 'sealed' } : {});
});
const serials = (which: Parameters<typeof ranksOf>[1]) =>
  ranksOf(units, which, 'Teo R.').map(({ number, units: shown }) => [number, shown.map(({ serial }) => serial)]);

describe('which units of a delivery are shown', () => {
  it('each stays in its rank; ranks of which none is asked for are left out', () => {
    expect(serials('held')).toEqual([[1, ['S-3']]]);
    expect(serials('mine')).toEqual([[2, ['S-14']]]);
    expect(serials('readBack')).toEqual([[2, ['S-15']]]);
    expect(serials('signOff')).toEqual([]);
    expect(serials('all').map(([number]) => number)).toEqual([1, 2, 3]);
  });

  it('a rank is whole once all its units are sealed', () => {
    expect(ranksOf(units, 'all', '').map(({ isWhole }) => isWhole)).toEqual([false, false, true]);
  });

  it('are offered with a key each and how many there are; steps only where a unit stands', () => {
    expect(choicesOf(units, 'Teo R.').map(({ title, hotkey, count }) => `${hotkey} ${title} ${count}`)).toEqual([
      'A All 25',
      'H Held 1',
      'Y Yours 1',
      '4 Key in 1',
      '6 Read back 1',
    ]);
  });

  it.each([
    ['held', 'held'],
    ['readBack', 'readBack'],
    ['nothing', 'all'],
    [null, 'all'],
  ])('an address that asks for %s shows %s', (asked, which) => {
    expect(whichIn(asked)).toBe(which);
  });
});
