import { describe, expect, it } from 'vitest';
import { draftMap, parseDisplayMap } from '@decurio/core';
import { captured, NO_CODE, NOTHING_CAPTURED, type Handling, type Seen } from './captured.js';

const how = (over: Partial<Handling> = {}): Handling => ({
  ...NOTHING_CAPTURED.how,
  name: 'Whimbrel',
  serial: 'W70-0042',
  ...over,
});
const seen = (label: string, over: Partial<Seen> = {}): Seen => ({
  ...NO_CODE,
  label,
  found: '3',
  min: '1',
  max: '5',
  ...over,
});

describe('what was noted of a live unit', () => {
  it.each([
    ['live', {}, { style: 'live' }],
    ['focus', {}, { style: 'focus', select: { kind: 'tap', key: 'k1' } }],
    ['enter', { end: '−' }, { style: 'enter', begin: { key: 'k1' }, end: { key: 'k3' } }],
    ['digits', { walk: '−', down: '', end: '' }, { style: 'digits', begin: { key: 'k1' }, walk: { key: 'k3' } }],
    ['digits', { walk: '−', down: '', end: 'set' }, { style: 'digits', end: { key: 'k1' } }],
  ] as const)('is a way to change values: %s', (style, keys, edit) => {
    const capture = captured(how({ style, ...keys }), 8_000, [seen('c1')]);
    expect(typeof capture === 'string' ? capture : capture.edit).toMatchObject(edit);
  });

  it.each([
    ['no stopwatch', how(), null, [seen('c1')], /stopwatch/],
    ['no digits', how(), 8_000, [seen('c1', { found: 'x' })], /Type the digits that c1 shows/],
    [
      'a word that is none of its own',
      how(),
      8_000,
      [seen('c1', { found: 'AUTO', words: 'OFF, ON' })],
      /none of its words/,
    ],
    [
      'two lists and no way between',
      how(),
      8_000,
      [seen('a', { list: 'A' }), seen('b', { list: 'B' })],
      /several lists/,
    ],
  ])('says what is missing: %s', (_what, handling, idleMs, codes, says) => {
    expect(captured(handling, idleMs, codes)).toMatch(says);
  });

  it('is a sound draft with pages and words', () => {
    const capture = captured(
      how({ turnKeys: 'set and +', style: 'live', store: 'move', next: 'set', previous: '' }),
      8_000,
      [seen('c1', { list: 'Rider', found: 'ON', words: 'OFF, ON' }), seen('c2', { list: 'Shop' })],
    );
    expect(typeof capture).toBe('object');
    if (typeof capture === 'string') return;
    const parsed = parseDisplayMap(draftMap(capture));
    expect(parsed).toMatchObject({ ok: true, map: { codes: [{ factory: 1 }, { factory: 3 }] } });
  });
});
