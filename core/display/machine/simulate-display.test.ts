import { describe, expect, it } from 'vitest';
import { code, fourKey, line, threeKey, withCodes, words } from '../../testing/samples.js';
import type { DisplayMap, KeyedMap } from '../map/display-map.js';
import { hold, tap } from '../map/gesture.js';
import {
  displayAtRest,
  glassOf,
  simulateDisplay,
  valuesInOrder,
  type DisplayInput,
  type DisplayState,
} from './simulate-display.js';

const run = (map: DisplayMap, inputs: readonly DisplayInput[], from: DisplayState = displayAtRest(map)): DisplayState =>
  inputs.reduce((state, input) => simulateDisplay(map, state, input), from);
const wait = (ms: number): DisplayInput => ({ kind: 'wait', ms });
const times = (n: number, input: DisplayInput): DisplayInput[] => Array.from({ length: n }, () => input);
const shown = (map: DisplayMap, inputs: readonly DisplayInput[], from?: DisplayState) =>
  glassOf(map, run(map, inputs, from));
const withMenu = (map: KeyedMap, menu: Partial<KeyedMap['menu']>): KeyedMap => ({
  ...map,
  menu: { ...map.menu, ...menu },
});

describe('a live display', () => {
  const open = hold(2000, 'set', 'up');
  const close = hold(1500, 'set');

  it('opens at its first code by its own gesture alone', () => {
    expect(shown(fourKey, [tap('set')])).toMatchObject({ kind: 'riding' });
    expect(shown(fourKey, [hold(1000, 'set', 'up')])).toMatchObject({ kind: 'riding' });
    expect(shown(fourKey, [open])).toMatchObject({
      kind: 'menu',
      label: 'L1',
      shows: 'L1',
      raw: 12,
      text: '12',
      focus: 'name',
    });
  });

  it('stores a change when one moves on, not before', () => {
    const changed = run(fourKey, [open, tap('down')]);
    expect(glassOf(fourKey, changed)).toMatchObject({ raw: 11 });
    expect(changed.stored['L1']).toBe(12);
    expect(run(fourKey, [tap('set')], changed).stored['L1']).toBe(11);
    expect(run(fourKey, [close], changed).stored['L1']).toBe(11);
  });

  it('drops a change not stored when the menu closes by itself', () => {
    const state = run(fourKey, [open, tap('down'), wait(5000), wait(3000)]);
    expect(state.screen.kind).toBe('riding');
    expect(state.stored['L1']).toBe(12);
  });

  it('stays open while presses come in time', () => {
    expect(shown(fourKey, [open, wait(7900), tap('set'), wait(7900)])).toMatchObject({ label: 'L2' });
  });

  it('wraps values and codes', () => {
    expect(shown(fourKey, [open, tap('up')])).toMatchObject({ raw: 11 });
    expect(shown(fourKey, [open, ...times(5, tap('set'))])).toMatchObject({ label: 'L1' });
  });

  it('does not move a locked code', () => {
    expect(run(fourKey, [open, ...times(3, tap('set')), tap('up'), tap('set')]).stored['L4']).toBe(31);
  });

  it('obeys a code that acts after a restart only then', () => {
    const keyed = run(fourKey, [open, tap('set'), tap('set'), tap('down'), tap('down'), close]);
    expect(keyed.stored['L3']).toBe(31);
    expect(keyed.inForce['L3']).toBe(33);
    expect(run(fourKey, [{ kind: 'powerCycle' }], keyed).inForce['L3']).toBe(31);
  });

  it('starts the motor by the gesture that does, while riding and not in the menu', () => {
    expect(run(fourKey, [hold(1500, 'down')]).motorStarted).toBe(true);
    expect(run(fourKey, [open, hold(1500, 'down')]).motorStarted).toBe(false);
  });

  it('steps again and again while a key is held, where it does that', () => {
    const map = withMenu(fourKey, { repeat: { delayMs: 600, everyMs: 200 } });
    expect(shown(map, [open, tap('set'), hold(300, 'down')])).toMatchObject({ raw: 29 });
    expect(shown(map, [open, tap('set'), hold(600, 'down')])).toMatchObject({ raw: 28 });
    expect(shown(map, [open, tap('set'), hold(1000, 'down')])).toMatchObject({ raw: 26 });
  });

  it('opens again where it closed by itself, where it does that', () => {
    const map = withMenu(fourKey, { idle: { ...fourKey.menu.idle, reopensAt: 'same' } });
    expect(shown(map, [open, tap('set'), wait(8000), open])).toMatchObject({ label: 'L2' });
    expect(shown(map, [open, tap('set'), close, open])).toMatchObject({ label: 'L1' });
  });

  it('stores by a gesture of its own, where it does that, and forgets what one moves on from', () => {
    const map = withMenu(fourKey, { store: { on: 'gesture', by: hold(1000, 'up') } });
    expect(run(map, [open, tap('down'), hold(1000, 'up')]).stored['L1']).toBe(11);
    expect(run(map, [open, tap('down'), tap('set')]).stored['L1']).toBe(12);
  });

  it('stores all at once on leaving, where it does that', () => {
    const map = withMenu(fourKey, { store: { on: 'leave' } });
    const changed = run(map, [open, tap('down'), tap('set'), tap('down')]);
    expect(changed.stored).toMatchObject({ L1: 12, L2: 30 });
    expect(run(map, [close], changed).stored).toMatchObject({ L1: 11, L2: 29 });
    expect(run(map, [wait(8000)], changed).stored).toMatchObject({ L1: 12, L2: 30 });
  });
});

