import { describe, expect, it } from 'vitest';
import { demoMap } from '../../testing/demo-maps.js';
import { inputs, withCodes, fourKey, code, line } from '../../testing/samples.js';
import { compileSetup } from '../../setup/compile/compile-setup.js';
import { NO_FACTS } from '../../setup/inputs/setup-inputs.js';
import type { KeyedMap } from '../map/display-map.js';
import { parseDisplayMap } from '../map/parse-display-map.js';
import { gestureFromWords } from '../map/written-gesture.js';
import { planInstructions } from '../plan/plan-instructions.js';
import { planKeys } from '../plan/plan-keys.js';
import { displayAtRest, glassOf, type DisplayState } from './display-state.js';
import { simulateDisplay } from './simulate-display.js';

/** What the glass shows after these presses, written as a map writes them; `120 s` waits. */
function after(map: KeyedMap, presses: string, from: DisplayState = displayAtRest(map)): DisplayState {
  return presses.split(', ').reduce((state, words) => {
    const [, seconds] = /^(\d+) s$/.exec(words) ?? [];
    const input = seconds ? ({ kind: 'wait', ms: Number(seconds) * 1000 } as const) : gestureFromWords(words)!;
    return simulateDisplay(map, state, input);
  }, from);
}

describe('a PIN that is asked for at entries', () => {
  const map = demoMap('sundew-three-key') as KeyedMap;

  it('lets the menu open, and asks before a page that it guards; given once it holds until the menu closes', () => {
    const open = after(map, 'o 2 s');
    expect(glassOf(map, open)).toMatchObject({ kind: 'menu', label: '1' });
    const asked = after(map, 'l+r 2 s', open);
    expect(glassOf(map, asked)).toEqual({ kind: 'pin', digits: '000', at: 0 });
    // 731: three down, then a cursor on to the next digit.
    const given = after(map, 'l, l, l, o, r, r, r, o, r, o 1 s', asked);
    expect(glassOf(map, given)).toMatchObject({ kind: 'menu', label: '2', page: 'Shop' });
    const back = after(map, 'l+r 2 s, l+r 2 s', given);
    expect(glassOf(map, back)).toMatchObject({ kind: 'menu', page: 'Shop' });
    expect(glassOf(map, after(map, 'l 2 s, o 2 s, l+r 2 s', back)).kind).toBe('pin');
  });

  it('leads back where it was wrong, counts tries, and locks for five minutes after the third', () => {
    const asked = after(map, 'o 2 s, l+r 2 s');
    const once = after(map, 'o 1 s', asked);
    expect(glassOf(map, once)).toMatchObject({ kind: 'menu', page: 'Rider' });
    const twice = after(map, 'l+r 2 s, o 1 s', once);
    const locked = after(map, 'l+r 2 s, o 1 s', twice);
    expect(glassOf(map, locked)).toEqual({ kind: 'message', text: 'LOCK' });
    expect(glassOf(map, after(map, '299 s, o 2 s', locked))).toEqual({ kind: 'message', text: 'LOCK' });
    expect(glassOf(map, after(map, '300 s', locked)).kind).toBe('menu');
    const right = after(map, 'l+r 2 s, l, l, l, o, r, r, r, o, r, o 1 s', twice);
    expect(right.wrongPins).toBe(0);
  });

  it('is given by the plan, with no wrong try, and only where it is needed', () => {
    const plan = planKeys(map, { '2': 1, '6': 20 }, { values: {}, at: null });
    expect(plan.unreachable).toEqual([]);
    const end = plan.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), displayAtRest(map));
    expect(end.stored).toMatchObject({ '2': 1, '6': 20 });
    expect(plan.steps.some(({ purpose }) => purpose === 'pin')).toBe(true);
    const free = planKeys(map, { '2': 1, '3': 2 }, { values: {}, at: null });
    expect(free.steps.some(({ purpose }) => purpose === 'pin')).toBe(false);
  });
});

describe('units that reckon a cap anew', () => {
  const map = demoMap('sundew-three-key') as KeyedMap;
  const inMph = after(map, 'o 2 s, o, r, o', displayAtRest(map, { '5': 412.3, '6': 25 }));

  it('cut the cap off to the tenth below, and bring the odometer to the nearest', () => {
    // 25 / 1.609344 = 15.534; 412.3 / 1.609344 = 256.19.
    expect(inMph.stored['6']).toBe(15.5);
    expect(inMph.stored['5']).toBe(256.2);
    // The wheel is a length that no unit moves.
    expect(inMph.stored['7']).toBe(2070);
  });

  it('have values of another range and step', () => {
    const plan = planKeys(map, { '6': 12.5 }, { values: { '1': 1, '6': 15.5 }, at: null });
    expect(plan.unreachable).toEqual([]);
    expect(planKeys(map, { '6': 12.5 }, { values: { '6': 15 }, at: null }).unreachable).toHaveLength(1);
    expect(planKeys(map, { '1': 1, '6': 12.5 }, { values: {}, at: null }).unreachable).toEqual([]);
  });

  it.each([
    ['a wheel called 26', '7'],
    ['words', '8'],
  ])('are kept from %s by the check', (_what, label) => {
    const codes = map.codes.map((each) =>
      each.label === '1' ? { ...each, influences: [{ kind: 'converts' as const, code: label }] } : each,
    );
    const parsed = parseDisplayMap({ ...map, codes });
    expect(parsed.ok ? [] : parsed.problems.map(({ code: what }) => what)).toContain('notConverted');
  });
});

