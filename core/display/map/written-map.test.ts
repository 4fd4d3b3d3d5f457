import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { anyMap } from '../../testing/any-map.js';
import { demoMap, demoMapFiles } from '../../testing/demo-maps.js';
import { fourKey, threeKey } from '../../testing/samples.js';
import { gestureFromWords, gestureToWords } from './written-gesture.js';
import { planKeys } from '../plan/plan-keys.js';
import { parseDisplayMap } from './parse-display-map.js';
import { fullMap, writtenMap } from './written-map.js';

const asJson = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

describe('a gesture in words', () => {
  it.each([
    ['o', { kind: 'tap', key: 'o' }],
    ['o o', { kind: 'double', key: 'o' }],
    ['o 1.5 s', { kind: 'hold', keys: ['o'], ms: 1500 }],
    ['o+up 2 s', { kind: 'hold', keys: ['o', 'up'], ms: 2000 }],
  ] as const)('%s is read, and written again', (words, gesture) => {
    expect(gestureFromWords(words)).toEqual(gesture);
    expect(gestureToWords(gesture)).toBe(words);
  });

  it.each(['', 'o p', 'o o o', 'o+ 2 s', '+ 2 s', 'o 2', 'o 2s', 'o 2 s ', ' o'])('"%s" is none', (words) => {
    expect(gestureFromWords(words)).toBeNull();
  });

  it('stays as it is where a key cannot stand in a word', () => {
    const gesture = { kind: 'tap', key: 'the key' } as const;
    expect(gestureToWords(gesture)).toBe(gesture);
  });
});

