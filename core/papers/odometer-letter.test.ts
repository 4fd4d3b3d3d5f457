import { describe, expect, it } from 'vitest';
import type { Evidence, EvidenceData } from '../bench/evidence.js';
import { cleanVisit, deedsOf, type Act } from '../testing/visit-script.js';
import { changeWords, kilometresNow, odometerLetter } from './odometer-letter.js';

const changed = (data: Partial<EvidenceData['partReplaced']>): Act => [
  'partReplaced',
  { part: 'display', words: 'Glass broken.', oldOdometerKm: 412.4, newOdometerKm: 2, packV: null, ...data },
];
const letterOf = (...acts: readonly Act[]) =>
  odometerLetter(deedsOf([cleanVisit[0]!, ...acts]) as unknown as readonly Evidence[]);

describe('the letter of a vehicle whose display was changed', () => {
  it('is none where it was not, whatever else was', () => {
    expect(letterOf()).toBeNull();
    expect(letterOf(changed({ part: 'tyre' }))).toBeNull();
    expect(odometerLetter([])).toBeNull();
  });

  it('says how many kilometres are added to what is shown', () => {
    const letter = letterOf(changed({}))!;
    expect(letter.addKm).toBe(410.4);
    expect(kilometresNow(letter)).toMatch(/what its display shows, and 410.4 km more/);
  });

  it('adds up over several, a spare among them', () => {
    const spare = { serial: 'SP-3', visitId: 'v', values: {} };
    const letter = letterOf(changed({}), changed({ oldOdometerKm: 30, newOdometerKm: 0, spare }))!;
    expect(letter.addKm).toBe(440.4);
    expect(letter.changes.map(({ spare: which }) => which)).toEqual([null, 'SP-3']);
    expect(changeWords(letter.changes[1]!, '3 Mar 2026')).toBe(
      'Display changed on 3 Mar 2026 by Teo R.: Glass broken. The old one showed 30 km. The one that went on showed 0 km. It is the spare SP-3.',
    );
  });

  it('adds nothing where the new one had run farther, and claims nothing where the old one was dark', () => {
    expect(letterOf(changed({ oldOdometerKm: 3, newOdometerKm: 8 }))?.addKm).toBe(0);
    const dark = letterOf(changed({ oldOdometerKm: null }), changed({}))!;
    expect(dark.addKm).toBeNull();
    expect(kilometresNow(dark)).toMatch(/not known/);
  });
});
