import { describe, expect, it } from 'vitest';
import { fourKey } from '../../testing/samples.js';
import type { KeyedMap } from '../map/display-map.js';
import { parseDisplayMap } from '../map/parse-display-map.js';
import { displayAtRest } from './display-state.js';
import { fingersOn, touched, type Fingers } from './fingers.js';

/** Down and up times of one key, in ms. */
type Press = readonly [key: string, downMs: number, upMs: number];

function after(map: KeyedMap, presses: readonly Press[], untilMs: number): Fingers {
  const events = presses.flatMap(([key, down, up]) => [
    { kind: 'down' as const, key, atMs: down },
    { kind: 'up' as const, key, atMs: up },
  ]);
  // A clock that ticks as on the screen, between what the fingers do.
  for (let atMs = 0; atMs <= untilMs; atMs += 50) events.push({ kind: 'tick', atMs } as never);
  const due = events.filter(({ atMs }) => atMs <= untilMs).sort((a, b) => a.atMs - b.atMs);
  return due.reduce((fingers, event) => touched(map, fingers, event), fingersOn(displayAtRest(map), 0));
}

const gestures = (fingers: Fingers) => fingers.taken.map(({ gesture }) => gesture.kind);

/** Set alone raises the level, twice lowers it; a hold of mid to 3 s opens the menu, one from 3 s on switches off. */
const timed: KeyedMap = {
  ...fourKey,
  keys: [...fourKey.keys, { id: 'mid', label: 'M' }],
  power: { ...fourKey.power, off: { kind: 'hold', keys: ['mid'], ms: 3000 } },
  ride: {
    levels: {
      up: { kind: 'tap', key: 'set', aloneMs: 400 },
      down: { kind: 'double', key: 'set' },
      most: 5,
      wakesAt: 2,
    },
    modes: null,
  },
  menu: {
    ...fourKey.menu,
    opens: [
      {
        gesture: { kind: 'hold', keys: ['mid'], ms: 1000, underMs: 3000 },
        from: 'riding',
        page: fourKey.menu.pages[0]!.id,
      },
    ],
  },
  dangers: [],
};

describe('one key tapped once or twice', () => {
  it('is told apart once the display has waited whether another tap comes', () => {
    expect(after(timed, [['set', 0, 100]], 450).display.level).toBe(2);
    expect(after(timed, [['set', 0, 100]], 550).display.level).toBe(3);
    const twice = after(
      timed,
      [
        ['set', 0, 100],
        ['set', 300, 380],
      ],
      1000,
    );
    expect(gestures(twice)).toEqual(['double']);
    expect(twice.display.level).toBe(1);
  });

  it('counts as two single taps where the second comes too late', () => {
    const slow = after(
      timed,
      [
        ['set', 0, 100],
        ['set', 700, 800],
      ],
      1500,
    );
    expect(gestures(slow)).toEqual(['tap', 'tap']);
    expect(slow.display.level).toBe(4);
  });
});

describe('one key held for short or for long', () => {
  it('is decided when it is let go, before the longer time is over', () => {
    expect(after(timed, [['mid', 0, 2000]], 1900).display.screen.kind).toBe('riding');
    expect(after(timed, [['mid', 0, 2000]], 2100).display.screen.kind).toBe('menu');
  });

  it('is the long one from its time on, without being let go', () => {
    expect(after(timed, [['mid', 0, 9000]], 3050).display.screen.kind).toBe('off');
    expect(gestures(after(timed, [['mid', 0, 9000]], 9100))).toEqual(['hold']);
  });

  it('is a map that the checks take, and no longer one where either would do for the other', () => {
    expect(parseDisplayMap(timed)).toMatchObject({ ok: true });
    const open = {
      ...timed,
      menu: { ...timed.menu, opens: [{ ...timed.menu.opens[0]!, gesture: { kind: 'hold', keys: ['mid'], ms: 1000 } }] },
    };
    const parsed = parseDisplayMap(open);
    expect(parsed.ok ? [] : parsed.problems.map(({ code }) => code)).toContain('prefix');
    const overlapping = {
      ...timed,
      menu: {
        ...timed.menu,
        opens: [{ ...timed.menu.opens[0]!, gesture: { kind: 'hold', keys: ['mid'], ms: 1000, underMs: 4000 } }],
      },
    };
    const refused = parseDisplayMap(overlapping);
    expect(refused.ok ? [] : refused.problems.map(({ code }) => code)).toContain('prefix');
  });
});

describe('a key that repeats while it is held', () => {
  const repeating: KeyedMap = {
    ...fourKey,
    menu: { ...fourKey.menu, repeat: { delayMs: 600, everyMs: 200 } },
  };

  it('takes a step at the delay and one every so often, and none more when it is let go', () => {
    const { menu } = repeating;
    const opens = menu.opens.find(({ from }) => from === 'riding')!;
    const gesture = opens.gesture;
    expect(gesture.kind).toBe('hold');
    const keys = gesture.kind === 'hold' ? gesture.keys : [];
    const until = gesture.kind === 'hold' ? gesture.ms + 100 : 0;
    const events = [
      ...keys.map((key) => ({ kind: 'down' as const, key, atMs: 0 })),
      { kind: 'tick' as const, atMs: until },
      ...keys.map((key) => ({ kind: 'up' as const, key, atMs: until + 10 })),
    ];
    const open = events.reduce(
      (fingers, event) => touched(repeating, fingers, event),
      fingersOn(displayAtRest(repeating), 0),
    );
    expect(open.display.screen.kind).toBe('menu');
  });
});
