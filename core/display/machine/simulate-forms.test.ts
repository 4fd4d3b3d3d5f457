import { describe, expect, it } from 'vitest';
import { demoMap } from '../../testing/demo-maps.js';
import { code, fourKey, line, withCodes, words } from '../../testing/samples.js';
import type { KeyedMap } from '../map/display-map.js';
import { hold, tap, type Gesture } from '../map/gesture.js';
import { displayAtRest, glassOf, simulateDisplay, type DisplayInput, type DisplayState } from './simulate-display.js';

const after = (map: KeyedMap, ...inputs: readonly DisplayInput[]): DisplayState =>
  inputs.reduce((state, input) => simulateDisplay(map, state, input), displayAtRest(map));
const wait = (ms: number): DisplayInput => ({ kind: 'wait', ms });
const OPEN: Gesture = hold(2000, 'set', 'up');

const menu = {
  edit: { style: 'enter', begin: tap('mid'), end: tap('mid'), abandon: null, up: tap('up'), down: tap('down') },
  store: { on: 'endOfEdit' },
} as const;
const cap = code('A', 'unknown', { range: { min: 0, max: 9, step: 1 }, factory: 4 });
const switched = code('B', 'unknown', {
  range: { min: 0, max: 1, step: 1 },
  factory: 0,
  encoding: words([0, 'off'], [1, 'on']),
  edit: { style: 'live', up: tap('up'), down: tap('down') },
});
const clock = code('C', 'clock', {
  range: { min: 0, max: 1439, step: 1 },
  factory: 0,
  encoding: { kind: 'clock' },
  edit: {
    style: 'digits',
    begin: tap('mid'),
    count: tap('up'),
    back: tap('down'),
    walk: tap('mid'),
    end: hold(1000, 'mid'),
  },
});
const mixed = withCodes(fourKey, [cap, switched, clock], menu);

describe('entries that are changed each in its own way', () => {
  it('one is switched by a single press, and stored by it, among others that begin and end an edit', () => {
    expect(after(mixed, OPEN, tap('up')).stored['A']).toBe(4);
    expect(after(mixed, OPEN, tap('mid'), tap('up'), tap('mid')).stored['A']).toBe(5);
    const live = after(mixed, OPEN, tap('set'), tap('up'));
    expect(live.stored['B']).toBe(1);
    expect(live.screen).toMatchObject({ kind: 'menu', focus: 'name' });
  });

  it('a clock is set to 13:45 by its digits, up or down, walking round until a gesture ends it', () => {
    const begun = after(mixed, OPEN, tap('set'), tap('set'), tap('mid'));
    expect(glassOf(mixed, begun)).toMatchObject({ text: '00:00', digit: 0 });
    const ups = (n: number): Gesture[] => Array.from({ length: n }, () => tap('up'));
    const digits = [tap('mid'), ...ups(3), tap('mid'), ...ups(4), tap('mid'), ...ups(5), tap('mid'), ...ups(1)];
    const set = digits.reduce((state, input) => simulateDisplay(mixed, state, input), begun);
    expect(glassOf(mixed, set)).toMatchObject({ text: '13:45', digit: 0 });
    expect(set.stored['C']).toBe(0);
    expect(simulateDisplay(mixed, set, hold(1000, 'mid')).stored['C']).toBe(13 * 60 + 45);
    expect(glassOf(mixed, simulateDisplay(mixed, begun, tap('down')))).toMatchObject({ text: '90:00' });
  });
});

describe('an edit that ends by itself', () => {
  const pausing = (does: 'store' | 'drop'): KeyedMap =>
    withCodes(fourKey, [cap], { ...menu, store: { on: 'endOfEdit', pause: { ms: 4000, does } } });

  it('stores what is shown, the menu staying open for its own time after it', () => {
    const map = pausing('store');
    const edited = [OPEN, tap('mid'), tap('up')] as const;
    expect(after(map, ...edited, wait(3999))).toMatchObject({ stored: { A: 4 }, unstored: { A: 5 } });
    expect(after(map, ...edited, wait(4000))).toMatchObject({
      stored: { A: 5 },
      screen: { kind: 'menu', focus: 'name' },
    });
    const { browseMs } = map.menu.idle;
    expect(after(map, ...edited, wait(4000 + browseMs - 1)).screen.kind).toBe('menu');
    expect(after(map, ...edited, wait(4000 + browseMs)).screen.kind).toBe('riding');
  });

  it('or drops it', () => {
    const dropped = after(pausing('drop'), OPEN, tap('mid'), tap('up'), wait(4000));
    expect(dropped).toMatchObject({ stored: { A: 4 }, unstored: {}, screen: { kind: 'menu', focus: 'name' } });
  });

  it('begins anew with every press', () => {
    const map = pausing('store');
    const twice = after(map, OPEN, tap('mid'), tap('up'), wait(3000), tap('up'), wait(3000));
    expect(twice).toMatchObject({ stored: { A: 4 }, unstored: { A: 6 } });
  });
});

