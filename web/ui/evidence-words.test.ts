import { describe, expect, it } from 'vitest';
import type { Evidence, EvidenceData, EvidenceKind } from '@decurio/core';
import { evidenceTitle, evidenceWords } from './evidence-words.js';

const words = <K extends EvidenceKind>(kind: K, data: EvidenceData[K]): string =>
  `${evidenceTitle(kind)}: ${evidenceWords({ kind, data } as unknown as Evidence, undefined)}`;
const part = { words: 'cracked', oldOdometerKm: null, newOdometerKm: null, packV: null };

describe('an entry in one line', () => {
  it.each<[string, string]>([
    ['a reading as found', words('asFoundRead', { label: 'L1', raw: 12 })],
    ['one that is not shown', words('asFoundRead', { label: 'L1', raw: null })],
    ['a code off the map', words('strayFound', { shown: 'L9', value: '7' })],
    ['cautions', words('madeSafe', { cautions: ['a', 'b'] })],
    ['a takeover', words('takenOver', { from: 'bay 1' })],
    [
      'a decision that lets a value stand',
      words('released', { words: 'slower is fine', decision: { way: 'accept', labels: ['L1', 'L2'] } }),
    ],
    ['one that sends back', words('released', { words: 'again', decision: { way: 'sendBack', to: 'asFound' } })],
    ['a release of the first releases', words('released', { words: 'lever came' })],
    ['a display replaced', words('partReplaced', { ...part, part: 'display', oldOdometerKm: 412, newOdometerKm: 0 })],
    ['a pack replaced', words('partReplaced', { ...part, part: 'pack', packV: 40.16 })],
    ['a tyre replaced', words('partReplaced', { ...part, part: 'tyre' })],
    ['a step left out', words('stepByHand', { step: 'calibrate', done: false, words: '' })],
    ['a step done by hand', words('stepByHand', { step: 'prove', done: true, words: 'in the yard' })],
    [
      'a photograph',
      words('photographed', { photoId: 'p', subject: 'ratingPlate', sha256: 'abcdef0123456789'.repeat(4), words: '' }),
    ],
    ['a restored unit', words('restoredAsFound', { labels: ['L1', 'L3'] })],
  ])('%s', (what, line) => {
    expect(line).toBe(LINES[what]);
  });
});

const LINES: Readonly<Record<string, string>> = {
  'a reading as found': 'As found: L1 shows 12',
  'one that is not shown': 'As found: L1 is not shown',
  'a code off the map': 'Not on the map: L9 shows 7',
  cautions: 'Made safe: 2 cautions acknowledged',
  'a takeover': 'Taken over: from bay 1',
  'a decision that lets a value stand': 'Decided: L1, L2 accepted as shown: slower is fine',
  'one that sends back': 'Decided: back to as found: again',
  'a release of the first releases': 'Decided: lever came',
  'a display replaced': 'Part replaced: Display: cracked; odometer 412 km before, 0 km now',
  'a pack replaced': 'Part replaced: Pack: cracked; reads 40.2 V',
  'a tyre replaced': 'Part replaced: Tyre: cracked',
  'a step left out': 'By hand: Calibrate left out',
  'a step done by hand': 'By hand: Prove done by other means: in the yard',
  'a photograph': 'Photographed: Rating plate, SHA-256 abcdef012345',
  'a restored unit': 'Restored as found: L1, L3',
};
