import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { fullMap, planReadout, type DisplayMap } from '@decurio/core';
import { firstShown, wayTo } from './use-read-route.js';

const demoMap = (name: string) =>
  fullMap(JSON.parse(readFileSync(new URL(`../../demo/maps/${name}.json`, import.meta.url), 'utf8'))) as DisplayMap;
const closed = { values: {}, at: null };

describe('the way to a code', () => {
  it('opens the menu for the first one, and steps on to the next', () => {
    const tallow = demoMap('tallow-four-key');
    const plan = planReadout(tallow, closed);
    expect(wayTo(tallow, plan, 'L1.1')).toBe('Hold set and + for 2 s, until the glass shows L1.1.');
    expect(wayTo(tallow, plan, 'L1.2')).toBe('Tap set, until the glass shows L1.2.');
    expect(firstShown(plan)).toEqual(tallow.codes.map((code) => code.label));
  });

  it('counts the presses over codes that are not to be read', () => {
    const tallow = demoMap('tallow-four-key');
    const plan = planReadout(tallow, closed, undefined, ['L2.1']);
    expect(wayTo(tallow, plan, 'L2.1')).toBe(
      'Hold set and + for 2 s, then tap set 2 times, until the glass shows L2.1.',
    );
  });

  it('gives the PIN, turns the page, and says what the glass shows', () => {
    const burdock = demoMap('burdock-digit');
    expect(wayTo(burdock, planReadout(burdock, closed), '01')).toBe(
      'Hold ◄ and ok for 5 s, then give the PIN, until the glass shows 01.',
    );
    const sorrel = demoMap('sorrel-two-list');
    expect(wayTo(sorrel, planReadout(sorrel, closed), 'A1')).toMatch(/hold ▲ and ▼ for 2.5 s/i);
    const limpet = demoMap('limpet-modes');
    const ways = firstShown(planReadout(limpet, closed)).map((label) =>
      wayTo(limpet, planReadout(limpet, closed), label),
    );
    expect(ways.filter((way) => way.endsWith('the glass shows S1.'))).toHaveLength(3);
  });
});
