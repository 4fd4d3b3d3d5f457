import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cheapestByTryingAll } from '../../testing/exhaustive-search.js';
import { code, fourKey, line, threeKey, withCodes, words } from '../../testing/samples.js';
import { demoMap, demoMaps } from '../../testing/demo-maps.js';
import { anyMap, anyTargets } from '../../testing/any-map.js';
import { isKeyed, type KeyedMap } from '../map/display-map.js';
import { valuesInOrder } from '../map/raw-value.js';
import { hold, tap } from '../map/gesture.js';
import { DEFAULT_PACE, planKeys, pressCount, startState, type KeyPlan, type Pace } from './plan-keys.js';
import { displayAtRest, simulateDisplay, type DisplayState } from '../machine/simulate-display.js';

const keysOf = (plan: KeyPlan) =>
  plan.steps.map(({ gesture }) =>
    gesture.kind === 'tap' ? gesture.key : gesture.kind === 'hold' ? `hold ${gesture.keys.join('+')}` : gesture.kind,
  );
const closed = { values: {}, at: null };
const endOf = (map: KeyedMap, plan: KeyPlan, from: DisplayState = displayAtRest(map)) =>
  plan.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), from);
const withMenu = (map: KeyedMap, menu: Partial<KeyedMap['menu']>): KeyedMap => ({
  ...map,
  menu: { ...map.menu, ...menu },
});

