import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { DisplayMap } from '../display/map/display-map.js';
import { compileSetup } from '../setup/compile/compile-setup.js';
import { NO_FACTS, type SetupInputs } from '../setup/inputs/setup-inputs.js';
import { fourKey, inputs } from '../testing/samples.js';
import { isAnythingMoved, movedRules, reasonsOf, type WorkedOut } from './moved-rules.js';

const known = { unit: { ...NO_FACTS, overshootKmh: 0 } };
const worked = (over: Partial<SetupInputs> = {}): WorkedOut => {
  const all = inputs({ ...known, ...over });
  return { setup: compileSetup(all), map: all.map };
};
const was = worked();
const label = (what: string): string => fourKey.codes.find((code) => code.function === what)?.label ?? '';
const values = Object.fromEntries(
  was.setup.targets.flatMap(({ label: own, raw }) => {
    const code = fourKey.codes.find((each) => each.label === own);
    return code ? [[own, raw ?? code.factory]] : [];
  }),
);
const left = { values, worstKmh: 25 };
const slower = (kmh: number): WorkedOut => {
  const all = inputs(known);
  const vehicleClass = { ...all.vehicleClass, limit: { value: kmh, unit: 'km/h' as const } };
  return worked({ vehicleClass });
};

describe('rules that moved, held against a unit that is out', () => {
  it('say nothing where nothing moved', () => {
    const moved = movedRules(was, worked());
    expect(isAnythingMoved({ ...moved, is: { ...moved.is, map: moved.was.map } })).toBe(false);
    expect(reasonsOf(moved, left)).toEqual([]);
  });

  it('call back what may run faster than is allowed now, and leave what does not', () => {
    const moved = movedRules(was, slower(20));
    expect(reasonsOf(moved, left)[0]).toEqual({
      grade: 'outOfClass',
      says: 'Help may run to 25 km/h, and 20 km/h is allowed.',
    });
    expect(reasonsOf(moved, { ...left, worstKmh: 20 }).filter(({ says }) => says.startsWith('Help'))).toEqual([]);
    expect(reasonsOf(moved, { ...left, worstKmh: null })[0]?.says).toContain('Nothing ends help');
  });

  it('never lets pass a unit whose worst speed is beyond the new limit', () => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 24 }), fc.double({ min: 5, max: 60, noNaN: true }), (limit, worstKmh) => {
        const isCalled = reasonsOf(movedRules(was, slower(limit)), { values, worstKmh }).some(({ says }) =>
          says.startsWith('Help may run'),
        );
        expect(isCalled).toBe(worstKmh > limit * (1 + 1e-9));
      }),
      { numRuns: 40 },
    );
  });

  it('see that a value of a cap is known to mean no cap now', () => {
    const cap = label('speedCap');
    const map: DisplayMap = {
      ...fourKey,
      codes: fourKey.codes.map((code) =>
        code.label === cap && code.encoding.kind === 'line'
          ? {
              ...code,
              encoding: { ...code.encoding, sentinels: [{ raw: values[cap] ?? 0, means: 'noCap', title: 'no cap' }] },
            }
          : code,
      ),
    };
    const reasons = reasonsOf(movedRules(was, worked({ map })), left);
    expect(reasons[0]).toMatchObject({ grade: 'outOfClass' });
    expect(reasons[0]?.says).toContain('Nothing ends help');
  });

  it('name a code that must be otherwise, by what it does', () => {
    const start = was.setup.targets.find(
      ({ function: what, raw: own }) => what === 'currentLimit' && own !== null,
    )!.label;
    const target = was.setup.targets.find((each) => each.label === start);
    const other = fourKey.codes.find((code) => code.label === start)!;
    const raw = (target?.raw ?? 0) === other.range.min ? other.range.max : other.range.min;
    const is: WorkedOut = {
      ...was,
      setup: {
        ...was.setup,
        targets: was.setup.targets.map((each) => (each.label === start ? { ...each, raw } : each)),
      },
    };
    const [reason, ...others] = reasonsOf(movedRules(was, is), left);
    expect(others).toEqual([]);
    expect(reason).toMatchObject({ grade: 'outOfClass' });
    expect(reason?.says).toMatch(/left at .*, and must be/);
    expect(reasonsOf(movedRules(was, is), { ...left, values: { ...values, [start]: raw } })).toEqual([]);
    expect(reasonsOf(movedRules(was, is), { ...left, values: {} })[0]?.says).toContain('was not read');
  });

  it('stop what the newer rules do not allow at all, and nothing that was stopped before', () => {
    const stop = { level: 'stop' as const, label: null, says: 'Too strong for this class.' };
    const is: WorkedOut = { ...was, setup: { ...was.setup, findings: [...was.setup.findings, stop] } };
    expect(reasonsOf(movedRules(was, is), left)).toEqual([{ grade: 'outOfClass', says: stop.says }]);
    expect(reasonsOf(movedRules(is, is), left)).toEqual([]);
  });
});
