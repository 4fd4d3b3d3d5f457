import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withPoint, shortened } from './text.js';

it.each([
  ['Causeway', 20, 'Causeway'],
  ['Causeway', 4, 'Caus'],
  ['Park 🚲', 6, 'Park '],
  ['Park 🚲', 7, 'Park 🚲'],
  ['e\u0301cole', 1, ''],
  ['e\u0301cole', 2, 'e\u0301'],
  ['👩‍👩‍👧‍👦!', 5, ''],
])('%s to %i is %s', (text, most, short) => expect(shortened(text, most)).toBe(short));

it('is a beginning of the text, short enough, and whole letters', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 40 }), fc.nat(60), (text, most) => {
      const short = shortened(text, most);
      expect(text.startsWith(short)).toBe(true);
      expect(short.length).toBeLessThanOrEqual(most);
      expect(/\p{Surrogate}/u.test(short)).toBe(false);
    }),
  );
});

describe('a sentence', () => {
  it('ends in one point, also where a name does', () => {
    expect([withPoint('by Ines M.'), withPoint('by Teo')]).toEqual(['by Ines M.', 'by Teo.']);
  });
});
