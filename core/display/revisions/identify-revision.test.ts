import { describe, expect, it } from 'vitest';
import { demoMap } from '../../testing/demo-maps.js';
import { code, fourKey, withCodes } from '../../testing/samples.js';
import { hold } from '../map/gesture.js';
import type { DisplayMap, KeyedMap } from '../map/display-map.js';
import { identifyRevision, type Identification, type RevisionAnswers } from './identify-revision.js';

const dunlins = ['dunlin-a', 'dunlin-b', 'dunlin-c'].map(demoMap);

/** Answers as a person would who has this very display in hand, until it is found. */
function askFor(
  display: DisplayMap,
  candidates: readonly DisplayMap[],
): { readonly result: Identification; readonly asked: number } {
  let answers: RevisionAnswers = {};
  for (let asked = 0; ; asked++) {
    const result = identifyRevision(candidates, answers);
    if (result.kind !== 'ask') return { result, asked };
    const says = result.question.answers.find((a) => a.maps.includes(display.id))?.says ?? null;
    answers = { ...answers, [result.question.id]: says };
  }
}

describe('which revision is it', () => {
  it.each(dunlins.map((map) => [map.id, map] as const))('finds %s among those that look alike', (id, map) => {
    expect(askFor(map, dunlins)).toEqual({ result: { kind: 'found', map: id }, asked: 1 });
  });

  it('asks nothing where there is one', () => {
    expect(identifyRevision([fourKey])).toEqual({ kind: 'found', map: 'four-key' });
  });

  it('asks the question that splits best, the least troublesome first', () => {
    const first = identifyRevision(dunlins);
    expect(first).toMatchObject({ kind: 'ask', mostLeft: 1 });
    const stickered = dunlins.map((map) => ({ ...map, tells: [{ fact: 'Letter at the back', shows: map.revision }] }));
    expect(identifyRevision(stickered)).toMatchObject({
      kind: 'ask',
      question: { id: 'tell:Letter at the back', effort: 0 },
    });
  });

  it('needs no more questions than halving would, on sixteen that differ in four codes', () => {
    const sixteen = Array.from({ length: 16 }, (_, i) => {
      const codes = [
        code('Z', 'unknown', {}),
        ...[0, 1, 2, 3].map((bit) =>
          code(`C${bit}`, 'walk', { range: { min: 0, max: (i >> bit) & 1 ? 7 : 6, step: 1 } }),
        ),
      ];
      return { ...withCodes(fourKey, codes), id: `m${i}` };
    });
    for (const map of sixteen)
      expect(askFor(map, sixteen)).toEqual({ result: { kind: 'found', map: map.id }, asked: 4 });
  });

  const own = fourKey.codes[1]!;
  const changed = (over: Partial<typeof own>) =>
    withCodes(
      fourKey,
      fourKey.codes.map((each) => (each.label === own.label ? { ...each, ...over } : each)),
    );
  it.each([
    ['whether an entry moves', changed({ access: 'locked' }), `moves:${own.label}`],
    ['what a value shows', changed({ shows: [{ raw: own.range.max, text: 'FULL' }] }), `most:${own.label}`],
    ['a word in the middle', changed({ shows: [{ raw: own.range.min + 3, text: 'ECO' }] }), `words:${own.label}`],
    [
      'how it goes on at its end',
      changed({ values: fourKey.menu.values === 'wrap' ? 'stop' : 'wrap' }),
      `after:${own.label}`,
    ],
    ['its step', changed({ range: { ...own.range, step: 2 } }), `second:${own.label}`],
    [
      'the order of its entries',
      withCodes(fourKey, [fourKey.codes[1]!, fourKey.codes[0]!, ...fourKey.codes.slice(2)]),
      'order',
    ],
    [
      'which keys open the menu',
      { ...fourKey, menu: { ...fourKey.menu, opens: [{ ...fourKey.menu.opens[0]!, gesture: hold(3000, 'set') }] } },
      'opens',
    ],
  ])('tells apart by %s', (_, other, id) => {
    const pair = [fourKey, { ...other, id: 'other' }];
    const first = identifyRevision(pair);
    expect(first).toMatchObject({ kind: 'ask', mostLeft: 1, question: { id } });
    for (const map of pair) expect(askFor(map, pair).result).toEqual({ kind: 'found', map: map.id });
  });

  it('tells apart by what a time-out does to a change, where that shows', () => {
    const slow: KeyedMap = {
      ...fourKey,
      menu: { ...fourKey.menu, store: { on: 'move' }, idle: { ...fourKey.menu.idle, unstored: 'keep' } },
    };
    const drops = {
      ...slow,
      id: 'drops',
      menu: { ...slow.menu, idle: { ...slow.menu.idle, unstored: 'drop' as const } },
    };
    expect(identifyRevision([slow, drops])).toMatchObject({ kind: 'ask', question: { id: 'keeps' } });
  });

  it('says so where nothing a person can see tells them apart', () => {
    const twin = { ...fourKey, id: 'twin' };
    expect(identifyRevision([fourKey, twin])).toEqual({ kind: 'alike', maps: ['four-key', 'twin'] });
  });

  it('says so where the display is like none of them', () => {
    const asked = identifyRevision(dunlins);
    const id = asked.kind === 'ask' ? asked.question.id : '';
    expect(identifyRevision(dunlins, { [id]: null })).toEqual({ kind: 'unknown' });
    expect(identifyRevision([])).toEqual({ kind: 'unknown' });
  });

  it('never asks to move a code that must be left alone', () => {
    const risky = (max: number, id: string) => ({
      ...withCodes(fourKey, [
        code('O', 'odometer', { range: { min: 0, max, step: 1 }, access: 'locked' }),
        code('X', 'unknown', { range: { min: 0, max, step: 1 } }),
      ]),
      id,
    });
    expect(identifyRevision([risky(7, 'a'), risky(9, 'b')])).toEqual({ kind: 'alike', maps: ['a', 'b'] });
  });
});