describe('a key plan', () => {
  it('opens, changes the shorter way round, and leaves', () => {
    const plan = planKeys(fourKey, { L1: 11, L2: 28 }, closed);
    expect(keysOf(plan)).toEqual(['hold set+up', 'up', 'set', 'down', 'down', 'hold set']);
    expect(plan.steps.map((step) => step.stores)).toEqual([
      [],
      [],
      [{ label: 'L1', raw: 11 }],
      [],
      [],
      [{ label: 'L2', raw: 28 }],
    ]);
    expect(plan.steps.reduce((sum, step) => sum + step.ms, 0)).toBe(plan.estimatedMs);
    expect(plan.steps.map((step) => step.purpose)).toEqual(['open', 'change', 'move', 'change', 'change', 'close']);
    expect(plan.steps.map((step) => step.serves)).toEqual(['L1', 'L1', 'L2', 'L2', 'L2', null]);
  });

  it('costs what its pace says', () => {
    const plan = planKeys(fourKey, { L1: 11 }, closed, { tapMs: 100, holdExtraMs: 10, lookMs: 1000 });
    expect(plan.estimatedMs).toBe(2010 + 1000 + 100 + 1510);
    expect(plan.longestGapMs).toBe(1100);
  });

  it('is empty where everything is at its target', () => {
    expect(planKeys(fourKey, { L1: 12 }, closed).steps).toEqual([]);
    expect(planKeys(fourKey, { L1: 11 }, { values: { L1: 11 }, at: null }).steps).toEqual([]);
  });

  it('names a locked code and a value that cannot be set, and still plans the rest', () => {
    const plan = planKeys(fourKey, { L1: 11, L4: 32, L5: 99 }, closed);
    expect(plan.unreachable).toEqual([
      { label: 'L4', why: 'L4 is locked on this display.' },
      { label: 'L5', why: 'L5 cannot be set to 99.' },
    ]);
    expect(endOf(fourKey, plan).stored['L1']).toBe(11);
  });

  it('says of a target that the display does not have that it has none, and plans the rest', () => {
    const plan = planKeys(fourKey, { L1: 11, X9: 3 }, closed);
    expect(plan.unreachable).toEqual([{ label: 'X9', why: 'There is no code X9 on this display.' }]);
    expect(endOf(fourKey, plan).stored['L1']).toBe(11);
    expect(planKeys(fourKey, { X9: 3 }, closed).unreachable.map(({ label }) => label)).toEqual(['X9']);
  });

  it('mends what stands on the glass and is not stored yet, with a target or without', () => {
    const at = { values: { L2: 25 }, at: 'L2', shown: 26 };
    const from = startState(fourKey, at);
    expect(endOf(fourKey, planKeys(fourKey, { L2: 25 }, at), from).stored['L2']).toBe(25);
    expect(endOf(fourKey, planKeys(fourKey, { L1: 11 }, at), from).stored).toMatchObject({ L1: 11, L2: 25 });
    expect(endOf(fourKey, planKeys(fourKey, { L2: 26 }, at), from).stored['L2']).toBe(26);
    const byGesture = withMenu(fourKey, { store: { on: 'gesture', by: hold(900, 'set') } });
    const seen = startState(byGesture, at);
    expect(endOf(byGesture, planKeys(byGesture, { L2: 26 }, at), seen).stored['L2']).toBe(26);
    expect(endOf(byGesture, planKeys(byGesture, {}, at), seen)).toMatchObject({
      unstored: {},
      screen: { kind: 'riding' },
    });
  });

  it('and that on every display that ships, whatever way it stores', () => {
    for (const map of demoMaps().filter(isKeyed)) {
      const listed = map.menu.pages.flatMap(({ items, neverEnter }) =>
        neverEnter === undefined ? items.flatMap((item) => ('code' in item ? [item.code] : [])) : [],
      );
      for (const { label, factory, access, action, shownIf, ...rest } of map.codes) {
        if (access !== 'open' || action !== undefined || shownIf || !listed.includes(label)) continue;
        const shown = valuesInOrder({ label, factory, access, ...rest }).find((raw) => raw !== factory);
        if (shown === undefined) continue;
        const at = { values: {}, at: label, shown };
        for (const raw of [shown, factory]) {
          const plan = planKeys(map, { [label]: raw }, at);
          expect([map.id, label, plan.unreachable]).toEqual([map.id, label, []]);
          expect([map.id, label, endOf(map, plan, startState(map, at)).stored[label]]).toEqual([map.id, label, raw]);
        }
      }
    }
  });

  it('goes on from the code on the glass', () => {
    const plan = planKeys(fourKey, { L2: 28, L1: 11 }, { values: { L2: 29 }, at: 'L2' });
    expect(keysOf(plan)).toEqual(['down', 'set', 'set', 'set', 'set', 'up', 'hold set']);
  });

  it('goes back by the previous key where the menu would leave, and leaves without a needless press', () => {
    const plan = planKeys(withMenu(threeKey, { store: { on: 'move' } }), { L1: 11, L3: 32 }, { values: {}, at: 'L3' });
    expect(keysOf(plan)).toEqual(['mid', 'down', 'mid', 'down', 'down', 'mid', 'down', 'hold mid']);
  });

  it('only leaves where the menu is open and nothing is left to do', () => {
    expect(keysOf(planKeys(fourKey, {}, { values: {}, at: 'L2' }))).toEqual(['hold set']);
  });

  it('opens where the menu closed by itself, where a display does that', () => {
    const map = withMenu(fourKey, { idle: { ...fourKey.menu.idle, reopensAt: 'same' } });
    expect(keysOf(planKeys(map, { L5: 14 }, { values: {}, at: null, closedAt: 'L4' }))).toEqual([
      'hold set+up',
      'set',
      'down',
      'hold set',
    ]);
  });

  it('powers up first where the display is dark', () => {
    expect(keysOf(planKeys(fourKey, { L1: 11 }, { values: {}, at: null, off: true })).slice(0, 2)).toEqual([
      'hold power',
      'hold set+up',
    ]);
  });

  it('waits for the menu to close where nothing else leaves it', () => {
    const map = withMenu(fourKey, { close: null, store: { on: 'change' } });
    expect(planKeys(map, { L1: 11 }, closed).steps.at(-1)).toMatchObject({
      gesture: { kind: 'wait', ms: 8000 },
      purpose: 'wait',
      after: { kind: 'riding' },
    });
  });

  it('takes units first where they convert others, and then keys what they moved', () => {
    const units = { ...fourKey.codes[0]!, influences: [{ kind: 'converts', code: 'L2' } as const] };
    const map = withCodes(fourKey, [fourKey.codes[1]!, units, ...fourKey.codes.slice(2)], { values: 'stop' });
    const plan = planKeys(map, { L1: 11, L2: 25 }, { values: { L2: 20 }, at: null });
    expect(endOf(map, plan, displayAtRest(map, { L2: 20 })).stored).toMatchObject({ L1: 11, L2: 25 });
    expect(plan.steps.findIndex((step) => step.stores.some(({ label }) => label === 'L1'))).toBeLessThan(
      plan.steps.findIndex((step) => step.after.kind === 'menu' && step.after.label === 'L2' && step.after.raw === 25),
    );
  });

  it('brings a hidden code on the glass by another, and puts that one back', () => {
    const map = withCodes(fourKey, [
      code('A', 'unknown', {}),
      code('B', 'unknown', { shownIf: { code: 'A', in: [6] } }),
    ]);
    const plan = planKeys(map, { B: 4 }, closed);
    expect(endOf(map, plan).stored).toEqual({ A: 5, B: 4 });
  });

  it('says so where one target keeps another from being set', () => {
    const map = withCodes(fourKey, [
      code('A', 'unknown', { influences: [{ kind: 'limits', code: 'B', as: 'most' }] }),
      code('B', 'unknown', {}),
      code('C', 'unknown', {}),
    ]);
    const plan = planKeys(map, { A: 3, B: 7, C: 6 }, closed);
    expect(plan.unreachable).toEqual([{ label: 'B', why: 'B cannot be set to 7 while A is at 3.' }]);
    expect(endOf(map, plan).stored).toMatchObject({ A: 3, C: 6 });
  });

  it('holds a key that repeats, where that is quicker and harmless', () => {
    const map = withMenu(fourKey, { repeat: { delayMs: 600, everyMs: 200 } });
    expect(keysOf(planKeys(map, { L5: 8 }, closed))).toContain('hold up');
    const dangerous = { ...map, dangers: [{ gesture: hold(1500, 'up'), caution: 'starts the motor' }] };
    expect(keysOf(planKeys(dangerous, { L5: 8 }, closed)).filter((key) => key === 'hold up')).toEqual([]);
  });

  it('never holds a key on an item that a hold erases', () => {
    const codes = [
      code('O', 'odometer', {
        range: { min: 0, max: 90, step: 1 },
        factory: 10,
        holdErases: { gesture: hold(3000, 'down'), says: 'clears it' },
      }),
    ];
    const map = withCodes(fourKey, codes, { repeat: { delayMs: 600, everyMs: 200 } });
    const plan = planKeys(map, { O: 50 }, closed);
    expect(keysOf(plan)).toEqual(['hold set+up', ...Array.from({ length: 40 }, () => 'up'), 'hold set']);
  });

  it('runs an action where it is the target itself, and never else', () => {
    const yesNo = { range: { min: 0, max: 1, step: 1 }, factory: 0, encoding: words([0, 'no'], [1, 'yes']) };
    const map = withCodes(fourKey, [
      code('A', 'unknown', {}),
      code('T', 'tripReset', { ...yesNo, action: 'resetTrip' }),
      code('R', 'restoreDefaults', { ...yesNo, action: 'restoreDefaults' }),
      code('B', 'unknown', {}),
    ]);
    const from = displayAtRest(map, { A: 9, B: 2 });
    const trip = planKeys(map, { T: 1, A: 8 }, from);
    expect(endOf(map, trip, from)).toMatchObject({ ran: ['T'], stored: { A: 8, B: 2 } });
    expect(endOf(map, planKeys(map, { A: 8 }, from), from).ran).toEqual([]);
    const restored = planKeys(map, { R: 1, A: 7 }, from);
    expect(endOf(map, restored, from)).toMatchObject({
      ran: ['R'],
      stored: { A: 7, B: 5 },
      screen: { kind: 'riding' },
    });
    expect(restored.steps.filter((step) => step.purpose === 'open')).toHaveLength(1);
  });

  it('begins in any state: asking for its PIN, in the middle of a message, or in an edit', () => {
    const pin = { factory: '13', up: tap('up'), down: null, walk: tap('set'), enter: null, wrong: 'again' } as const;
    const asking = withMenu(fourKey, { pin });
    const at = [hold(2000, 'set', 'up'), tap('up'), tap('up')].reduce<DisplayState>(
      (state, gesture) => simulateDisplay(asking, state, gesture),
      displayAtRest(asking),
    );
    expect(endOf(asking, planKeys(asking, { L1: 11 }, at), at)).toMatchObject({
      stored: { L1: 11 },
      screen: { kind: 'riding' },
    });
    const saving = withMenu(threeKey, { store: { on: 'endOfEdit', message: { text: 'SAVE', ms: 900 } } });
    const message = [hold(2500, 'up', 'down'), tap('mid'), tap('down'), tap('mid')].reduce<DisplayState>(
      (state, gesture) => simulateDisplay(saving, state, gesture),
      displayAtRest(saving),
    );
    expect(message.screen.kind).toBe('message');
    expect(endOf(saving, planKeys(saving, { L1: 12, L2: 29 }, message), message).stored).toMatchObject({
      L1: 12,
      L2: 29,
    });
    const editing = [hold(2500, 'up', 'down'), tap('mid')].reduce<DisplayState>(
      (state, gesture) => simulateDisplay(threeKey, state, gesture),
      displayAtRest(threeKey),
    );
    expect(keysOf(planKeys(threeKey, { L1: 11 }, editing))).toEqual(['down', 'mid', 'hold mid']);
  });

  it('is not made at a pace that the menu does not wait for', () => {
    const slow: Pace = { tapMs: 4000, holdExtraMs: 250, lookMs: 4000 };
    const plan = planKeys(fourKey, { L1: 11 }, closed, slow);
    expect(plan.steps).toEqual([]);
    expect(plan.unreachable[0]?.why).toContain('8.0 s pass between two presses');
  });

  it('warns before a press that a slip turns into one that starts the motor', () => {
    const map = { ...fourKey, dangers: [{ gesture: hold(1500, 'up'), caution: 'Long + starts the motor.' }] };
    expect(planKeys(map, { L1: 11 }, closed).steps[0]).toMatchObject({
      purpose: 'open',
      caution: 'Long + starts the motor.',
    });
  });

  it('of a unit set by instruction names no key', () => {
    const map = {
      ...fourKey,
      menu: null,
      instructions: { via: 'app', connect: ['a'], choose: 'b', write: ['c'], reconnect: ['d'], profiles: [] },
    };
    expect(planKeys(map, { L1: 11 }, closed)).toMatchObject({ steps: [], unreachable: [{ label: 'L1' }] });
  });
});

