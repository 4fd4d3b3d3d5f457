import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { planKeys, type DisplayMap } from '@decurio/core';
import { gestureKeys } from '../../ui/gesture-words.js';
import { pressWords } from './press-words.js';

const demoMap = (name: string) => JSON.parse(readFileSync(new URL(`../../../demo/maps/${name}.json`, import.meta.url), 'utf8')) as DisplayMap;
const tallow = demoMap('tallow-four-key');
const ember = demoMap('ember-three-key');

/** All orders of a plan, one after another. */
const orders = (map: DisplayMap, targets: Record<string, number>) => {
  const plan = planKeys(map, targets, { values: {}, at: null });
  return plan.steps.map((_, index) => pressWords(map, plan, index));
};

describe('the order of a press', () => {
  it('names keys as they are printed, and how long to hold them', () => {
    expect(orders(tallow, { 'L1.1': 11 })[0]).toEqual({ order: 'Hold set and + for 2 s', effect: 'The menu opens at L1.1.' });
    expect(gestureKeys(tallow, tallow.menu!.close!)).toBe('set');
  });

  it('counts down the same presses still to come, and says what they lead to', () => {
    const cap = orders(tallow, { 'L4.1': 27 }).filter(({ effect }) => effect.includes('Speed cap is to be'));
    expect(cap.map(({ order }) => order)).toEqual(['Press − 3 times', 'Press − 2 more times', 'Press − once more']);
    expect(cap[0]?.effect).toBe('30 becomes 29. Speed cap is to be 27 km/h.');
  });

  it('gives the digits beside the words where a code has a table', () => {
    expect(orders(tallow, { 'L5.2': 51 }).find(({ effect }) => effect.includes('becomes'))?.effect).toBe('52 becomes 51. Walk assist is to be 51, off.');
  });

  it('says where to step to, and that leaving stores', () => {
    const all = orders(tallow, { 'L1.2': 4 });
    expect(all[1]).toEqual({ order: 'Press set once', effect: 'Until L1.2 shows: brightness.' });
    expect(all.at(-1)?.effect).toBe('The menu closes, and the last value is stored.');
  });

  it('on a display with a focus begins and stores each change', () => {
    const effects = orders(ember, { E03: 31 }).map(({ effect }) => effect);
    expect(effects).toContain('The value of E03 can be changed now.');
    expect(effects).toContain('E03 is stored.');
  });

  it('is empty past the end of the plan', () => {
    expect(pressWords(tallow, planKeys(tallow, {}, { values: {}, at: null }), 0)).toEqual({ order: '', effect: '' });
  });
});
