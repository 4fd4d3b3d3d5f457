import { describe, expect, it } from 'vitest';
import { fourKey } from '../../testing/samples.js';
import type { KeyedMap } from '../map/display-map.js';
import { parseDisplayMap } from '../map/parse-display-map.js';
import { displayAtCode, displayAtRest, shownValue } from './display-state.js';
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

describe('a tap that waits whether another comes', () => {
  it('comes before whatever else is pressed meanwhile', () => {
    const other = after(
      timed,
      [
        ['set', 0, 100],
        ['mid', 200, 1400],
      ],
      1500,
    );
    expect(gestures(other)).toEqual(['tap', 'hold']);
    expect(other.display).toMatchObject({ level: 3, screen: { kind: 'menu' } });
  });
});

describe('a key that repeats while it is held', () => {
  const live: KeyedMap = { ...fourKey, menu: { ...fourKey.menu, repeat: { delayMs: 600, everyMs: 200 } } };
  const { edit } = live.menu;
  const code = live.codes.find(({ access, range }) => access === 'open' && (range.max - range.min) / range.step >= 5)!;

  it('takes two steps at the delay, one every so often after it, and none more when it is let go', () => {
    if (edit.style === 'digits' || edit.up.kind !== 'tap') throw new Error('the sample steps by taps');
    const { key } = edit.up;
    const open = displayAtCode(live, displayAtRest(live, { [code.label]: code.range.min }), code.label, 'value')!;
    const stepsAfter = (heldMs: number): number => {
      const ticks = Array.from({ length: Math.floor(heldMs / 50) }, (_, i) => ({
        kind: 'tick' as const,
        atMs: (i + 1) * 50,
      }));
      const events = [{ kind: 'down' as const, key, atMs: 0 }, ...ticks, { kind: 'up' as const, key, atMs: heldMs }];
      const end = events.reduce((fingers, event) => touched(live, fingers, event), fingersOn(open, 0));
      return (shownValue(end.display, code) - code.range.min) / code.range.step;
    };
    expect([100, 650, 850, 1050].map(stepsAfter)).toEqual([1, 2, 3, 4]);
  });
});
