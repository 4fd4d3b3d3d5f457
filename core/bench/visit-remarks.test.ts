import { expect, it } from 'vitest';
import {
  allRead,
  calibrateLeftOut,
  cleanVisit,
  opening,
  stateAfter,
  upToReadBack,
  upToSignOff,
} from '../testing/visit-script.js';
import { askedBeside, stepsLeftOut, visitRemarks } from './visit-remarks.js';

it('names steps that were never offered, and those that were left out', () => {
  expect(stepsLeftOut(stateAfter(cleanVisit))).toEqual(['make safe', 'as found', 'calibrate', 'prove']);
  expect(stepsLeftOut(stateAfter(upToSignOff))).toEqual(['calibrate']);
});

it('repeats what papers owe beyond the codes', () => {
  const state = stateAfter([
    ...upToReadBack,
    ...allRead,
    ['photographed', { photoId: 'p', subject: 'damage', sha256: 'a'.repeat(64), words: '' }],
    ['readBackClosed', {}],
    calibrateLeftOut,
    ['partReplaced', { part: 'tyre', words: 'Worn through.', oldOdometerKm: null, newOdometerKm: null, packV: null }],
  ]);
  expect(visitRemarks(state)).toEqual([
    '5 codes were read as found before any was touched; all were as expected.',
    'Tyre replaced by Teo R.: Worn through.',
    'Photographs kept with their hashes: damage.',
  ]);
  expect(visitRemarks(stateAfter(cleanVisit))).toEqual([]);
});

it('tells whoever rides what the class asks, and what the label says', () => {
  const asks = {
    rider: ['Whoever rides it: from 14 years, helmet.'],
    label: ['class', 'end of assist'],
    labelLetterMm: 3,
    tyreBar: { from: 2.5, to: 4 },
  };
  expect(askedBeside(stateAfter([['opened', { ...opening, order: { ...opening.order, asks } }]]))).toEqual([
    'Whoever rides it: from 14 years, helmet.',
    'The label on the vehicle says: class, end of assist; letters of at least 3 mm.',
    'Tyres cold at 2.5 to 4 bar: shown speed and braking go by it.',
  ]);
  expect(askedBeside(stateAfter(cleanVisit))).toEqual([]);
});