describe('a level', () => {
  const most = code('L', 'assistLevels', { range: { min: 3, max: 5, step: 1 }, factory: 5, encoding: line('levels') });
  const wakes = code('W', 'powerUpLevel', { range: { min: 0, max: 5, step: 1 }, factory: 2, encoding: line('') });
  const riding = (wakesAt: 'asLeft' | number | { readonly code: string }): KeyedMap => ({
    ...withCodes(fourKey, [most, wakes]),
    ride: { levels: { up: tap('up'), down: tap('down'), most: 5, mostBy: 'L', wakesAt }, modes: null },
  });
  const cycle = { kind: 'powerCycle' } as const;

  it('goes no higher than the code that sets how many there are', () => {
    const map = riding(1);
    const three = displayAtRest(map, { L: 3 });
    const up = Array.from({ length: 6 }, () => tap('up'));
    expect(up.reduce((state, input) => simulateDisplay(map, state, input), three).level).toBe(3);
    expect(after(map, ...up).level).toBe(5);
  });

  it('wakes as it was left, at a fixed one, or where a code says, never beyond the highest', () => {
    expect(after(riding('asLeft'), tap('up'), tap('up'), cycle).level).toBe(3);
    expect(after(riding(4), cycle).level).toBe(4);
    expect(after(riding({ code: 'W' }), tap('up'), cycle).level).toBe(2);
    expect(displayAtRest(riding({ code: 'W' }), { L: 3, W: 5 }).level).toBe(3);
  });
});

describe('what stands on the glass', () => {
  const marram = demoMap('marram-word') as KeyedMap;

  it('is a word where the display shows one', () => {
    const open = after(marram, hold(2000, 'up', 'down'));
    expect(glassOf(marram, open)).toMatchObject({ shows: 'Un', raw: 0, text: 'METRIC' });
  });

  it('leads to a list of its own only while another code says so', () => {
    const titles = (values: Record<string, number>): string[] => {
      let state = simulateDisplay(marram, displayAtRest(marram, values), hold(2000, 'up', 'down'));
      return marram.menu.pages[0]!.items.map(() => {
        const glass = glassOf(marram, state);
        state = simulateDisplay(marram, state, tap('down'));
        return glass.kind === 'menu' || glass.kind === 'entry' ? glass.shows : glass.kind;
      });
    };
    expect(titles({ Gm: 1 })).not.toContain('Own steps');
    expect(titles({ Gm: 2 })).toContain('Own steps');
  });

  it('of two values in one code moves by the other key where it is turned about', () => {
    const half = (raw: number) => ({ raw, value: `w${raw}`, title: `w${raw}` });
    const pair = (turned: boolean) =>
      withCodes(fourKey, [
        code('P', 'driveMode', {
          range: { min: 0, max: 99, step: 1 },
          factory: 0,
          encoding: {
            kind: 'pair',
            first: { function: 'driveMode', entries: [half(0), half(1)] },
            second: { function: 'standstillStart', entries: [half(0), half(1), half(2)] },
            ...(turned ? { turned } : {}),
          },
        }),
      ]);
    const shown = (turned: boolean, key: string): unknown => glassOf(pair(turned), after(pair(turned), OPEN, tap(key)));
    expect(shown(false, 'up')).toMatchObject({ raw: 10 });
    expect(shown(false, 'down')).toMatchObject({ raw: 1 });
    expect(shown(true, 'up')).toMatchObject({ raw: 1 });
    expect(shown(true, 'down')).toMatchObject({ raw: 10 });
  });
});