/** The map with values left out of the question: small enough to try everything. */
const cheap: Pace = { tapMs: 300, holdExtraMs: 200, lookMs: 500 };

describe('no cheaper sequence exists in the simulator', () => {
  it('for a code on another page, behind an entry, a turn or a new opening', () => {
    const codes = ['A', 'B', 'C', 'D'].map((label) =>
      code(label, 'unknown', { range: { min: 1, max: 3, step: 1 }, factory: 1, encoding: line('') }),
    );
    const pages = [
      { id: 'one', title: 'One', items: [{ code: 'A' }, { page: 'two', title: 'More' }, { code: 'B' }] },
      {
        id: 'two',
        title: 'Two',
        items: [{ back: 'one', title: 'Back' }, { code: 'C' }, { code: 'D' }, { exit: true, title: 'Exit' }],
      },
    ] as const;
    for (const previous of [null, tap('down')]) {
      for (const turns of [[], [{ gesture: hold(500, 'set', 'down'), from: 'two', to: 'one' }]]) {
        const map: KeyedMap = {
          ...threeKey,
          codes,
          keys: fourKey.keys,
          menu: {
            ...threeKey.menu,
            pages,
            turns,
            previous,
            next: tap('up'),
            pick: tap('set'),
            close: null,
            opens: [{ gesture: hold(900, 'set', 'up'), from: 'riding', page: 'one' }],
            edit: { style: 'focus', select: tap('set'), up: tap('up'), down: tap('down') },
          },
        };
        const targets = { A: 2, B: 3, C: 2, D: 3 };
        const plan = planKeys(map, targets, closed, cheap);
        expect(plan.estimatedMs).toBeCloseTo(cheapestByTryingAll(map, displayAtRest(map), targets, cheap) ?? -1, 6);
      }
    }
  });

  it('for codes that hide, bound and reset one another', () => {
    const three = (label: string, over: object) =>
      code(label, 'unknown', { range: { min: 1, max: 3, step: 1 }, factory: 2, encoding: line(''), ...over });
    const cases = [
      [three('A', {}), three('B', { shownIf: { code: 'C', in: [3] } }), three('C', {})],
      [three('B', {}), three('A', { influences: [{ kind: 'limits', code: 'B', as: 'most' }] }), three('C', {})],
      [three('B', {}), three('A', { influences: [{ kind: 'resets', code: 'B' }] }), three('C', {})],
    ];
    for (const codes of cases) {
      for (const targets of [
        { A: 3, B: 1 },
        { B: 3, A: 3 },
        { B: 1, C: 1 },
        { A: 1, B: 1, C: 3 },
      ]) {
        const map = withCodes(fourKey, codes);
        const plan = planKeys(map, targets, closed, cheap);
        const from = displayAtRest(map);
        expect(plan.unreachable).toEqual([]);
        expect(plan.estimatedMs).toBeCloseTo(
          cheapestByTryingAll(map, from, { ...from.stored, ...targets }, cheap) ?? -1,
          6,
        );
      }
    }
  });
});

