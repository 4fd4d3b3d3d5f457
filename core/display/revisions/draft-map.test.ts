import { describe, expect, it } from 'vitest';
import { blankMap } from './blank-map.js';
import { codesFromTable } from './codes-from-table.js';
import { draftMap, idFrom, type Capture, type CapturedCode } from './draft-map.js';
import { hold, tap } from '../map/gesture.js';
import { parseDisplayMap } from '../map/parse-display-map.js';
import { planReadout } from '../plan/plan-readout.js';

const seen = (label: string, over: Partial<CapturedCode> = {}): CapturedCode => ({
  label,
  found: 3,
  min: 1,
  max: 5,
  decimals: 0,
  isLocked: false,
  wraps: true,
  note: '',
  ...over,
});
const capture: Capture = {
  name: 'Curlew',
  revision: 'x 1',
  serial: 'W70-0042',
  firmware: '3.1',
  keys: [
    { id: 'k1', label: 'set' },
    { id: 'k2', label: '+' },
    { id: 'k3', label: '−' },
  ],
  power: { first: 'Pack on.', on: hold(1500, 'k1'), off: hold(3000, 'k1') },
  open: hold(2000, 'k2', 'k3'),
  close: hold(2000, 'k1'),
  next: tap('k2'),
  previous: tap('k3'),
  afterLast: 'wrap',
  edit: { style: 'focus', select: tap('k1'), up: tap('k2'), down: tap('k3') },
  store: 'endOfEdit',
  idleMs: 8_400,
  keepsUnstored: false,
  codes: [
    seen('C1'),
    seen('C2', { isLocked: true, min: 3, max: 3 }),
    seen('C3', { found: 31.5, min: 28, max: 42, decimals: 1, wraps: false, note: 'volts?' }),
  ],
};

it('a blank map wants nothing but what one tells it by, and is a draft', () => {
  expect(parseDisplayMap(blankMap())).toMatchObject({ ok: false, problems: [{ path: 'tellBy' }] });
  expect(parseDisplayMap({ ...blankMap(), tellBy: 'Grey.' })).toMatchObject({ ok: true, map: { confirmed: null } });
});

describe('the draft of a captured display', () => {
  const map = draftMap(capture);

  it('is a sound map that can be practised, and is not confirmed', () => {
    expect(parseDisplayMap(structuredClone(map))).toMatchObject({ ok: true });
    expect(map.confirmed).toBeNull();
    expect(planReadout(map, { values: {}, at: null }).unreachable).toEqual([]);
  });

  it('leaves every code alone until someone says what it does', () => {
    expect(map.codes.map((code) => [code.function, code.effect])).toEqual(
      map.codes.map(() => ['unknown', 'unverified']),
    );
    expect(map.codes.map((code) => code.access)).toEqual(['open', 'locked', 'open']);
  });

  it('takes range, place and end of range as seen, and a tenth off the stopwatch', () => {
    expect(map.codes[2]).toMatchObject({
      range: { min: 28, max: 42, step: 0.1 },
      decimals: 1,
      factory: 31.5,
      values: 'stop',
      note: 'volts?',
    });
    expect(map.menu?.idle).toMatchObject({ browseMs: 7_600, unstored: 'drop' });
  });

  it('takes its id from its name', () => {
    expect(map.id).toBe('curlew-x-1');
    expect(idFrom('  Ö !! ')).toBe('display');
  });
});

describe('a display of several lists', () => {
  const paged = draftMap({
    ...capture,
    turn: hold(1000, 'k1', 'k2'),
    edit: { style: 'digits', begin: tap('k1'), count: tap('k2'), walk: tap('k3'), end: hold(1000, 'k1') },
    codes: [
      seen('A', { page: 'Rider', words: ['OFF', 'ON'], found: 1 }),
      seen('B', { page: 'Rider' }),
      seen('A', { page: 'Shop' }),
    ],
  });

  it('keeps each on its page, turned to one after another, and words as the glass shows them', () => {
    expect(parseDisplayMap(structuredClone(paged))).toMatchObject({ ok: true });
    expect(paged.menu?.pages.map(({ title, items }) => [title, items.length])).toEqual([
      ['Rider', 2],
      ['Shop', 1],
    ]);
    expect(paged.codes[0]).toMatchObject({ factory: 1, shows: [{ text: 'OFF' }, { raw: 1, text: 'ON' }] });
    // The glass shows both alike.
    expect(paged.codes[2]).toMatchObject({ label: 'Shop A', shownAs: 'A' });
    expect(planReadout(paged, { values: {}, at: null }).unreachable).toEqual([]);
  });

  it('has a list for each ride mode under which it was walked', () => {
    const modes = draftMap({
      ...capture,
      changesMode: tap('k2'),
      codes: [seen('A', { mode: 'eco' }), seen('A', { mode: 'sport' })],
    });
    expect(parseDisplayMap(structuredClone(modes))).toMatchObject({ ok: true });
    expect(modes.ride?.modes?.list.map(({ title }) => title)).toEqual(['eco', 'sport']);
    expect(planReadout(modes, { values: {}, at: null }).unreachable).toEqual([]);
  });
});

describe('a flat table of codes', () => {
  const row = (over: Record<string, string>) => ({ code: 'A', min: '0', max: '5', ...over });

  it("becomes codes as the maker's paper says them", () => {
    const { codes, problems } = codesFromTable([
      row({ function: 'speed cap', unit: 'km/h', factory: '4' }),
      row({ code: 'B', max: '1', values: '0=off 1=on at power-up', access: 'locked' }),
    ]);
    expect(problems).toEqual([]);
    expect(codes[0]).toMatchObject({
      label: 'A',
      function: 'speedCap',
      factory: 4,
      source: 'makersPaper',
      effect: 'unverified',
      encoding: { kind: 'line', unit: 'km/h' },
    });
    expect(codes[1]).toMatchObject({
      access: 'locked',
      encoding: {
        kind: 'table',
        entries: [
          { raw: 0, title: 'off' },
          { raw: 1, title: 'on at power-up' },
        ],
      },
    });
  });

  it('reads decimal commas, and steps of a tenth', () => {
    expect(codesFromTable([row({ min: '28,5', max: '42', step: '0,1', factory: '31,5' })]).codes[0]).toMatchObject({
      range: { min: 28.5, max: 42, step: 0.1 },
      decimals: 1,
      factory: 31.5,
    });
  });

  it.each([
    [{ code: '' }, 'line 2, code'],
    [{ code: 'longer than a glass' }, 'line 2, code'],
    [{ min: 'x' }, 'line 2, min'],
    [{ max: '' }, 'line 2, max'],
    [{ min: '9' }, 'line 2, max'],
    [{ step: '-1' }, 'line 2, step'],
    [{ factory: '77' }, 'line 2, factory'],
    [{ values: 'off on' }, 'line 2, values'],
  ])('names the line and column of %j, and takes the rest', (over, path) => {
    const { codes, problems } = codesFromTable([row(over), row({ code: 'Z' })]);
    expect(problems.map((p) => p.path)).toEqual([path]);
    expect(codes.map((code) => code.label)).toEqual(['Z']);
  });

  it('takes a code once', () => {
    expect(codesFromTable([row({}), row({})]).problems).toEqual([
      expect.objectContaining({ path: 'line 3, code', message: 'A stands in the table already.' }),
    ]);
  });
});
