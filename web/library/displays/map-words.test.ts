import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { gestureKeys, gestureWords, fullMap, findCode, type DisplayMap } from '@decurio/core';
import { actsWords, handling, listedWhile, pageTitle } from './map-words.js';
import { readTable } from './read-table.js';

const demoMap = (name: string) =>
  fullMap(JSON.parse(readFileSync(new URL(`../../../demo/maps/${name}.json`, import.meta.url), 'utf8'))) as DisplayMap;
const says = (map: DisplayMap, name: string): string => handling(map).find(([title]) => title === name)?.[1] ?? '';
const sorrel = demoMap('sorrel-two-list');
const burdock = demoMap('burdock-digit');
const quill = demoMap('quill-two-key');

describe('a gesture in words', () => {
  it('names keys as they are printed', () => {
    expect(gestureWords(sorrel, { kind: 'hold', keys: ['up', 'down'], ms: 2500 })).toBe('hold ▲ and ▼ for 2.5 s');
    expect(gestureWords(sorrel, { kind: 'double', key: 'menu' })).toBe('tap menu twice');
    expect(gestureKeys(sorrel, { kind: 'tap', key: 'up' })).toBe('▲');
  });
});

describe('how a display is handled', () => {
  it('tells how the menu opens, from the dark too, and with a PIN', () => {
    expect(says(quill, 'Menu opens')).toBe('hold power and mode for 4 s while it is dark');
    expect(says(quill, 'Menu is left')).toBe('by its Exit entry, or by waiting');
    expect(says(burdock, 'PIN')).toBe(
      '4 digits, 1270 as delivered; a wrong one opens, and guarded codes do not move; asked for on opening the menu',
    );
    expect(says(burdock, 'Power up')).toContain('The glass shows HEr 2 for a moment.');
  });

  it('tells when values are stored, and what closing by itself does', () => {
    expect(says(sorrel, 'Stored')).toBe('when the edit ends; the glass says donE for 0.9 s');
    expect(says(sorrel, 'Closes by itself')).toBe(
      'after 10 s, 15 s while editing; a change not stored is dropped; it opens again at the first item',
    );
    expect(says(quill, 'Stored')).toBe('by a gesture of its own: hold power for 1.5 s; the glass says SA for 0.6 s');
    expect(says(demoMap('fescue-three-key'), 'Closes by itself')).toContain('kept; it opens again where it closed');
  });

  it('tells of a unit without a menu what it is set through', () => {
    const link = demoMap('teasel-link');
    expect(says(link, 'Set through')).toBe('the service plug');
    expect(says(link, 'Pack profiles')).toBe('A, B');
    expect(says(link, 'Menu opens')).toBe('');
  });

  it('tells of a code what moves it, when it acts, and on which list it stands', () => {
    expect(actsWords(findCode(sorrel, 'A6')!)).toMatch(/^Left alone; /);
    expect(actsWords(findCode(sorrel, 'G1')!)).toBe('Acts, at once, kept in the controller, converts A2');
    expect(pageTitle(sorrel, 'A1')).toBe('Advanced');
    expect(pageTitle(burdock, '01')).toBeNull();
    const [quill, marram] = [demoMap('quill-two-key'), demoMap('marram-word')];
    const conditional = quill.codes.find(({ shownIf }) => shownIf)!;
    expect(listedWhile(quill, conditional)).toMatch(/^listed while bB is 1/);
    const steps = marram.menu!.pages.find(({ id }) => id === 'steps')!.items[0]!;
    const step = findCode(marram, 'code' in steps ? steps.code : '')!;
    expect(listedWhile(marram, step)).toMatch(/^listed while .* is /);
    expect(listedWhile(sorrel, findCode(sorrel, 'A1')!)).toBeNull();
  });
});

describe('a table of codes as a file', () => {
  it('is read with semicolons, quotes and headers in any case', () => {
    const read = readTable('paper.csv', 'CODE;Min;MAX;note\n"P1";1;"5";"a; b"\n');
    expect(read).toMatchObject({
      ok: true,
      table: { codes: [{ label: 'P1', range: { min: 1, max: 5 }, note: 'a; b' }], problems: [] },
    });
  });

  it('without its columns, or without one good row, is refused in words', () => {
    expect(readTable('paper.csv', 'code,min\nP1,1\n')).toEqual({
      ok: false,
      says: 'paper.csv has no column max. The first line names the columns.',
    });
    expect(readTable('paper.csv', '')).toMatchObject({ ok: false });
    expect(readTable('paper.csv', 'code,min,max\nP1,x,2\n')).toMatchObject({
      ok: false,
      says: expect.stringContaining('line 2, min'),
    });
  });
});
