import fc from 'fast-check';
import { expect, it } from 'vitest';
import { hasHalfLetter } from './half-letters.js';

it.each([
  ['"\\ud83d"', true],
  ['"\\uDE00"', true],
  ['"\\ude00\\ud83d"', true],
  ['"\\ud83d\\ude00"', false],
  ['"\\ud83d\\ude00\\ud83d"', true],
  ['"\\\\ud83d"', false],
  ['"\\\\\\ud83d"', true],
  ['"😀 \\u00e9"', false],
])('%s: %s', (json, is) => expect(hasHalfLetter(json)).toBe(is));

it('says what the text holds, whatever it is', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 20 }), fc.constantFrom('', '\ud800', '\udfff'), (text, half) => {
      // JSON.stringify escapes halves alone, and leaves whole letters as they are.
      expect(hasHalfLetter(JSON.stringify({ [text + half]: text }))).toBe(half !== '' || /\p{Surrogate}/u.test(text));
    }),
  );
});
