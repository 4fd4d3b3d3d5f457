import { describe, expect, it } from 'vitest';
import { blankMap, fullMap, parseDisplayMap, writtenMap } from '@decurio/core';
import { glassWord, withFunction, withGlassWord, withGlassWordMoved, withLine, withWords } from './written-entry.js';
import { withValue } from './written-form.js';

const CAP = { label: '2', function: 'speedCap', range: [10, 41], factory: 25 };
const written = withValue(writtenMap(blankMap()), ['tellBy'], 'Grey case.');
const withCap = withValue(written, ['codes', 1], CAP);
const isSound = (map: unknown): boolean => parseDisplayMap(map).ok;
const codeIn = (map: unknown) => (map as { codes: Record<string, unknown>[] }).codes[1];

describe('an entry being written', () => {
  it('stays the same amount when it says more than its unit', () => {
    const more = withLine(withCap, 1, (line) => ({
      ...line,
      sentinels: [{ raw: 41, means: 'noCap', title: 'no cap' }],
    }));
    expect(codeIn(fullMap(more))?.['encoding']).toEqual({
      kind: 'line',
      scale: 1,
      unit: 'km/h',
      sentinels: [{ raw: 41, means: 'noCap', title: 'no cap' }],
    });
    expect(isSound(more)).toBe(true);
    const scaled = withLine(withValue(withCap, ['codes', 1, 'scale'], 0.5), 1, (line) => line);
    expect(codeIn(fullMap(scaled))?.['encoding']).toMatchObject({ scale: 0.5, unit: 'km/h' });
  });

  it('has a word on the glass, moves it with its digits, and loses it', () => {
    const named = withGlassWord(withCap, 1, 41, 'MAX');
    expect([glassWord(named, 1, 41), glassWord(named, 1, 40)]).toEqual(['MAX', '']);
    const moved = withGlassWordMoved(named, 1, 41, 40);
    expect([glassWord(moved, 1, 41), glassWord(moved, 1, 40)]).toEqual(['', 'MAX']);
    // Where the other digits have a word already, both keep theirs.
    const both = withGlassWord(named, 1, 40, 'FAST');
    expect(withGlassWordMoved(both, 1, 41, 40)).toBe(both);
    expect(codeIn(withGlassWord(named, 1, 41, ''))).toEqual(CAP);
    expect(isSound(named)).toBe(true);
  });

  it('becomes words, and what belonged to an amount is gone', () => {
    const words = withWords(
      withLine(withCap, 1, (line) => line),
      1,
      ['low', 'high'],
    );
    expect(codeIn(words)).toEqual({
      label: '2',
      function: 'speedCap',
      factory: 0,
      words: [
        [0, 'low'],
        [1, 'high'],
      ],
    });
  });

  it('that says nothing of its digits yet has those that such an entry has everywhere', () => {
    const fresh = withValue(written, ['codes', 1], { label: '2', function: 'unknown', factory: 0 });
    expect(codeIn(withFunction(fresh, 1, 'walk'))?.['words']).toEqual([
      [0, 'off'],
      [1, 'on'],
    ]);
    const clock = withFunction(fresh, 1, 'clock');
    expect(codeIn(clock)).toMatchObject({ encoding: { kind: 'clock' }, range: [0, 1439] });
    for (const what of ['walk', 'clock']) expect(isSound(withFunction(fresh, 1, what))).toBe(true);
    expect(codeIn(withFunction(fresh, 1, 'regen'))).toEqual({ label: '2', function: 'regen', factory: 0 });
    expect(codeIn(withFunction(withCap, 1, 'walk'))).toEqual({ ...CAP, function: 'walk' });
  });
});