describe('a display that moves a focus', () => {
  const open = hold(2500, 'up', 'down');

  it('moves between codes while the name has the focus, and changes while the value has it', () => {
    const state = run(threeKey, [open, tap('up'), tap('mid'), tap('down'), tap('mid')]);
    expect(state.stored['L2']).toBe(29);
    expect(shown(threeKey, [tap('up')], state)).toMatchObject({ label: 'L3' });
  });

  it('stops values at their ends', () => {
    expect(run(threeKey, [open, tap('mid'), tap('up'), tap('up'), tap('mid')]).stored['L1']).toBe(12);
  });

  it('keeps a change when it closes by itself', () => {
    expect(run(threeKey, [open, tap('mid'), tap('down'), wait(12000)]).stored['L1']).toBe(11);
  });

  it('leaves after the last code, and stays on the first going back', () => {
    expect(run(threeKey, [open, ...times(5, tap('up'))]).screen.kind).toBe('riding');
    expect(shown(threeKey, [open, tap('down')])).toMatchObject({ label: 'L1' });
  });

  it('shows a message while it stores, and hears no key meanwhile', () => {
    const map = withMenu(threeKey, { store: { on: 'endOfEdit', message: { text: 'SAVE', ms: 900 } } });
    const saving = run(map, [open, tap('mid'), tap('down'), tap('mid')]);
    expect(glassOf(map, saving)).toEqual({ kind: 'message', text: 'SAVE' });
    expect(shown(map, [tap('up'), wait(899)], saving)).toMatchObject({ kind: 'message' });
    expect(shown(map, [tap('up'), wait(900)], saving)).toMatchObject({ kind: 'menu', label: 'L1', raw: 11 });
  });
});

describe('a display that goes digit by digit', () => {
  const map = withMenu(fourKey, {
    edit: { style: 'digits', begin: hold(800, 'up'), count: tap('up'), walk: tap('down') },
    store: { on: 'endOfEdit' },
  });
  const open = hold(2000, 'set', 'up');

  it('counts a digit up 0-9-0, walks on, and stores after the last', () => {
    const second = [open, tap('set'), hold(800, 'up')];
    expect(shown(map, second)).toMatchObject({ text: '30', digit: 0, focus: 'value' });
    expect(shown(map, [...second, ...times(9, tap('up')), tap('down'), ...times(5, tap('up'))])).toMatchObject({
      text: '25',
      digit: 1,
    });
    expect(
      run(map, [...second, ...times(9, tap('up')), tap('down'), ...times(5, tap('up')), tap('down')]).stored['L2'],
    ).toBe(25);
  });

  it('keeps what it had where the digits make no value of the code', () => {
    const typed = [open, tap('set'), hold(800, 'up'), ...times(4, tap('up'))];
    expect(shown(map, typed)).toMatchObject({ text: '70' });
    expect(run(map, [...typed, tap('down'), tap('down')]).stored['L2']).toBe(30);
  });
});

