import { describe, expect, it } from 'vitest';
import { lookOf, plainName } from './session.js';

describe('a sign-in name', () => {
  it.each([
    ['asta', 'asta'],
    [' Asta ', 'asta'],
    ['ＡＳＴＡ', 'asta'],
    ['bay.2_night-shift', 'bay.2_night-shift'],
  ])('has one plain form: %s', (typed, plain) => expect(plainName(typed)).toBe(plain));

  it.each(['ásta', 'téo', 'аstа', 'as ta', 'asta\u200b', '', '.asta', 'ß', 'a'.repeat(41)])(
    "is nobody's where it is %j",
    (typed) => expect(plainName(typed)).toBeNull(),
  );
});

it.each([
  ['teo', 'te0'],
  ['ines', '1nes'],
  ['ines', 'lnes'],
  ['marn', 'mam'],
  ['bay.2', 'bay2'],
  ['will', 'vvill'],
])('%s and %s look alike', (a, b) => expect(lookOf(a)).toBe(lookOf(b)));
it.each([
  ['teo', 'ted'],
  ['ines', 'inez'],
  ['asta', 'asto'],
])('%s and %s do not', (a, b) => expect(lookOf(a)).not.toBe(lookOf(b)));