describe('codes that influence one another', () => {
  it('and hang together in too many ways are planned in turn, and it is said that a shorter way may exist', () => {
    const limpet = demoMap('limpet-modes') as KeyedMap;
    const targets = Object.fromEntries(
      limpet.codes
        .filter((c) => c.function !== 'units')
        .map((c) => [
          c.label,
          valuesInOrder(c)[(valuesInOrder(c).indexOf(c.factory) + 1) % valuesInOrder(c).length] ?? c.factory,
        ]),
    );
    const plan = planKeys(limpet, targets, closed);
    expect(plan).toMatchObject({ unreachable: [], isShortest: false });
    expect(endOf(limpet, plan)).toMatchObject({ stored: targets, screen: { kind: 'riding' } });
  });
});

describe('every plan, run on the simulator with a hand that is never quite on time', () => {
  const jitter = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 16, maxLength: 16 });

  it('stores every reachable target, changes nothing else, starts no motor, and is out of the menu at the end', () => {
    fc.assert(
      fc.property(anyTargets(anyMap({ codes: 8, values: 9 })), jitter, ({ map, targets }, hand) => {
        const plan = planKeys(map, targets, closed);
        let state = displayAtRest(map);
        plan.steps.forEach(({ gesture }, i) => {
          const off = hand[i % hand.length]!;
          if (gesture.kind === 'wait') {
            state = simulateDisplay(map, state, { ...gesture, ms: gesture.ms + off * 200 });
            return;
          }
          const gapMs = (DEFAULT_PACE.tapMs + DEFAULT_PACE.lookMs) * (0.6 + 0.6 * off);
          state = simulateDisplay(map, state, { kind: 'wait', ms: gapMs });
          const late =
            gesture.kind === 'hold'
              ? { ...gesture, ms: gesture.ms + (isRepeat(map, gesture.keys) ? (off - 0.5) * 180 : off * 200) }
              : gesture;
          state = simulateDisplay(map, state, late);
        });
        const barred = new Set(plan.unreachable.map((u) => u.label));
        for (const c of map.codes)
          expect(state.stored[c.label]).toBe(barred.has(c.label) ? c.factory : (targets[c.label] ?? c.factory));
        expect(state.screen.kind).toBe('riding');
        expect(state.motorStarted).toBe(false);
        const erasable = new Set(map.codes.filter((c) => c.holdErases !== undefined).map((c) => c.label));
        expect(
          plan.steps.filter(
            ({ before, gesture }) =>
              before.kind === 'menu' &&
              erasable.has(before.label) &&
              gesture.kind === 'hold' &&
              isRepeat(map, gesture.keys),
          ),
        ).toEqual([]);
      }),
      { numRuns: 150, seed: 7 },
    );
  });

  it('names each code at the step that stores its target', () => {
    fc.assert(
      fc.property(anyTargets(anyMap({ codes: 6, values: 6 })), ({ map, targets }) => {
        const plan = planKeys(map, targets, closed);
        const stored = new Set(plan.steps.flatMap((step) => step.stores.map(({ label }) => label)));
        const barred = new Set(plan.unreachable.map((u) => u.label));
        for (const c of map.codes)
          expect(stored.has(c.label)).toBe(
            targets[c.label] !== undefined && targets[c.label] !== c.factory && !barred.has(c.label),
          );
      }),
      { numRuns: 80, seed: 11 },
    );
  });
});

