import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileSetup } from '../setup/compile/compile-setup.js';
import { NO_FACTS } from '../setup/inputs/setup-inputs.js';
import { code, fourKey, inputs, line, withCodes, words } from '../testing/samples.js';
import { driftOf, driftVerdict, type ReturnRead } from './drift.js';

const map = withCodes(fourKey, [
  code('U', 'units', { encoding: words([0, 'kmh'], [1, 'mph']), range: { min: 0, max: 1, step: 1 }, factory: 0 }),
  code('C', 'speedCap', {
    range: { min: 5, max: 40, step: 1 },
    factory: 25,
    encoding: {
      kind: 'line',
      scale: 1,
      unit: 'km/h',
      follows: 'U',
      sentinels: [{ raw: 40, means: 'noCap', title: 'no cap' }],
    },
  }),
  code('W', 'wheelSize', { range: { min: 16, max: 29, step: 1 }, factory: 26, encoding: line('in') }),
  code('A', 'currentLimit', { range: { min: 5, max: 30, step: 1 }, factory: 15, encoding: line('A') }),
  code('V', 'cutoffVoltage', { range: { min: 28, max: 42, step: 1 }, factory: 31, encoding: line('V') }),
  code('B', 'brightness', { range: { min: 1, max: 5, step: 1 }, factory: 5, encoding: line('') }),
  code('O', 'odometer', { range: { min: 0, max: 99999, step: 1 }, factory: 0, encoding: line('km'), access: 'locked' }),
]);
const setup = compileSetup(inputs({ map, unit: { ...NO_FACTS, overshootKmh: 0 } }));
const left = { U: 0, C: 25, W: 26, A: 15, V: 31, B: 5, O: 3 };
const read = (values: Readonly<Record<string, number | null>>, over: Partial<ReturnRead> = {}): ReturnRead => ({
  values: { ...left, ...values },
  pin: { wasSet: true, asksNow: true },
  errors: [],
  ...over,
});
const drift = (values: Readonly<Record<string, number | null>>, over?: Partial<ReturnRead>) =>
  driftOf(left, read(values, over), map, setup);

describe('what moved while a unit was out', () => {
  it.each<[string, Readonly<Record<string, number | null>>, string, RegExp]>([
    ['cap raised', { C: 32 }, 'outOfClass', /Help ends at 32 km\/h.*25 km\/h/],
    ['cap taken away', { C: 40 }, 'outOfClass', /No cap: it runs as fast as it can/],
    ['cap lowered', { C: 20 }, 'harmless', /ends earlier: at 20 km\/h/],
    // 20 in are counted for 26: 23 % less, and 25 km/h shown are 32.5 true.
    ['a smaller wheel', { W: 20 }, 'outOfClass', /23.1 % less.*32.5 km\/h where 25 km\/h/],
    ['a greater wheel', { W: 28 }, 'harmless', /7.7 % more/],
    ['miles', { U: 1 }, 'outOfClass', /miles an hour/],
    ['more current', { A: 20 }, 'dangerous', /draw more: 20 A instead of 15 A/],
    ['less current', { A: 10 }, 'harmless', /Weaker/],
    ['a lower cut-off', { V: 28 }, 'dangerous', /run too low/],
    ['a higher cut-off', { V: 33 }, 'harmless', /earlier/],
    ['a dimmer glass', { B: 2 }, 'harmless', /nobody is hurt/],
    ['ridden', { O: 415 }, 'expected', /ran 412 km/],
    ['an odometer that runs backwards', { O: 0 }, 'outOfClass', /3 km lower/],
    ['a value that its map does not know', { W: 99 }, 'outOfClass', /another display/],
    ['a cap that is not shown any more', { C: null }, 'outOfClass', /lists it no more/],
  ])('%s', (_what, values, grade, says) => {
    const [only, ...others] = drift(values);
    expect(others).toEqual([]);
    expect(only).toMatchObject({ grade });
    expect(only?.says).toMatch(says);
  });

  it('counts a cap that follows the units in those that it shows now', () => {
    const [cap] = drift({ U: 1, C: 16 }).filter(({ label }) => label === 'C');
    // 16 mph are 25.7 km/h.
    expect(cap).toMatchObject({ grade: 'outOfClass' });
    expect(cap?.says).toMatch(/25.7 km\/h/);
  });

  it('says in one line whether it may go out again, the worst first', () => {
    const gone = drift({ C: 40, O: 415, B: 2 }, { pin: { wasSet: true, asksNow: false } });
    expect(gone.map(({ grade }) => grade)).toEqual(['outOfClass', 'outOfClass', 'harmless', 'expected']);
    expect(driftVerdict(gone)).toEqual({
      mayGoOut: false,
      says: 'Do not send it out: speed cap moved, PIN gone. It ran 412 km.',
    });
    expect(driftVerdict(drift({ O: 20 }))).toEqual({ mayGoOut: true, says: 'Good to go: as it left. It ran 17 km.' });
    expect(driftVerdict(drift({ B: 1 })).mayGoOut).toBe(true);
    expect(driftVerdict(drift({}, { errors: ['E4'] })).mayGoOut).toBe(false);
    expect(driftVerdict(drift({}, { pin: { wasSet: false, asksNow: false } })).mayGoOut).toBe(true);
  });

  it('never lets out a unit that may be faster than it left', () => {
    const raw = fc.record({
      U: fc.constantFrom(0, 1),
      C: fc.integer({ min: 5, max: 40 }),
      W: fc.integer({ min: 16, max: 29 }),
    });
    fc.assert(
      fc.property(raw, (values) => {
        const kmh = (values.C === 40 ? Infinity : values.C) * (values.U === 1 ? 1.609344 : 1) * (26 / values.W);
        if (kmh > 25 * (1 + 1e-9) && values.W <= 26) expect(driftVerdict(drift(values)).mayGoOut).toBe(false);
        if (driftVerdict(drift(values)).mayGoOut) expect(kmh).toBeLessThanOrEqual(25 * (1 + 1e-9));
      }),
    );
  });
});
