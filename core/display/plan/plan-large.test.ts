import { describe, expect, it } from 'vitest';
import { demoMap } from '../../testing/demo-maps.js';
import { indexedMap, perModeMap } from '../../testing/large-maps.js';
import { displayAtRest, simulateDisplay } from '../machine/simulate-display.js';
import type { KeyedMap } from '../map/display-map.js';
import { parseDisplayMap } from '../map/parse-display-map.js';
import { valuesInOrder } from '../map/raw-value.js';
import { planKeys, type KeyPlan } from './plan-keys.js';
import { planReadout } from './plan-readout.js';

const closed = { values: {}, at: null };
const endOf = (map: KeyedMap, plan: KeyPlan) =>
  plan.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), displayAtRest(map));
/** Every nth code a step away from what it is delivered with. */
const everyNth = (map: KeyedMap, n: number) =>
  Object.fromEntries(
    map.codes
      .filter((_, i) => i % n === 0)
      .map((c) => {
        const values = valuesInOrder(c);
        return [c.label, values[(values.indexOf(c.factory) + 1) % values.length] ?? c.factory];
      }),
  );

describe('a map that is too large to try all ways', () => {
  it.each([
    ['nine targets in three modes', perModeMap(3), 1],
    ['sixteen targets in three modes', perModeMap(16), 3],
    ['forty-eight targets in three modes', perModeMap(16), 1],
    ['eight pages from an index', indexedMap(8, 4), 1],
    ['sixty codes on six pages, 25 of them changed', indexedMap(6, 10), 2.4],
    ['sixty codes on six pages, all of them changed', indexedMap(6, 10), 1],
    ['pages whose entry stores as it is left', indexedMap(8, 5, { store: { on: 'leave' } }), 1],
  ])('%s: the plan comes, is right, and says how good it is', (_, map, n) => {
    expect(parseDisplayMap(map)).toMatchObject({ ok: true });
    const targets = everyNth(map, Math.ceil(n));
    const plan = planKeys(map, targets, closed);
    expect(plan.unreachable).toEqual([]);
    expect(endOf(map, plan)).toMatchObject({
      stored: { ...displayAtRest(map).stored, ...targets },
      screen: { kind: 'riding' },
    });
    expect(plan.atLeastMs).toBeGreaterThan(0);
    expect(plan.atLeastMs).toBeLessThanOrEqual(plan.estimatedMs + 1e-6);
    if (plan.isShortest) expect(plan.atLeastMs).toBeCloseTo(plan.estimatedMs, 6);
    expect(plan.estimatedMs).toBeLessThan(2 * plan.atLeastMs);
  });

  it.each([
    ['nine pages of four', indexedMap(9, 4)],
    ['ten pages of four', indexedMap(10, 4)],
    ['twelve pages of five', indexedMap(12, 5)],
    ['sixteen codes in each of three modes', perModeMap(16)],
  ])('%s: every code is read, nothing is changed, and it is said how good the way is', (_, map) => {
    const plan = planReadout(map, closed);
    expect(plan.unreachable).toEqual([]);
    const shown = new Set(plan.steps.flatMap(({ after }) => (after.kind === 'menu' ? [after.label] : [])));
    for (const { label } of map.codes) expect(shown).toContain(label);
    expect(endOf(map, plan)).toMatchObject({ stored: displayAtRest(map).stored, screen: { kind: 'riding' } });
    expect(plan.estimatedMs).toBeLessThan(2 * plan.atLeastMs);
  });

  it('never claims to be shortest where a target is missed, and keeps clear of the time-out as any plan does', () => {
    const limpet = demoMap('limpet-modes') as KeyedMap;
    const plan = planKeys(limpet, everyNth(limpet, 1), closed, { tapMs: 6000, holdExtraMs: 6000, lookMs: 9000 });
    expect(plan.steps).toEqual([]);
    expect(plan.unreachable.length).toBeGreaterThan(0);
  });
});