const isRepeat = (map: KeyedMap, keys: readonly string[]): boolean => {
  const { edit, close } = map.menu;
  return (
    keys.length === 1 &&
    edit.style !== 'digits' &&
    [edit.up, edit.down].some((by) => by.kind === 'tap' && by.key === keys[0]) &&
    !(close?.kind === 'hold' && close.keys.length === 1 && close.keys[0] === keys[0])
  );
};

describe('a large map', () => {
  const many = Array.from({ length: 60 }, (_, i) =>
    code(`C${i}`, 'unknown', {
      range: { min: 0, max: 20, step: 1 },
      factory: 10,
      encoding: i % 5 === 0 ? words([8, 'a'], [10, 'b'], [14, 'c']) : line(''),
    }),
  );
  const targets = Object.fromEntries(
    many
      .filter((_, i) => i % 12 < 5)
      .map((c, i) => [c.label, i % 5 === 0 ? 10 : 10 + ((i % 9) - 4 || 5)])
      .filter(([label, raw]) => many.find((c) => c.label === label)!.encoding.kind === 'line' && raw !== 10),
  );

  it('is planned exactly as a lower bound says: every change, every step of the way once, in and out', () => {
    const map = withCodes(fourKey, many, { values: 'stop' });
    const plan = planKeys(map, targets, closed);
    const labels = Object.keys(targets);
    const changes = labels.reduce((sum, label) => sum + Math.abs((targets[label] as number) - 10), 0);
    const furthest = Math.max(...labels.map((label) => many.findIndex((c) => c.label === label)));
    const { tapMs, lookMs, holdExtraMs } = DEFAULT_PACE;
    expect(plan.estimatedMs).toBe(
      2000 + holdExtraMs + lookMs + furthest * (tapMs + lookMs) + changes * tapMs + 1500 + holdExtraMs,
    );
    expect(pressCount(plan)).toBe(2 + furthest + changes);
  });
});
