import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyMap, anyTangledTargets, anyTargets } from '../../testing/any-map.js';
import { howOften } from '../../testing/how-often.js';
import { cheapestByTryingAll } from '../../testing/exhaustive-search.js';
import { displayAtRest, simulateDisplay, valuesInOrder, type DisplayState } from '../machine/simulate-display.js';
import type { KeyedMap } from '../map/display-map.js';
import { HOLD_TOLERANCE_MS, type Pace } from './pace.js';
import { planKeys, startState } from './plan-keys.js';

const RUNS = howOften(80, Number(process.env['DECURIO_PLANS'] ?? 2_000));
const seed = process.env['DECURIO_PLANS_SEED'] === undefined ? 20261124 : Number(process.env['DECURIO_PLANS_SEED']);
const closed = { values: {}, at: null };

/** The map with values left out of the question: small enough to try everything. */
const cheap: Pace = { tapMs: 300, holdExtraMs: 200, lookMs: 500 };

/** Whether every edit ends in the same way, whatever was changed: what is found first is then the shortest. */
const endsAlike = ({ menu, codes }: KeyedMap): boolean =>
  codes.every(({ edit }) => edit === undefined) && !(menu.edit.style === 'digits' && menu.edit.end === undefined);

describe('no cheaper sequence exists in the simulator', () => {
  it('for any small map and targets', () => {
    fc.assert(
      fc.property(anyTargets(anyMap({ codes: 3, values: 4 })), ({ map, targets }) => {
        const plan = planKeys(map, targets, closed, cheap);
        const from = displayAtRest(map);
        const goal = {
          ...from.stored,
          ...targets,
          ...Object.fromEntries(plan.unreachable.map(({ label }) => [label, from.stored[label]!])),
        };
        const isDone = map.codes.every(({ label }) => goal[label] === from.stored[label]);
        const best = isDone ? 0 : (cheapestByTryingAll(map, from, goal, cheap) ?? -1);
        // A key that repeats faster than a hand can stop is only held up to an end: the search that tries all has no such hold.
        if ((map.menu.repeat?.everyMs ?? Infinity) < 2 * HOLD_TOLERANCE_MS && plan.isShortest)
          expect(plan.estimatedMs).toBeLessThanOrEqual(best + 1e-6);
        else if (plan.isShortest) expect(plan.estimatedMs).toBeCloseTo(best, 6);
        else expect(plan.atLeastMs).toBeLessThanOrEqual(best + 1e-6);
      }),
      { numRuns: RUNS, seed },
    );
  });

  it('for codes that bound or reset one another', () => {
    fc.assert(
      fc.property(anyTangledTargets, ({ map, targets }) => {
        const from = displayAtRest(map);
        const goal = { ...from.stored, ...targets };
        const plan = planKeys(map, targets, closed, cheap);
        fc.pre(plan.unreachable.length === 0 && (map.menu.repeat?.everyMs ?? Infinity) >= 2 * HOLD_TOLERANCE_MS);
        const isDone = map.codes.every(({ label }) => goal[label] === from.stored[label]);
        const best = isDone ? 0 : (cheapestByTryingAll(map, from, goal, cheap) ?? -1);
        if (endsAlike(map)) expect(plan.isShortest).toBe(true);
        if (plan.isShortest) expect(plan.estimatedMs).toBeCloseTo(best, 6);
        else expect(plan.atLeastMs).toBeLessThanOrEqual(best + 1e-6);
      }),
      { numRuns: RUNS, seed },
    );
  });

  it('from any awkward start: half-way into a PIN, or with something on the glass that is not stored', () => {
    const seen = { pin: 0, glass: 0 };
    fc.assert(
      fc.property(anyTangledTargets, fc.nat(), fc.nat(), fc.nat(), ({ map, targets }, a, b, c) => {
        const rest = displayAtRest(map);
        const { pin } = map.menu;
        const page = map.menu.pages[0]!.id;
        const settable = map.codes.filter(({ access }) => access === 'open' || (access === 'pin' && !map.menu.pin));
        const on = settable[a % settable.length];
        fc.pre(on !== undefined);
        const values = valuesInOrder(on);
        const from: DisplayState = pin
          ? {
              ...rest,
              screen: {
                kind: 'pin',
                asks: 'menu',
                then: { kind: 'menu', page, item: 0, focus: 'name', digit: 0 },
                digits: [...pin.factory].map((_, i) => (a + i * b) % 10),
                at: c % pin.factory.length,
              },
            }
          : startState(map, { values: {}, at: on.label, shown: values[b % values.length]! });
        const goal = { ...from.stored, ...targets };
        const plan = planKeys(map, targets, from, cheap);
        fc.pre(plan.unreachable.length === 0 && (map.menu.repeat?.everyMs ?? Infinity) >= 2 * HOLD_TOLERANCE_MS);
        seen[pin ? 'pin' : 'glass']++;
        const isProved = Object.keys(from.unstored).length === 0;
        if (isProved && endsAlike(map)) expect(plan.isShortest).toBe(true);
        const best = cheapestByTryingAll(map, from, goal, cheap) ?? -1;
        if (plan.isShortest) expect(plan.estimatedMs).toBeCloseTo(best, 6);
        else expect(plan.atLeastMs).toBeLessThanOrEqual(best + 1e-6);
        const end = plan.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), from);
        expect(end).toMatchObject({ stored: goal, screen: { kind: 'riding' } });
      }),
      { numRuns: RUNS, seed },
    );
    expect(Math.min(seen.pin, seen.glass)).toBeGreaterThan(5);
  });
});