describe('a PIN page', () => {
  const pin = { factory: '0204', up: tap('up'), down: null, walk: tap('set'), enter: null, wrong: 'again' } as const;
  const open = hold(2000, 'set', 'up');
  const right = [tap('set'), tap('up'), tap('up'), tap('set'), tap('set'), ...times(4, tap('up')), tap('set')];

  it('lets in by the right PIN', () => {
    const map = withMenu(fourKey, { pin });
    expect(shown(map, [open])).toEqual({ kind: 'pin', digits: '0000', at: 0 });
    expect(shown(map, [open, ...right])).toMatchObject({ label: 'L1' });
  });

  it.each([
    ['again', { kind: 'pin', digits: '0000', at: 0 }],
    ['leave', { kind: 'riding' }],
    ['limited', { kind: 'menu', label: 'L1' }],
  ] as const)('at a wrong one does as its map says: %s', (wrong, glass) => {
    const map = withMenu(fourKey, { pin: { ...pin, wrong } });
    expect(shown(map, [open, ...times(4, tap('set'))])).toMatchObject(glass);
  });

  it('let in by a wrong one moves no code that needs it', () => {
    const codes = [code('A', 'walk', { access: 'pin' }), code('B', 'walk', {})];
    const map = withCodes(fourKey, codes, { pin: { ...pin, wrong: 'limited' } });
    const inside = run(map, [open, ...times(4, tap('set'))]);
    expect(run(map, [tap('up'), tap('set'), tap('up'), tap('set')], inside).stored).toEqual({ A: 5, B: 6 });
    expect(run(map, [open, ...right, tap('up'), tap('set')]).stored).toMatchObject({ A: 6 });
  });

  it('asks for the PIN that the code for it holds', () => {
    const codes = [code('P', 'accessPin', { range: { min: 0, max: 9999, step: 1 }, factory: 204 })];
    const map = withCodes(fourKey, codes, { pin });
    const changed = displayAtRest(map, { P: 0 });
    expect(shown(map, [open, ...times(4, tap('set'))], changed)).toMatchObject({ label: 'P' });
  });
});

describe('pages', () => {
  const codes = ['A', 'B', 'C'].map((label) => code(label, 'unknown', {}));
  const open = hold(2000, 'set', 'up');
  const pages = [
    { id: 'one', title: 'One', items: [{ code: 'A' }, { page: 'two', title: 'More' }, { exit: true, title: 'Exit' }] },
    { id: 'two', title: 'Two', items: [{ code: 'B' }, { code: 'C' }, { back: 'one', title: 'Back' }] },
  ] as const;
  const map: KeyedMap = {
    ...fourKey,
    codes,
    menu: {
      ...fourKey.menu,
      pages,
      pick: tap('up'),
      opens: [{ gesture: open, from: 'riding', page: 'one' }],
      turns: [{ gesture: hold(1000, 'set', 'down'), from: 'one', to: 'two' }],
    },
  };

  it('are passed to by an entry, by a gesture, and left by Back and Exit', () => {
    expect(shown(map, [open, tap('set')])).toEqual({ kind: 'entry', shows: 'More', page: 'One' });
    expect(shown(map, [open, tap('set'), tap('up')])).toMatchObject({ label: 'B', page: 'Two' });
    expect(shown(map, [open, hold(1000, 'set', 'down')])).toMatchObject({ label: 'B' });
    expect(shown(map, [open, hold(1000, 'set', 'down'), tap('set'), tap('set'), tap('up')])).toMatchObject({
      label: 'A',
    });
    expect(shown(map, [open, tap('set'), tap('set'), tap('up')])).toMatchObject({ kind: 'riding' });
  });

  it('may belong to ride modes, with labels that look the same', () => {
    const twoModes: KeyedMap = {
      ...map,
      codes: [
        code('eco P1', 'modeSpeedPercent', { shownAs: 'P1' }),
        code('fast P1', 'modeSpeedPercent', { shownAs: 'P1', factory: 9 }),
      ],
      ride: {
        levels: null,
        modes: {
          gesture: tap('down'),
          list: [
            { id: 'eco', title: 'eco' },
            { id: 'fast', title: 'fast' },
          ],
          wakesIn: 'eco',
        },
      },
      menu: {
        ...map.menu,
        turns: [],
        opens: [{ gesture: open, from: 'riding', page: 'ofMode' }],
        pages: [
          { id: 'eco', title: 'Eco', mode: 'eco', items: [{ code: 'eco P1' }] },
          { id: 'fast', title: 'Fast', mode: 'fast', items: [{ code: 'fast P1' }] },
        ],
      },
    };
    expect(shown(twoModes, [open])).toMatchObject({ shows: 'P1', label: 'eco P1', raw: 5 });
    expect(shown(twoModes, [tap('down'), open])).toMatchObject({ shows: 'P1', label: 'fast P1', raw: 9 });
  });
});

