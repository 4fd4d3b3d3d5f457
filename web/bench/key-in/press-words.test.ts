import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { gestureKeys, fullMap, planKeys, valuesInOrder, type DisplayMap } from '@decurio/core';
import { pressWords } from './press-words.js';

const demoMap = (name: string) =>
  fullMap(JSON.parse(readFileSync(new URL(`../../../demo/maps/${name}.json`, import.meta.url), 'utf8'))) as DisplayMap;
const tallow = demoMap('tallow-four-key');
const fescue = demoMap('fescue-three-key');

/** All orders of a plan, one after another. */
const orders = (map: DisplayMap, targets: Record<string, number>) => {
  const plan = planKeys(map, targets, { values: {}, at: null });
  return plan.steps.map((_, index) => pressWords(map, plan, index));
};

describe('the order of a press', () => {
  it('names keys as they are printed, and how long to hold them', () => {
    expect(orders(tallow, { 'L1.1': 11 })[0]).toEqual({
      order: 'Hold set and + for 2 s',
      effect: 'The menu opens at L1.1.',
    });
    expect(gestureKeys(tallow, tallow.menu!.close!)).toBe('set');
  });

  it('counts down the same presses still to come, and says what they lead to', () => {
    const cap = orders(tallow, { 'L4.1': 27 }).filter(({ effect }) => effect.includes('Speed cap is to be'));
    expect(cap.map(({ order }) => order)).toEqual(['Press − 3 times', 'Press − 2 more times', 'Press − once more']);
    expect(cap[0]?.effect).toBe('30 becomes 29. Speed cap is to be 27 km/h.');
  });

  it('gives the digits beside the words where a code has a table', () => {
    expect(orders(tallow, { 'L5.2': 51 }).find(({ effect }) => effect.includes('becomes'))?.effect).toBe(
      '52 becomes 51. Walk assist is to be 51, off.',
    );
  });

  it('says where to step to, and that leaving stores', () => {
    const all = orders(tallow, { 'L1.2': 4 });
    expect(all[1]).toEqual({ order: 'Press set once', effect: 'Until L1.2 shows: brightness.' });
    expect(all.at(-1)?.effect).toBe('The menu closes, and the last value is stored.');
  });

  it('on a display with a focus begins and stores each change', () => {
    const effects = orders(fescue, { h3: 31 }).map(({ effect }) => effect);
    expect(effects).toContain('The value of h3 can be changed now.');
    expect(effects).toContain('h3 is stored.');
  });

  it('is empty past the end of the plan', () => {
    expect(pressWords(tallow, planKeys(tallow, {}, { values: {}, at: null }), 0)).toEqual({ order: '', effect: '' });
  });
});

const others = ['sorrel-two-list', 'burdock-digit', 'quill-two-key', 'limpet-modes', 'dunlin-c'].map(demoMap);

describe.each(others.map((map) => [map.name, map] as const))('on %s', (_name, map) => {
  /** The first value after the delivered one of every code that keys move. */
  const targets = Object.fromEntries(
    map.codes
      .filter(
        (code) =>
          (code.access === 'open' || code.access === 'pin') && code.action === undefined && code.shownIf === undefined,
      )
      .map((code) => [
        code.label,
        valuesInOrder(code)[(valuesInOrder(code).indexOf(code.factory) + 1) % valuesInOrder(code).length] ??
          code.factory,
      ]),
  );
  const told = orders(map, targets);

  it('every press has an order and says what comes of it', () => {
    expect(told.length).toBeGreaterThan(10);
    for (const { order, effect } of told) {
      expect(order).toMatch(/^(Press|Hold|Tap|Wait) \S/);
      expect(`${order} ${effect}`).not.toMatch(/undefined|null|NaN|\bC?\$\{/);
      expect(effect).not.toBe('');
    }
  });
});

describe('what the other displays ask of a person', () => {
  const said = (id: string, targets: Record<string, number>) =>
    orders(demoMap(id), targets).map(({ order, effect }) => `${order} ${effect}`);

  it('is to wait while a message stands', () => {
    expect(said('sorrel-two-list', { G2: 3 })).toContain('Wait 0.9 s The glass says donE; no key counts meanwhile.');
  });

  it('is to give the PIN, digit by digit, and to hold until a value comes', () => {
    expect(
      said('burdock-digit', { '12': 0 }).some((words) => words.includes('The PIN on the glass becomes 1000.')),
    ).toBe(true);
    expect(said('burdock-digit', { '12': 0 }).some((words) => words.includes('The PIN is in.'))).toBe(true);
    expect(said('sorrel-two-list', { A4: 7 }).some((words) => words.startsWith('Hold ▼ until 7'))).toBe(false);
    expect(said('fescue-three-key', { h3: 12 }).some((words) => words.startsWith('Hold'))).toBe(true);
  });

  it('is to switch off, open from the dark, and choose a mode', () => {
    const quill = said('quill-two-key', { b4: 0 });
    expect(quill[0]).toBe('Hold power for 2.5 s The glass goes dark.');
    expect(quill[1]).toContain('Hold power and mode for 4 s The menu opens at b1.');
    expect(
      said('limpet-modes', { 'fast S7': 0 }).some((words) => words.includes('becomes city') || words.includes('On to')),
    ).toBe(true);
  });

  it('is told that leaving stores all at once', () => {
    expect(said('limpet-modes', { 'eco S5': 4, 'eco S6': 2 }).at(-2)).toContain('2 values are stored at once');
  });
});
