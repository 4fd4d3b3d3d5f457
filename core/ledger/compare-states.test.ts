import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileSetup } from '../setup/compile/compile-setup.js';
import { NO_FACTS } from '../setup/inputs/setup-inputs.js';
import { fourKey, inputs } from '../testing/samples.js';
import { compareStates } from './compare-states.js';
import type { Code, DisplayMap } from '../display/map/display-map.js';
import { driftOf } from './drift.js';
import type { UnitState } from './unit-state.js';

const setup = compileSetup(inputs({ unit: { ...NO_FACTS, overshootKmh: 0 } }));
const base = Object.fromEntries(
  setup.targets.flatMap(({ label, raw }) => {
    const code = fourKey.codes.find((each) => each.label === label);
    return code ? [[label, raw ?? code.factory]] : [];
  }),
);
const label = (what: string): string => fourKey.codes.find((code) => code.function === what)?.label ?? '';
const left: UnitState = {
  key: 'left',
  kind: 'left',
  serial: 'S26-0001',
  at: '2026-03-01T10:00:00.000Z',
  className: 'Assisted',
  map: fourKey,
  setup,
  base,
  values: base,
  worstKmh: 25,
  proofs: [{ test: 'end', title: 'Drive ends', verdict: 'shows' }],
  parts: [],
  ratio: { k: 1, low: 0.99, high: 1.01 },
  asksPin: null,
  errors: [],
};
const back = (values: Readonly<Record<string, number>>): UnitState => ({
  ...left,
  key: 'back-1',
  kind: 'back',
  values: { ...base, ...values },
  worstKmh: null,
  proofs: [],
  ratio: null,
});
const cap = label('speedCap');

describe('two states side by side', () => {
  it('are alike where nothing differs', () => {
    expect(compareStates(left, left)).toEqual({
      differences: [],
      same: Object.keys(base).length - secretCodes,
      unread: [],
    });
  });

  it('say of a higher cap where help ends, and how bad that is on a unit that came back', () => {
    const { differences } = compareStates(left, back({ [cap]: (base[cap] ?? 0) + 7 }));
    expect(differences).toHaveLength(1);
    expect(differences[0]).toMatchObject({ about: 'code', grade: 'outOfClass' });
    expect(differences[0]?.says).toMatch(/No cap: it runs as fast as it can/);
    const [raised] = compareStates(left, back({ [cap]: (base[cap] ?? 0) + 3 })).differences;
    expect(raised?.says).toMatch(/Help ends at 28 km\/h .* instead of at 25 km\/h/);
  });

  it('judge nothing where the second is no drift from the first', () => {
    const found: UnitState = { ...back({ [cap]: (base[cap] ?? 0) + 7 }), kind: 'found', key: 'found' };
    const [only] = compareStates(found, left).differences;
    expect(only).toMatchObject({ grade: null });
    expect(only?.says).toMatch(/Help ends earlier/);
  });

  it('say where help may run to by a smaller wheel value only where nobody worked that out', () => {
    const wheel: Code = {
      ...fourKey.codes.find(({ function: what }) => what === 'currentLimit')!,
      label: 'W',
      function: 'wheelSize',
      range: { min: 16, max: 29, step: 1 },
      encoding: { kind: 'line', scale: 1, unit: 'in', sentinels: [] },
    };
    const map: DisplayMap = { ...fourKey, codes: [...fourKey.codes, wheel] };
    const at = (state: UnitState, W: number): UnitState => ({ ...state, map, values: { ...base, W } });
    const says = (one: UnitState, other: UnitState) => compareStates(one, other).differences[0]?.says;
    expect(says(at(left, 26), at(back({}), 20))).toBe(
      'The display shows 23.1 % less: help may run to 32.5 km/h where 25 km/h was worked out.',
    );
    const found: UnitState = { ...back({}), kind: 'found', key: 'found' };
    expect(says(at(found, 26), at(left, 20))).toBe('The display shows 23.1 % less.');
    expect(says(at(left, 26), at({ ...left, serial: 'S26-0002' }, 20))).toBe('The display shows 23.1 % less.');
  });

  it('tell a ratio that moved from one that may be the same', () => {
    const again = (k: number): UnitState => ({ ...left, key: 'left', ratio: { k, low: k - 0.01, high: k + 0.01 } });
    expect(compareStates(left, again(0.995)).differences[0]?.says).toMatch(/may be off/);
    expect(compareStates(left, again(0.9)).differences[0]?.says).toMatch(/10 % less.*faster/);
    expect(compareStates(left, again(1.1)).differences[0]?.says).toMatch(/10 % more.*earlier/);
  });

  it('name a proof that was shown once and left out later, a class, and parts', () => {
    const later: UnitState = {
      ...left,
      className: 'Moped',
      proofs: [{ test: 'end', title: 'Drive ends', verdict: 'left' }],
      parts: [{ part: 'motor', words: 'new' }],
    };
    expect(compareStates(left, later).differences.map(({ about, one, other }) => [about, one, other])).toEqual([
      ['class', 'Assisted', 'Moped'],
      ['proof', 'proved', 'left out in writing'],
      ['part', 'none', 'Motor: new'],
    ]);
  });

  it('compare two units of other displays by what their codes control', () => {
    const renamed: UnitState = {
      ...left,
      serial: 'S26-0002',
      map: { ...fourKey, id: 'another', codes: fourKey.codes.map((code) => ({ ...code, label: `Z${code.label}` })) },
      values: Object.fromEntries(Object.entries(base).map(([name, raw]) => [`Z${name}`, raw + (name === cap ? 3 : 0)])),
      setup: { ...setup, speed: undefined as never },
    };
    const { differences, same } = compareStates(left, renamed);
    expect(differences.map(({ title }) => title)).toEqual(['Speed cap']);
    expect(differences[0]?.says).toMatch(/instead of/);
    expect(same).toBeGreaterThan(3);
  });

  it('say of a unit that came back what its drift says', () => {
    const some = fc.dictionary(fc.constantFrom(...Object.keys(base)), fc.integer({ min: 0, max: 99 }), { maxKeys: 4 });
    fc.assert(
      fc.property(some, (values) => {
        const read = { values: { ...base, ...values }, pin: { wasSet: false, asksNow: null }, errors: [] };
        const drifts = driftOf(base, read, fourKey, setup).map(({ says, grade }) => `${grade} ${says}`);
        const differences = compareStates(left, back(values)).differences.map(({ says, grade }) => `${grade} ${says}`);
        expect(differences.sort()).toEqual(drifts.sort());
      }),
    );
  });
});

const secretCodes = fourKey.codes.filter(
  ({ function: what, label: own }) => (what === 'accessPin' || what === 'startupPin') && base[own] !== undefined,
).length;