describe('what one code does to others', () => {
  const open = hold(2000, 'set', 'up');
  const close = hold(1500, 'set');

  it('converts them with the unit', () => {
    const units = { ...fourKey.codes[0]!, influences: [{ kind: 'converts', code: 'L2' } as const] };
    const map = withCodes(fourKey, [units, ...fourKey.codes.slice(1)]);
    const mph = run(map, [open, tap('down'), close]);
    expect(mph.stored['L2']).toBe(32);
    expect(run(map, [open, tap('up'), close], mph).stored['L2']).toBe(20);
  });

  it('bounds them, and brings them inside', () => {
    const map = withCodes(fourKey, [
      code('A', 'unknown', { influences: [{ kind: 'limits', code: 'B', as: 'most' }] }),
      code('B', 'unknown', {}),
    ]);
    expect(run(map, [open, tap('down'), tap('down'), close]).stored).toEqual({ A: 3, B: 3 });
    expect(shown(map, [open, tap('set'), tap('up')])).toMatchObject({ raw: 0 });
  });

  it('brings them back to what the maker set', () => {
    const map = withCodes(fourKey, [
      code('A', 'unknown', { influences: [{ kind: 'resets', code: 'B' }] }),
      code('B', 'unknown', {}),
    ]);
    expect(run(map, [open, tap('up'), close], displayAtRest(map, { B: 9 })).stored).toEqual({ A: 6, B: 5 });
  });

  it('hides and shows them', () => {
    const map = withCodes(fourKey, [
      code('A', 'unknown', {}),
      code('B', 'unknown', { shownIf: { code: 'A', in: [6] } }),
      code('C', 'unknown', {}),
    ]);
    expect(shown(map, [open, tap('set')])).toMatchObject({ label: 'C' });
    expect(shown(map, [open, tap('up'), tap('set')])).toMatchObject({ label: 'B' });
  });

  it('of an action restores everything the maker set, the odometer left alone', () => {
    const map = withCodes(fourKey, [
      code('A', 'unknown', {}),
      code('O', 'odometer', { access: 'locked' }),
      code('R', 'restoreDefaults', {
        action: 'restoreDefaults',
        range: { min: 0, max: 1, step: 1 },
        factory: 0,
        encoding: words([0, 'no'], [1, 'yes']),
      }),
    ]);
    const state = run(map, [open, tap('set'), tap('set'), tap('up'), close], displayAtRest(map, { A: 9, O: 7 }));
    expect(state.stored).toEqual({ A: 5, O: 7, R: 0 });
  });

  it('erases an entry by a hold on it, and on no other', () => {
    const erasing = code('O', 'odometer', {
      access: 'locked',
      holdErases: { gesture: hold(3000, 'down'), says: 'clears the odometer' },
    });
    const map = withCodes(fourKey, [code('A', 'unknown', {}), erasing]);
    expect(run(map, [open, hold(3000, 'down')]).stored).toMatchObject({ O: 5 });
    expect(run(map, [open, tap('set'), hold(3000, 'down')]).stored).toMatchObject({ O: 0 });
  });
});

