import { expect, it } from 'vitest';
import { allRead, byHand, cleanVisit, stateAfter, upToReadBack } from '../testing/visit-script.js';
import { stepsLeftOut, visitRemarks } from './visit-remarks.js';

it('names steps that were never offered, and those that were left out', () => {
  expect(stepsLeftOut(stateAfter(cleanVisit))).toEqual(['make safe', 'as found', 'calibrate', 'prove']);
  expect(stepsLeftOut(stateAfter([...upToReadBack, ...allRead, ['readBackClosed', {}], ...byHand]))).toEqual([
    'calibrate',
  ]);
});

it('repeats what papers owe beyond the codes', () => {
  const state = stateAfter([
    ...upToReadBack,
    ...allRead,
    ['photographed', { photoId: 'p', subject: 'damage', sha256: 'a'.repeat(64), words: '' }],
    ['readBackClosed', {}],
    ...byHand,
    ['partReplaced', { part: 'tyre', words: 'Worn through.', oldOdometerKm: null, newOdometerKm: null, packV: null }],
  ]);
  expect(visitRemarks(state)).toEqual([
    '5 codes were read as found before any was touched; all were as expected.',
    'Tyre replaced by Teo R.: Worn through.',
    'Photographs kept with their hashes: damage.',
  ]);
  expect(visitRemarks(stateAfter(cleanVisit))).toEqual([]);
});