describe('a map as it is written', () => {
  it.each(['dunlin-a', 'tallow-four-key', 'limpet-modes', 'burdock-digit', 'teasel-link'])(
    '%s is the map again',
    (id) => {
      const map = demoMap(id);
      expect(fullMap(asJson(writtenMap(map)))).toEqual(map);
    },
  );

  it('is the map again, whatever the map', () => {
    fc.assert(
      fc.property(anyMap({ codes: 4, values: 5 }), (map) => {
        expect(fullMap(asJson(writtenMap(map)))).toEqual(asJson(map));
      }),
      { numRuns: 150, seed: 16 },
    );
  });

  it('needs no more of a code than label, function, range and what it is delivered with', () => {
    const codes = [
      { label: '1', function: 'speedCap', range: [10, 40], factory: 25 },
      {
        label: '2',
        function: 'walk',
        words: [
          [0, 'off'],
          [1, 'on', 'to 6 km/h'],
        ],
        factory: 1,
      },
      { label: '3', function: 'cutoffVoltage', range: [28, 34], decimals: 1, factory: 31 },
    ];
    const parsed = parseDisplayMap({
      format: 'decurio-display-map/2',
      id: 'plover',
      name: 'Plover',
      revision: 'A',
      tellBy: 'Three entries.',
      keys: ['o', '+'],
      menu: { opens: [{ gesture: 'o+p 2 s' }], next: 'o', edit: { style: 'live', up: 'p', down: 'm' } },
      codes,
    });
    expect(parsed).toMatchObject({ ok: false });
    const keyed = parseDisplayMap({
      format: 'decurio-display-map/2',
      id: 'plover',
      name: 'Plover',
      revision: 'A',
      tellBy: 'Three entries.',
      keys: ['o', 'p', 'm'],
      menu: { opens: [{ gesture: 'o+p 2 s' }], next: 'o', edit: { style: 'live', up: 'p', down: 'm' } },
      codes,
    });
    expect(keyed.ok && keyed.map.codes).toEqual([
      expect.objectContaining({
        range: { min: 10, max: 40, step: 1 },
        encoding: { kind: 'line', scale: 1, unit: 'km/h', sentinels: [] },
        access: 'open',
      }),
      expect.objectContaining({
        range: { min: 0, max: 1, step: 1 },
        encoding: {
          kind: 'table',
          entries: [
            { raw: 0, value: 'off', title: 'off' },
            { raw: 1, value: 'on', title: 'to 6 km/h' },
          ],
        },
      }),
      expect.objectContaining({ range: { min: 28, max: 34, step: 0.1 }, decimals: 1 }),
    ]);
    expect(keyed.ok && keyed.map).toMatchObject({ restart: [], dangers: [], confirmed: null, power: { on: null } });
  });

  it.each<[object, object]>([
    [
      { range: [6, 32, 0.5], factory: 25 },
      { range: { min: 6, max: 32, step: 0.5 }, decimals: 1 },
    ],
    [
      { range: [6, 32], factory: 24.9 },
      { range: { min: 6, max: 32, step: 0.1 }, decimals: 1 },
    ],
    [
      { range: { min: 0.25, max: 2 }, factory: 1 },
      { range: { min: 0.25, max: 2, step: 0.01 }, decimals: 2 },
    ],
    [
      { range: [6, 32], factory: 25, decimals: 1 },
      { range: { min: 6, max: 32, step: 0.1 }, decimals: 1 },
    ],
    [
      { range: [6, 32], factory: 25 },
      { range: { min: 6, max: 32, step: 1 }, decimals: 0 },
    ],
  ])('shows as many decimals as it is written with: %j', (code, whole) => {
    expect(fullMap({ codes: [{ label: '1', function: 'speedCap', ...code }] })).toMatchObject({ codes: [whole] });
  });

  it.each([
    ['words beside an encoding', { words: [[0, 'off']], encoding: { kind: 'clock' } }],
    [
      'a unit beside words',
      {
        words: [
          [0, 'off'],
          [1, 'on'],
        ],
        unit: 'km',
      },
    ],
  ])('is refused with %s', (_what, more) => {
    const [, map] = demoMapFiles().find(([id]) => id === 'dunlin-a')!;
    const codes = [
      ...(map as { codes: object[] }).codes.slice(0, -1),
      { label: 'd7', function: 'walk', factory: 0, ...more },
    ];
    const parsed = parseDisplayMap({ ...(map as object), codes });
    expect(parsed.ok ? [] : parsed.problems.map(({ code }) => code)).toContain('shape');
  });

  it('stands whole in the docs, and is read from there', () => {
    const docs = readFileSync(new URL('../../../docs/formats/display-map.md', import.meta.url), 'utf8');
    const [, text = ''] = /```jsonc\n(\{\n {2}"format"[\s\S]*?)```/.exec(docs) ?? [];
    const parsed = parseDisplayMap(JSON.parse(text.replace(/\/\/.*$/gm, '')) as unknown);
    expect(parsed).toMatchObject({ ok: true, map: { id: 'plover-three', confirmed: null } });
    if (parsed.ok) expect(planKeys(parsed.map, { '2': 20 }, { values: {}, at: null }).unreachable).toEqual([]);
  });

  it('has its faults told where they are written', () => {
    const [, map] = demoMapFiles().find(([id]) => id === 'dunlin-a')!;
    const codes = [
      {
        label: 'd1',
        function: 'walk',
        words: [
          [0, 'off'],
          [0, 'on'],
        ],
        factory: 0,
      },
      { label: 'd2', function: 'wheelSize', range: [16, 29], unit: 'a very long unit', factory: 26 },
      { label: 'd3', function: 'clock', encoding: { kind: 'table', entries: [] }, range: [0, 1], factory: 0 },
    ];
    const pathsOf = (...of: object[]): readonly (string | undefined)[] => {
      const parsed = parseDisplayMap({
        ...(map as object),
        menu: { ...(map as { menu: object }).menu, pages: undefined },
        codes: of,
      });
      return parsed.ok ? [] : parsed.problems.map(({ path }) => path);
    };
    expect(pathsOf(codes[0]!)).toEqual(['codes[0].words[1]']);
    expect(pathsOf(codes[0]!, codes[1]!)).toEqual(['codes[1].unit']);
    expect(pathsOf(codes[2]!)).toEqual(['codes[0].encoding.entries']);
  });

  it('of the first form is the same map under another name', () => {
    for (const map of [fourKey, threeKey, demoMap('sorrel-two-list')])
      expect(parseDisplayMap({ ...map, format: 'decurio-display-map/1' })).toEqual({ ok: true, map });
  });
});
