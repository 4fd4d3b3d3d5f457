import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { fullMap, planKeys, type DisplayMap } from '@decurio/core';
import { codePresses, type CodePresses } from './code-presses.js';

const tallow = fullMap(
  JSON.parse(readFileSync(new URL('../../../demo/maps/tallow-four-key.json', import.meta.url), 'utf8')),
) as DisplayMap;
const plan = planKeys(tallow, { 'L1.1': 11, 'L4.1': 27 }, { values: {}, at: null });

describe('a code at once', () => {
  const all: CodePresses[] = [];
  for (let from = 0; from < plan.steps.length; from = all.at(-1)!.to + 1) all.push(codePresses(tallow, plan, from));

  it('covers every press once, code by code, and leaves the menu with the last', () => {
    expect(all.map(({ title }) => title)).toEqual(['L1.1, units', 'L4.1, speed cap']);
    expect(all.at(-1)?.to).toBe(plan.steps.length - 1);
  });

  it('takes presses alike together, and says what the glass shows at the end', () => {
    expect(all[1]?.orders.at(-2)).toMatch(/^Press .+ 3 times$/);
    expect(all[1]?.orders.at(-1)).toMatch(/^Hold .+ for 1\.5 s$/);
    expect(all[1]?.orders.every((order) => !order.includes('more times'))).toBe(true);
    expect(all[1]?.ends).toContain('27');
  });

  it('may begin in the middle of a code', () => {
    expect(codePresses(tallow, plan, all[1]!.to - 1)).toMatchObject({ to: all[1]!.to, title: 'L4.1, speed cap' });
  });
});