describe('two values in one code', () => {
  const map = demoMap('sundew-three-key') as KeyedMap;

  it('are moved by keys of their own: one goes round, the other stops', () => {
    const at = (presses: string) => after(map, `o 2 s, r, o, ${presses}`, displayAtRest(map, { '2': 1 })).unstored['2'];
    expect(at('l')).toBe(11);
    expect(at('l, l')).toBe(1);
    expect(at('r, r, r')).toBe(2);
    expect(at('r, l+r 0.8 s, l+r 0.8 s')).toBe(0);
  });
});

describe('a start PIN', () => {
  const map = demoMap('bracken-index') as KeyedMap;

  it('is asked for after the greeting, where it is switched on, and is another than none', () => {
    const asks = displayAtRest(map, { ask: 1, code: 12 });
    const lit = after(map, 'p 2.5 s, p 1.5 s', asks);
    expect(glassOf(map, lit)).toEqual({ kind: 'message', text: 'HELLO' });
    const asked = after(map, '2 s', lit);
    expect(glassOf(map, asked).kind).toBe('pin');
    expect(glassOf(map, after(map, 'ok, ok, up, ok, up, up, ok', asked)).kind).toBe('riding');
    expect(glassOf(map, after(map, 'ok, ok, ok, ok', asked)).kind).toBe('pin');
    expect(glassOf(map, after(map, 'p 2.5 s, p 1.5 s, 2 s', displayAtRest(map))).kind).toBe('riding');
  });
});

describe('lists that share an entry, and a list of the mode from an index', () => {
  const map = demoMap('bracken-index') as KeyedMap;

  it('open at that of the mode that is on, and show one value in both', () => {
    const calm = after(map, 'up+dn 2 s, ok');
    expect(glassOf(map, calm)).toMatchObject({ label: 'calm top', page: 'Mode calm' });
    const brisk = after(map, 'ok, up+dn 2 s, ok');
    expect(glassOf(map, brisk)).toMatchObject({ label: 'brisk top', page: 'Mode brisk' });
    const plan = planKeys(map, { start: 1, 'brisk top': 60 }, { values: {}, at: null });
    const end = plan.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), displayAtRest(map));
    expect(end.stored).toMatchObject({ start: 1, 'brisk top': 60, 'calm top': 50 });
    // Both are met in one visit to one list.
    expect(plan.steps.filter(({ purpose }) => purpose === 'open')).toHaveLength(1);
  });
});

describe('what a rider does on the main page', () => {
  const map = demoMap('bracken-index') as KeyedMap;
  const iconsAfter = (presses: string, values = {}) => {
    const glass = glassOf(map, after(map, presses, displayAtRest(map, values)));
    return glass.kind === 'riding' ? glass.icons : [];
  };

  it('lights its icon, goes off again, starts no motor, and does nothing where a code forbids it', () => {
    expect(iconsAfter('ok ok, dn 2 s')).toEqual(['BOOST', 'LAMP']);
    expect(iconsAfter('ok ok, ok ok')).toEqual([]);
    expect(iconsAfter('ok ok', { boost: 0 })).toEqual([]);
    expect(after(map, 'ok ok, up 2 s').motorStarted).toBe(false);
  });

  it('stops a setup where it lifts the cap and nothing takes that away', () => {
    const stops = (boost: object) =>
      compileSetup(
        inputs({
          map: { ...map, codes: map.codes.map((each) => (each.label === 'boost' ? { ...each, ...boost } : each)) },
          unit: { ...NO_FACTS, overshootKmh: 0 },
        }),
      ).findings.filter(({ id, level }) => level === 'stop' && /Reach/.test(id ?? ''));
    expect(stops({})).toEqual([]);
    expect(stops({ access: 'locked' })[0]?.says).toMatch(/Boost on/);
  });
});

describe('a cap that another code makes dead', () => {
  const capOnly = (deadIf?: object) =>
    compileSetup(
      inputs({
        map: withCodes(fourKey, [
          code('M', 'info', { range: { min: 0, max: 1, step: 1 }, factory: 1, access: 'locked', encoding: line('') }),
          code('C', 'speedCap', {
            range: { min: 5, max: 40, step: 1 },
            factory: 25,
            encoding: line('km/h'),
            ...deadIf,
          }),
        ]),
        unit: { ...NO_FACTS, overshootKmh: 0 },
      }),
    );

  it('is not built on: there is no cap then, and it is said why', () => {
    expect(capOnly().findings.filter(({ level }) => level === 'stop')).toEqual([]);
    const dead = capOnly({ deadIf: { code: 'M', in: [1] } });
    expect(dead.findings.find(({ level }) => level === 'stop')?.id).toBe('noCap:unit');
    expect(dead.findings.find(({ id }) => id === 'dead:C')?.says).toMatch(/C does nothing while M stands at 1/);
    expect(capOnly({ deadIf: { code: 'M', in: [0] } }).findings.some(({ id }) => id === 'dead:C')).toBe(false);
  });
});

describe('what is written through a relay', () => {
  it('goes into each profile that holds it, once where it is the unit’s, and holds only while it is attached', () => {
    const says = planInstructions(demoMap('vetch-relay'), { top: 25, walk: 0 }, {}).instructions.map(
      ({ act, label }) => (label === null ? act : `${act} ${label}`),
    );
    expect(says).toEqual([
      'connect',
      'connect',
      'connect',
      'choose walk',
      'profile',
      'choose top',
      'profile',
      'choose top',
      'write',
      'reconnect',
      'readAgain',
      'readAgain top',
      'readAgain walk',
    ]);
    const setup = compileSetup(inputs({ map: demoMap('vetch-relay') }));
    expect(setup.findings.find(({ id }) => id === 'whileAttached:unit')?.level).toBe('decide');
  });
});
