import { describe, expect, it } from 'vitest';
import { fourKey, threeKey } from '../../testing/samples.js';
import { parseDisplayMap } from './parse-display-map.js';

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- the point is to break it
type Loose = any;
const spoilt = (change: (map: Loose) => void, from: unknown = fourKey): unknown => {
  const copy = structuredClone(from) as Loose;
  change(copy);
  return copy;
};
const problemsOf = (data: unknown) => {
  const parsed = parseDisplayMap(data);
  return parsed.ok ? [] : parsed.problems;
};
const pathsOf = (data: unknown) =>
  problemsOf(data)
    .map((p) => p.path)
    .sort();

describe('a display map', () => {
  it('is read as it stands', () => {
    expect(parseDisplayMap(structuredClone(fourKey))).toEqual({ ok: true, map: fourKey });
    expect(parseDisplayMap(structuredClone(threeKey))).toEqual({ ok: true, map: threeKey });
  });

  it.each([null, 3, 'map', [], {}])('is refused, not thrown at, when it is %j', (data) => {
    expect(problemsOf(data).length).toBeGreaterThan(0);
  });

  it('names an unknown field with its path', () => {
    expect(problemsOf(spoilt((m) => (m.codes[0].colour = 'red')))).toEqual([
      expect.objectContaining({ path: 'codes[0]', message: expect.stringContaining('colour') }),
    ]);
  });

  it('tells all problems at once, each in a sentence', () => {
    const problems = problemsOf(
      spoilt((m) => {
        m.menu.idle.browseMs = 10;
        m.codes[0].function = 'colour';
        m.menu.next = 'set';
      }),
    );
    expect(problems.map((p) => p.path).sort()).toEqual(['codes[0].function', 'menu.idle.browseMs', 'menu.next']);
    expect(problems.every((p) => /^[A-Z].*\.$/.test(p.message))).toBe(true);
  });
});

describe('references that dangle', () => {
  it.each<[string, (m: Loose) => void, string]>([
    ['a key', (m) => (m.menu.next.key = 'sett'), 'menu.next.key'],
    ['a key of a chord', (m) => (m.menu.opens[0].gesture.keys = ['set', 'upp']), 'menu.opens[0].gesture.keys[1]'],
    ['a code on a page', (m) => m.menu.pages[0].items.push({ code: 'L9' }), 'menu.pages[0].items[5].code'],
    ['a page of an opening', (m) => (m.menu.opens[0].page = 'other'), 'menu.opens[0].page'],
    [
      'a page of a turn',
      (m) => m.menu.turns.push({ gesture: { kind: 'hold', keys: ['set', 'down'], ms: 900 }, from: 'main', to: 'more' }),
      'menu.turns[0].to',
    ],
    ['a code that shows another', (m) => (m.codes[1].shownIf = { code: 'L9', in: [1] }), 'codes[1].shownIf.code'],
    [
      'a code that is influenced',
      (m) => (m.codes[1].influences = [{ kind: 'resets', code: 'L9' }]),
      'codes[1].influences[0].code',
    ],
    ['a units code that is followed', (m) => (m.codes[1].encoding.follows = 'L9'), 'codes[1].encoding.follows'],
    [
      'a code that lights an icon',
      (m) => (m.icons = [{ title: 'x', proves: 'y', litIf: { code: 'L9', in: [1] } }]),
      'icons[0].litIf.code',
    ],
  ])('%s', (_what, change, path) => {
    expect(pathsOf(spoilt(change))).toEqual([path]);
  });
});

