import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { code, fourKey, line, threeKey, words } from '../testing/samples.js';
import type { Code, DisplayMap } from './display-map.js';
import { planKeys } from './plan-keys.js';
import { displayAtRest, simulateDisplay, valuesInOrder, type RawValues } from './simulate-display.js';

const keysOf = (plan: ReturnType<typeof planKeys>) => plan.steps.map(({ gesture }) => (gesture.kind === 'tap' ? gesture.key : `hold ${gesture.keys.join('+')}`));

describe('a key plan', () => {
  it('opens, changes in menu order the shorter way round, and leaves', () => {
    const plan = planKeys(fourKey, { L1: 11, L2: 28 }, { values: {}, at: null });
    expect(keysOf(plan)).toEqual(['hold set+up', 'up', 'set', 'down', 'down', 'hold set']);
    expect(plan.steps.map((step) => step.stores)).toEqual([null, null, 'L1', null, null, 'L2']);
  });

  it('costs what its pace says', () => {
    const plan = planKeys(fourKey, { L1: 11 }, { values: {}, at: null }, { tapMs: 100, holdExtraMs: 10, lookMs: 1000 });
    expect(plan.estimatedMs).toBe(2010 + 1000 + 100 + 1510);
  });

  it('is empty where everything is at its target', () => {
    expect(planKeys(fourKey, { L1: 12 }, { values: {}, at: null }).steps).toEqual([]);
    expect(planKeys(fourKey, { L1: 11 }, { values: { L1: 11 }, at: null }).steps).toEqual([]);
  });

  it('names a locked code and a value that cannot be set, and still plans the rest', () => {
    const plan = planKeys(fourKey, { L1: 11, L4: 32, L5: 99 }, { values: {}, at: null });
    expect(plan.unreachable.map((u) => u.label)).toEqual(['L4', 'L5']);
    expect(plan.steps.some((step) => step.stores === 'L1')).toBe(true);
  });

  it('goes on from the code on the glass', () => {
    const plan = planKeys(fourKey, { L2: 28, L1: 11 }, { values: { L2: 29 }, at: 'L2' });
    expect(keysOf(plan)).toEqual(['down', 'set', 'set', 'set', 'set', 'up', 'hold set']);
  });

  it('goes back by the previous key where the menu would leave', () => {
    const plan = planKeys(threeKey, { L1: 11, L3: 32 }, { values: {}, at: 'L3' });
    expect(keysOf(plan)).toEqual(['mid', 'down', 'mid', 'down', 'down', 'mid', 'down', 'mid', 'hold mid']);
  });
});

const anyCode = (index: number): fc.Arbitrary<Code> =>
  fc
    .record({ size: fc.integer({ min: 1, max: 9 }), first: fc.integer({ min: 0, max: 40 }), table: fc.boolean(), locked: fc.boolean(), at: fc.nat() })
    .map(({ size, first, table, locked, at }) => {
      const raws = Array.from({ length: size }, (_, i) => first + i);
      return code(`C${index}`, 'unknown', {
        range: { min: first, max: first + size - 1, step: 1 },
        factory: raws[at % size]!,
        encoding: table ? words(...raws.map((raw) => [raw, `w${raw}`] as const)) : line(''),
        access: locked ? 'locked' : 'open',
      });
    });

const anyMap: fc.Arbitrary<DisplayMap> = fc
  .integer({ min: 1, max: 8 })
  .chain((count) => fc.tuple(...Array.from({ length: count }, (_, i) => anyCode(i))))
  .chain((codes) =>
    fc.record({ wraps: fc.boolean(), afterLast: fc.constantFrom('wrap' as const, 'leave' as const), store: fc.constantFrom('onChange' as const, 'onMove' as const), base: fc.constantFrom(fourKey, threeKey), back: fc.boolean() }).map(
      ({ wraps, afterLast, store, base, back }) => ({
        ...base,
        codes,
        menu: { ...base.menu, valuesWrap: wraps, afterLast, store, previous: back ? base.menu.previous : null },
      }),
    ),
  );

const withTargets = anyMap.chain((map) =>
  fc
    .tuple(...map.codes.map((c) => fc.option(fc.nat().map((n) => valuesInOrder(c)[n % valuesInOrder(c).length]!), { nil: undefined })))
    .map((picks) => ({ map, targets: Object.fromEntries(map.codes.flatMap((c, i) => (picks[i] === undefined ? [] : [[c.label, picks[i]]]))) as RawValues })),
);

describe('every plan, run on the simulator', () => {
  it('stores every reachable target, changes nothing else, and is out of the menu at the end', () => {
    fc.assert(
      fc.property(withTargets, ({ map, targets }) => {
        const plan = planKeys(map, targets, { values: {}, at: null });
        const end = plan.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), displayAtRest(map));
        const blocked = new Set(plan.unreachable.map((u) => u.label));
        for (const c of map.codes) {
          expect(end.stored[c.label]).toBe(blocked.has(c.label) ? c.factory : (targets[c.label] ?? c.factory));
        }
        expect(end.mode).toBe('riding');
      }),
      { numRuns: 400, seed: 20261124 },
    );
  });

  it('names each code once, at the gesture that stores it', () => {
    fc.assert(
      fc.property(withTargets, ({ map, targets }) => {
        const stores = planKeys(map, targets, { values: {}, at: null }).steps.filter((s) => s.stores !== null);
        const last = new Map(stores.map((s) => [s.stores, s]));
        for (const c of map.codes) {
          const due = targets[c.label] !== undefined && targets[c.label] !== c.factory && c.access === 'open';
          expect(last.has(c.label)).toBe(due);
        }
      }),
      { numRuns: 200, seed: 7 },
    );
  });
});