describe('one code with two functions', () => {
  const levels = code('LV', 'assistLevels', {
    range: { min: 30, max: 51, step: 1 },
    factory: 31,
    encoding: {
      kind: 'pair',
      first: {
        function: 'assistLevels',
        entries: [3, 5].map((raw) => ({ raw, value: String(raw), title: `${raw} levels` })),
      },
      second: {
        function: 'zeroLevel',
        entries: [0, 1].map((raw) => ({ raw, value: raw ? 'on' : 'off', title: raw ? 'level 0' : 'no level 0' })),
      },
    },
  });
  const map = withCodes(fourKey, [levels]);
  const open = hold(2000, 'set', 'up');

  it('moves each by its own key', () => {
    expect(valuesInOrder(levels)).toEqual([30, 31, 50, 51]);
    expect(shown(map, [open, tap('up')])).toMatchObject({ raw: 51 });
    expect(shown(map, [open, tap('down')])).toMatchObject({ raw: 30 });
    expect(shown(map, [open, tap('up'), tap('down'), tap('up')])).toMatchObject({ raw: 30 });
  });
});

describe('power', () => {
  it('comes by its key, shows what it shows, and wakes where it wakes', () => {
    const map: KeyedMap = {
      ...fourKey,
      power: { ...fourKey.power, shows: 'd 21' },
      ride: { levels: { up: tap('up'), down: tap('down'), most: 5, wakesAt: 2 }, modes: null },
    };
    const off = run(map, [hold(2000, 'power')]);
    expect(glassOf(map, off)).toEqual({ kind: 'off' });
    expect(shown(map, [hold(1500, 'power')], off)).toEqual({ kind: 'message', text: 'd 21' });
    expect(shown(map, [hold(1500, 'power'), wait(1500), tap('up')], off)).toMatchObject({ kind: 'riding', level: 3 });
  });

  it('is cut in the menu only where it can be', () => {
    const map = withMenu(fourKey, {});
    const open = hold(2000, 'set', 'up');
    expect(run(map, [open, hold(2000, 'power')]).screen.kind).toBe('menu');
    expect(run({ ...map, power: { ...map.power, offInMenu: true } }, [open, hold(2000, 'power')]).screen.kind).toBe(
      'off',
    );
  });

  it('may open the menu from the dark', () => {
    const map = withMenu(fourKey, { opens: [{ gesture: hold(3000, 'set', 'power'), from: 'off', page: 'main' }] });
    expect(shown(map, [hold(2000, 'power'), hold(3000, 'set', 'power')])).toMatchObject({ label: 'L1' });
  });

  it('forgets what lives in the display alone, and what the pack keeps', () => {
    const map = withCodes(fourKey, [
      code('A', 'walk', { keptIn: 'displayWhileAttached' }),
      code('B', 'clock', { keptIn: 'untilPackOut' }),
      code('C', 'walk', {}),
    ]);
    const keyed = displayAtRest(map, { A: 1, B: 1, C: 1 });
    expect(run(map, [{ kind: 'unplugDisplay' }], keyed).stored).toEqual({ A: 5, B: 1, C: 1 });
    expect(run(map, [{ kind: 'packOut' }], keyed).stored).toEqual({ A: 1, B: 5, C: 1 });
  });
});

it('shows the icons that values in force light', () => {
  const map = { ...fourKey, icons: [{ title: 'mph', proves: 'Units are mph.', litIf: { code: 'L1', in: [12] } }] };
  expect(glassOf(map, displayAtRest(map))).toMatchObject({ icons: ['mph'] });
  expect(glassOf(map, displayAtRest(map, { L1: 11 }))).toMatchObject({ icons: [] });
});

it('steps through a grid of tenths without binary dust, and over what it skips', () => {
  expect(valuesInOrder(fourKey.codes[3]!)).toHaveLength(51);
  expect(valuesInOrder(fourKey.codes[3]!)).toContain(31.3);
  expect(
    valuesInOrder(
      code('A', 'unknown', { range: { min: 0, max: 4, step: 1 }, factory: 0, skips: [2], encoding: line('') }),
    ),
  ).toEqual([0, 1, 3, 4]);
});