describe('codes that cannot be', () => {
  it('names two codes under one label', () => {
    expect(pathsOf(spoilt((m) => (m.codes[2].label = 'L1')))).toContain('codes[2].label');
  });

  it('names a range that excludes its factory value, and one that is empty', () => {
    expect(problemsOf(spoilt((m) => (m.codes[1].factory = 9)))).toEqual([
      expect.objectContaining({ code: 'factoryOutside', path: 'codes[1].factory' }),
    ]);
    expect(problemsOf(spoilt((m) => (m.codes[1].range = { min: 5, max: 4, step: 1 })))).toEqual([
      expect.objectContaining({ code: 'emptyRange' }),
    ]);
  });

  it('names a table that says a value twice, or one out of range', () => {
    expect(problemsOf(spoilt((m) => (m.codes[0].encoding.entries[1].raw = 11)))).toContainEqual(
      expect.objectContaining({ code: 'twiceEncoded' }),
    );
    expect(problemsOf(spoilt((m) => (m.codes[2].encoding.entries[0].raw = 77)))).toContainEqual(
      expect.objectContaining({ code: 'entryOutside' }),
    );
  });

  it('names a circle of conditions', () => {
    const problems = problemsOf(
      spoilt((m) => {
        m.codes[1].shownIf = { code: 'L5', in: [6] };
        m.codes[4].shownIf = { code: 'L2', in: [12] };
      }),
    );
    expect(problems.map((p) => p.path)).toEqual(['codes[1].shownIf', 'codes[4].shownIf']);
    expect(problems[0]?.message).toBe('L2 is shown by L5 is shown by L2: a circle.');
  });

  it('names a condition that never comes true', () => {
    expect(problemsOf(spoilt((m) => (m.codes[1].shownIf = { code: 'L1', in: [99] })))).toEqual([
      expect.objectContaining({ code: 'neverShown' }),
    ]);
  });

  it('names a code that stands on no page', () => {
    expect(problemsOf(spoilt((m) => m.menu.pages[0].items.pop()))).toEqual([
      expect.objectContaining({ code: 'unreachableCode', path: 'codes[4].label' }),
    ]);
    expect(problemsOf(spoilt((m) => ((m.codes[4].access = 'absent'), m.menu.pages[0].items.pop())))).toEqual([]);
  });

  it('names an action without yes and no', () => {
    expect(problemsOf(spoilt((m) => (m.codes[4].action = 'resetTrip')))).toEqual([
      expect.objectContaining({ code: 'actionValues' }),
    ]);
  });
});

describe('gestures that a display could mistake', () => {
  it('names a chord that is the beginning of another', () => {
    const problems = problemsOf(
      spoilt((m) =>
        m.menu.turns.push({ gesture: { kind: 'hold', keys: ['set'], ms: 3000 }, from: 'main', to: 'main' }),
      ),
    );
    expect(problems).toEqual([
      {
        code: 'prefix',
        path: 'menu.turns[0].gesture',
        message: 'This gesture turns to main, and on the way there menu.close already leaves the menu.',
      },
    ]);
  });

  it('names a double press on a key that also counts alone', () => {
    const problems = problemsOf(spoilt((m) => (m.menu.close = { kind: 'double', key: 'set' })));
    expect(problems).toEqual([expect.objectContaining({ code: 'prefix', path: 'menu.close' })]);
  });

  it('names one gesture for two things in the same state, and lets it mean two things in two states', () => {
    expect(problemsOf(spoilt((m) => (m.menu.previous = { kind: 'tap', key: 'set' })))).toEqual([
      expect.objectContaining({ code: 'sameGesture', path: 'menu.previous' }),
    ]);
    expect(problemsOf(threeKey)).toEqual([]);
  });

  it('names an opening that starts the motor on the way', () => {
    expect(problemsOf(spoilt((m) => (m.menu.opens[0].gesture = { kind: 'hold', keys: ['down'], ms: 3000 })))).toEqual([
      expect.objectContaining({ code: 'prefix', path: 'menu.opens[0].gesture' }),
    ]);
  });
});

describe('menus that do not hang together', () => {
  it('names a page nothing leads to', () => {
    const problems = problemsOf(
      spoilt((m) => m.menu.pages.push({ id: 'more', title: 'More', items: [m.menu.pages[0].items.pop()] })),
    );
    expect(problems).toEqual([expect.objectContaining({ code: 'unreachablePage', path: 'menu.pages[1]' })]);
  });

  it('names a code listed twice', () => {
    expect(problemsOf(spoilt((m) => m.menu.pages[0].items.push({ code: 'L1' })))).toEqual([
      expect.objectContaining({ code: 'twiceListed' }),
    ]);
  });

  it('names a ride mode without a page, and a page without its mode', () => {
    expect(pathsOf(spoilt((m) => (m.menu.opens[0].page = 'ofMode')))).toEqual(['menu.opens[0].page']);
    expect(pathsOf(spoilt((m) => (m.menu.pages[0].mode = 'eco')))).toEqual(['menu.pages[0].mode']);
  });

  it('names entries that nothing takes, and a way of storing that does not fit', () => {
    expect(problemsOf(spoilt((m) => m.menu.pages[0].items.push({ exit: true, title: 'Exit' })))).toEqual([
      expect.objectContaining({ code: 'noPick' }),
    ]);
    expect(pathsOf(spoilt((m) => (m.menu.store = { on: 'gesture' })))).toEqual(['menu.store.by']);
    expect(pathsOf(spoilt((m) => (m.menu.store = { on: 'endOfEdit' })))).toEqual(['menu.store.on']);
  });

  it('wants a menu or instructions', () => {
    expect(problemsOf(spoilt((m) => (m.menu = null)))).toEqual([expect.objectContaining({ code: 'noChannel' })]);
  });
});
