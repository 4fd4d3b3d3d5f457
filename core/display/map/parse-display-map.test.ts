import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoMaps } from '../../testing/demo-maps.js';
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
        m.menu.next = 'set and more';
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

describe('what no map is', () => {
  const nested = (deep: number): unknown => {
    let at: unknown = 1;
    for (let i = 0; i < deep; i++) at = i % 2 === 0 ? [at] : { a: at };
    return at;
  };
  it.each<[string, unknown, string, string]>([
    [
      'a kind that every object has',
      spoilt((m) => (m.codes[0].encoding.kind = 'toString')),
      'codes[0].encoding.kind',
      'shape',
    ],
    [
      'a kind that is where kinds come from',
      spoilt((m) => (m.menu.next.kind = '__proto__')),
      'menu.next.kind',
      'shape',
    ],
    ['a style that every object has', spoilt((m) => (m.menu.edit.style = 'constructor')), 'menu.edit.style', 'shape'],
    ['a label that every object has', spoilt((m) => (m.codes[0].label = 'toString')), 'codes[0].label', 'reserved'],
    [
      'a label that is where objects come from',
      spoilt((m) => (m.codes[0].label = '__proto__')),
      'codes[0].label',
      'reserved',
    ],
    ['20,000 levels', spoilt((m) => (m.codes = nested(20_000))), 'codes', 'tooDeep'],
    ['a million codes', spoilt((m) => (m.codes = Array.from({ length: 1e6 }, () => 1))), 'codes', 'tooMuch'],
    ['one key twice', spoilt((m) => m.keys.push({ ...m.keys[1] })), 'keys[4].id', 'twinKeys'],
    [
      'a key held with itself',
      spoilt((m) => (m.menu.opens[0].gesture.keys = ['set', 'set'])),
      'menu.opens[0].gesture.keys[1]',
      'twiceHeld',
    ],
    ['a step finer than is shown', spoilt((m) => (m.codes[0].range.step = 0.25)), 'codes[0].range.step', 'tooFine'],
    ['a restart that nobody describes', spoilt((m) => (m.restart = [])), 'codes[2].actsAfter', 'noRestart'],
    ['a value finer than is shown', spoilt((m) => (m.codes[0].factory = 11.5)), 'codes[0].factory', 'tooFine'],
  ])('%s is named with its path', (_, data, path, code) => {
    const found = problemsOf(data).find((problem) => problem.code === code);
    expect(found?.path?.startsWith(path)).toBe(true);
    expect(found?.message).toMatch(/^\S.{10,}\.$/s);
  });

  it('a page of which nothing is sure to be shown', () => {
    const map = spoilt((m) => {
      const [first, ...rest] = m.menu.pages[0].items;
      m.codes.find((c: Loose) => c.label === first.code).shownIf = { code: rest[0].code, in: [m.codes[1].factory] };
      m.menu.pages = [
        { ...m.menu.pages[0], items: rest },
        { id: 'other', title: 'Other', items: [first] },
      ];
      m.menu.turns = [{ gesture: { kind: 'hold', keys: ['up'], ms: 3000 }, from: m.menu.pages[0].id, to: 'other' }];
    });
    expect(problemsOf(map)).toContainEqual(
      expect.objectContaining({ code: 'mayBeEmpty', path: 'menu.pages[1].items' }),
    );
  });

  it('an odometer that nobody sets may run as far as it likes, and 200 long ranges are read', () => {
    const far = { min: 0, max: 99_999.9, step: 0.1 };
    const locked = spoilt((m) => Object.assign(m.codes[0], { access: 'locked', range: far, decimals: 1 }));
    expect(problemsOf(locked).map(({ code }) => code)).not.toContain('hugeRange');
    const long = spoilt((m) => {
      m.codes = Array.from({ length: 200 }, (_, i) => ({
        ...m.codes.find((c: Loose) => c.encoding.kind === 'line'),
        label: `N${i}`,
        range: { min: 0, max: 100_000, step: 1 },
        factory: 0,
        skips: [1],
      }));
      m.menu.pages[0].items = m.codes.map(({ label }: Loose) => ({ code: label }));
    });
    expect(problemsOf(long)).toEqual([]);
  });

  it('shipped maps, spoilt anyhow, are read or refused in sentences, and never thrown at', () => {
    const maps = demoMaps();
    const poison = fc.constantFrom<unknown>(
      null,
      -1,
      0.5,
      1e9,
      '',
      'toString',
      '__proto__',
      [],
      {},
      true,
      Number.NaN,
      nested(40),
    );
    /** Puts something else at a place of a document, wherever these numbers lead. */
    const spoil = (value: Loose, way: readonly number[], by: unknown): unknown => {
      const keys = typeof value === 'object' && value !== null ? Object.keys(value) : [];
      const [next, ...rest] = way;
      if (next === undefined || keys.length === 0) return by;
      const key = keys[next % keys.length]!;
      const inner = spoil(value[key], rest, by);
      return Array.isArray(value)
        ? value.map((each, i) => (String(i) === key ? inner : each))
        : { ...value, [key]: inner };
    };
    fc.assert(
      fc.property(fc.nat(), fc.array(fc.nat(), { minLength: 1, maxLength: 7 }), poison, (which, way, by) => {
        const parsed = parseDisplayMap(spoil(maps[which % maps.length], way, by));
        if (parsed.ok) return;
        expect(parsed.problems.length).toBeGreaterThan(0);
        for (const { message } of parsed.problems) expect(message).toMatch(/^\S.*\.$/s);
      }),
      { numRuns: 800, seed: 16 },
    );
  });
});
