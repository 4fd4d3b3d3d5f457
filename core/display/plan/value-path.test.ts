import { describe, expect, it } from 'vitest';
import { code, fourKey, line, withCodes } from '../../testing/samples.js';
import type { Code, KeyedMap, MenuRules } from '../map/display-map.js';
import { hold, tap } from '../map/gesture.js';
import { displayAtCode, displayAtRest } from '../machine/display-state.js';
import { simulateDisplay } from '../machine/simulate-display.js';
import { DEFAULT_PACE } from './pace.js';
import { valuePath } from './value-path.js';

const range = (over: Partial<Code> = {}) =>
  code('A', 'unknown', { range: { min: 0, max: 60, step: 1 }, factory: 10, encoding: line(''), ...over });
const mapWith = (one: Code, menu: Partial<MenuRules> = {}): KeyedMap =>
  withCodes(fourKey, [one], { repeat: { delayMs: 600, everyMs: 250 }, ...menu });

/** The gestures as keys and how often, and the value they lead to. */
function pathTo(map: KeyedMap, target: number, from = 10) {
  const there = displayAtCode(map, displayAtRest(map, { A: from }), 'A')!;
  const path = valuePath(map, there, map.codes[0]!, target, DEFAULT_PACE);
  if (!path) return null;
  const end = path.gestures.reduce((state, gesture) => simulateDisplay(map, state, gesture), there);
  return {
    keys: path.gestures
      .map((g) => (g.kind === 'hold' ? `hold ${g.keys.join()}` : g.kind === 'tap' ? g.key : 'double'))
      .join(' '),
    shows: end.unstored['A'] ?? end.stored['A'],
    ms: path.ms,
  };
}

describe('the quickest way to a value', () => {
  it('is a few taps where it is near, either way round', () => {
    expect(pathTo(mapWith(range()), 12)).toMatchObject({ keys: 'up up', shows: 12, ms: 700 });
    expect(pathTo(mapWith(range()), 59, 0)).toMatchObject({ keys: 'down down', shows: 59 });
  });

  it('is a held key where it is far', () => {
    expect(pathTo(mapWith(range()), 35)).toMatchObject({ keys: 'hold up', shows: 35 });
    expect(pathTo(mapWith(range({ values: 'stop' })), 35)).toMatchObject({ keys: 'hold up', shows: 35 });
  });

  it('is a key held up to the end and tapped back, where a key repeats too fast to be stopped', () => {
    const fast = mapWith(range({ values: 'stop' }), { repeat: { delayMs: 500, everyMs: 80 } });
    expect(pathTo(fast, 58)).toMatchObject({ keys: 'hold up down down', shows: 58 });
    expect(pathTo(mapWith(range(), { repeat: { delayMs: 500, everyMs: 80 } }), 14)).toMatchObject({
      keys: 'up up up up',
    });
  });

  it('holds no key that closes the menu, opens it, starts the motor, or erases the entry', () => {
    const onlyTaps = 'up '.repeat(25).trim();
    expect(pathTo(mapWith(range(), { close: hold(2000, 'up') }), 35)?.keys).toBe(onlyTaps);
    expect(pathTo({ ...mapWith(range()), dangers: [{ gesture: hold(9000, 'up'), caution: 'motor' }] }, 35)?.keys).toBe(
      onlyTaps,
    );
    expect(pathTo(mapWith(range({ holdErases: { gesture: hold(3000, 'down'), says: 'clears it' } })), 35)?.keys).toBe(
      onlyTaps,
    );
  });

  it('begins from a value between two that can be set', () => {
    const tens = range({ range: { min: 0, max: 60, step: 10 }, values: 'stop' });
    expect(pathTo(mapWith(tens, { repeat: null }), 30, 14)).toMatchObject({ keys: 'up up', shows: 30 });
    expect(pathTo(mapWith(tens, { repeat: null }), 10, 14)).toMatchObject({ keys: 'down', shows: 10 });
  });

  it('does not exist for a value that the keys do not reach', () => {
    expect(pathTo(mapWith(range()), 61)).toBeNull();
    expect(pathTo(mapWith(range({ skips: [35] })), 35)).toBeNull();
  });

  it('counts digits up only, and walks no further than the last that changes', () => {
    const digits: Partial<MenuRules> = {
      edit: { style: 'digits', begin: hold(800, 'up'), count: tap('up'), walk: hold(700, 'power') },
    };
    const map = mapWith(range({ range: { min: 0, max: 60, step: 1 } }), digits);
    const there = displayAtCode(map, displayAtRest(map), 'A', 'value')!;
    const path = valuePath(map, there, map.codes[0]!, 42, DEFAULT_PACE);
    expect(path?.gestures.map((g) => (g.kind === 'tap' ? 'count' : 'walk'))).toEqual([
      'count',
      'count',
      'count',
      'walk',
      'count',
      'count',
    ]);
  });
});
