import { describe, expect, it } from 'vitest';
import { fourKey, threeKey } from '../testing/samples.js';
import type { DisplayMap, Gesture } from './display-map.js';
import { displayAtRest, glassOf, simulateDisplay, valuesInOrder, type DisplayInput, type DisplayState } from './simulate-display.js';

const tap = (key: string): Gesture => ({ kind: 'tap', key });
const run = (map: DisplayMap, inputs: readonly DisplayInput[], from: DisplayState = displayAtRest(map)): DisplayState =>
  inputs.reduce((state, input) => simulateDisplay(map, state, input), from);

describe('a live display', () => {
  const open = fourKey.menu.open;
  const close = fourKey.menu.close;

  it('opens at its first code by its own gesture alone', () => {
    expect(glassOf(fourKey, run(fourKey, [tap('set')]))).toEqual({ kind: 'riding' });
    expect(glassOf(fourKey, run(fourKey, [{ kind: 'hold', keys: ['set', 'up'], ms: 1000 }]))).toEqual({ kind: 'riding' });
    expect(glassOf(fourKey, run(fourKey, [open]))).toMatchObject({ kind: 'menu', label: 'L1', raw: 12 });
  });

  it('stores a change when one moves on, not before', () => {
    const changed = run(fourKey, [open, tap('down')]);
    expect(glassOf(fourKey, changed)).toMatchObject({ raw: 11 });
    expect(changed.stored['L1']).toBe(12);
    expect(run(fourKey, [tap('set')], changed).stored['L1']).toBe(11);
    expect(run(fourKey, [close], changed).stored['L1']).toBe(11);
  });

  it('drops a pending change when the menu closes by itself', () => {
    const state = run(fourKey, [open, tap('down'), { kind: 'wait', ms: 5000 }, { kind: 'wait', ms: 3000 }]);
    expect(state.mode).toBe('riding');
    expect(state.stored['L1']).toBe(12);
  });

  it('stays open while presses come in time', () => {
    const state = run(fourKey, [open, { kind: 'wait', ms: 7900 }, tap('set'), { kind: 'wait', ms: 7900 }]);
    expect(glassOf(fourKey, state)).toMatchObject({ label: 'L2' });
  });

  it('wraps values and codes', () => {
    expect(glassOf(fourKey, run(fourKey, [open, tap('up')]))).toMatchObject({ raw: 11 });
    expect(glassOf(fourKey, run(fourKey, [open, ...Array.from({ length: 5 }, () => tap('set'))]))).toMatchObject({ label: 'L1' });
  });

  it('does not move a locked code', () => {
    const state = run(fourKey, [open, tap('set'), tap('set'), tap('set'), tap('up'), tap('set')]);
    expect(state.stored['L4']).toBe(31);
  });

  it('obeys a code that acts after a restart only then', () => {
    const keyed = run(fourKey, [open, tap('set'), tap('set'), tap('down'), tap('down'), close]);
    expect(keyed.stored['L3']).toBe(31);
    expect(keyed.inForce['L3']).toBe(33);
    expect(run(fourKey, [{ kind: 'powerCycle' }], keyed).inForce['L3']).toBe(31);
  });
});

describe('a display that moves a focus', () => {
  const open = threeKey.menu.open;

  it('moves between codes while the name has the focus, and changes while the value has it', () => {
    const state = run(threeKey, [open, tap('up'), tap('mid'), tap('down'), tap('mid')]);
    expect(state.stored['L2']).toBe(29);
    expect(glassOf(threeKey, run(threeKey, [tap('up')], state))).toMatchObject({ label: 'L3' });
  });

  it('stops values at their ends', () => {
    const state = run(threeKey, [open, tap('mid'), tap('up'), tap('up'), tap('mid')]);
    expect(state.stored['L1']).toBe(12);
  });

  it('keeps a pending change when it closes by itself', () => {
    expect(run(threeKey, [open, tap('mid'), tap('down'), { kind: 'wait', ms: 12000 }]).stored['L1']).toBe(11);
  });

  it('leaves after the last code, and stays on the first going back', () => {
    expect(run(threeKey, [open, ...Array.from({ length: 5 }, () => tap('up'))]).mode).toBe('riding');
    expect(glassOf(threeKey, run(threeKey, [open, tap('down')]))).toMatchObject({ label: 'L1' });
  });
});

it('steps through a grid of tenths without binary dust', () => {
  expect(valuesInOrder(fourKey.codes[3]!)).toHaveLength(51);
  expect(valuesInOrder(fourKey.codes[3]!)).toContain(31.3);
});
