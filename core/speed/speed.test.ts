import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { code, line } from '../testing/samples.js';
import { greatestSafeKmh, safeCap } from './safe-cap.js';
import { inKmh, kmhWords, mayBeOtherUnit, speedWords } from './speed.js';
import { parseTyreMarking, rollOutGuess } from './tyre-marking.js';
import { circumferenceMm, wheelValueFor } from './wheel-code.js';

describe('a speed', () => {
  it('keeps the unit it was laid down in', () => {
    expect(inKmh({ value: 15.5, unit: 'mph' })).toBeCloseTo(24.944832, 9);
    expect(speedWords({ value: 15.5, unit: 'mph' })).toBe('15.5 mph (24.945 km/h)');
    expect(speedWords({ value: 25, unit: 'km/h' })).toBe('25 km/h');
    expect(kmhWords(24.944832)).toBe('24.9 km/h');
  });

  it.each([
    [25, 'km/h', { value: 20, unit: 'mph' }, true],
    [25, 'km/h', { value: 25, unit: 'km/h' }, false],
    [15.5, 'km/h', { value: 25, unit: 'km/h' }, true],
    [20, 'mph', { value: 25, unit: 'km/h' }, true],
    [20, 'mph', { value: 20, unit: 'mph' }, false],
    [60, 'km/h', { value: 20, unit: 'mph' }, false],
    [20, 'km/h', null, false],
    [28, 'km/h', null, true],
  ] as const)('%d %s under %j may be meant in the other unit: %s', (value, unit, statute, asked) => {
    expect(mayBeOtherUnit({ value, unit }, statute)).toBe(asked);
  });
});

describe('a tyre marking', () => {
  it('of ISO 5775 gives a first guess with its range', () => {
    expect(parseTyreMarking('47-559')).toEqual({ widthMm: 47, beadSeatMm: 559 });
    const guess = rollOutGuess({ widthMm: 47, beadSeatMm: 559 });
    expect(guess.mm).toBeCloseTo(2051.46, 1);
    expect([guess.fromMm / guess.mm, guess.toMm / guess.mm]).toEqual([
      expect.closeTo(0.97, 9),
      expect.closeTo(1.02, 9),
    ]);
  });

  it('of a small or wide tyre has the wider range', () => {
    expect(
      rollOutGuess({ widthMm: 55, beadSeatMm: 406 }).fromMm / rollOutGuess({ widthMm: 55, beadSeatMm: 406 }).mm,
    ).toBeCloseTo(0.94, 9);
    expect(
      rollOutGuess({ widthMm: 70, beadSeatMm: 622 }).fromMm / rollOutGuess({ widthMm: 70, beadSeatMm: 622 }).mm,
    ).toBeCloseTo(0.94, 9);
  });

  it.each(['10 x 2.5', '26 x 1.75', '', '47-55', '7-559', '47-990'])('"%s" is none', (marking) => {
    expect(parseTyreMarking(marking)).toBeUndefined();
  });
});

describe('a wheel code', () => {
  const inches = code('W', 'wheelSize', { range: { min: 16, max: 29, step: 1 }, encoding: line('in') });

  it('counts by its own table first, then millimetres, then inches', () => {
    expect(circumferenceMm({ ...inches, wheelTable: [{ raw: 26, mm: 2070 }] }, 26)).toBe(2070);
    expect(circumferenceMm(inches, 26)).toBeCloseTo(Math.PI * 25.4 * 26, 9);
    expect(circumferenceMm(code('W', 'wheelSize', { encoding: line('mm') }), 2080)).toBe(2080);
    expect(circumferenceMm(code('W', 'wheelSize', {}), 26)).toBeUndefined();
  });

  it('never under takes the least that is not too small, nearest the nearest', () => {
    expect(wheelValueFor(inches, 2090, 'neverUnder')?.raw).toBe(27);
    expect(wheelValueFor(inches, 2090, 'nearest')?.raw).toBe(26);
    expect(wheelValueFor(inches, 5000, 'neverUnder')?.raw).toBe(29);
    expect(wheelValueFor(code('W', 'wheelSize', {}), 2000, 'nearest')).toBeUndefined();
  });
});

describe('a safe cap', () => {
  const settable = Array.from({ length: 23 }, (_, i) => ({ raw: i + 10, kmh: i + 10 }));
  const base = { limitKmh: 25, ratio: null, overshootKmh: 0, tolerance: 0, settable };

  it('is the limit itself where nothing speaks against it', () => {
    expect(safeCap(base)).toEqual({ raw: 25, shownKmh: 25, trueKmh: 25 });
    expect(safeCap({ ...base, ratio: { k: 1, low: 1 } })?.raw).toBe(25);
  });

  it('counts the lower end of the ratio and what drive does beyond it', () => {
    expect(safeCap({ ...base, ratio: { k: 0.98, low: 0.96 } })?.raw).toBe(24);
    expect(safeCap({ ...base, ratio: { k: 0.98, low: 0.96 }, overshootKmh: 1 })?.raw).toBe(23);
    expect(safeCap({ ...base, ratio: { k: 1.1, low: 1.08 } })?.raw).toBe(25);
  });

  it('of a display that nobody measured is no bolder than of one that was found true', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        fc.double({ min: 1, max: 2.5, noNaN: true }),
        (limitKmh, overshootKmh, tolerance, k) => {
          const unknown = greatestSafeKmh({ limitKmh, ratio: null, overshootKmh, tolerance });
          expect(unknown).toBe(greatestSafeKmh({ limitKmh, ratio: { k: 1, low: 1 }, overshootKmh, tolerance }));
          expect(unknown).toBeLessThanOrEqual(
            greatestSafeKmh({ limitKmh, ratio: { k, low: k }, overshootKmh, tolerance }),
          );
        },
      ),
      { seed: 5 },
    );
    expect(safeCap({ ...base, overshootKmh: 1, tolerance: 0.1 })?.raw).toBe(24);
  });

  it.each([
    { limitKmh: NaN },
    { limitKmh: Infinity },
    { limitKmh: 0 },
    { ratio: { k: NaN, low: 1 } },
    { ratio: { k: 1, low: 0 } },
    { ratio: { k: -1, low: -1 } },
    { ratio: { k: Infinity, low: Infinity } },
    { overshootKmh: -1 },
    { overshootKmh: NaN },
    { tolerance: -0.1 },
    { tolerance: Infinity },
  ])('is none where a figure is none: %j', (over) => {
    expect(safeCap({ ...base, ...over })).toBeUndefined();
  });

  it('loosens only the worst case by a tolerance the rule states', () => {
    const ratio = { k: 1, low: 0.95 };
    expect(safeCap({ ...base, ratio })?.raw).toBe(23);
    expect(safeCap({ ...base, ratio, tolerance: 0.1 })?.raw).toBe(25);
  });

  it('does not exist where no value satisfies, or the ratio is none', () => {
    expect(safeCap({ ...base, limitKmh: 8 })).toBeUndefined();
    expect(safeCap({ ...base, ratio: { k: 0.1, low: 0 } })).toBeUndefined();
  });

  it('is the greatest that is safe: the next one up is not', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 32, noNaN: true }),
        fc.double({ min: 0.8, max: 1.2, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        (limitKmh, low, overshootKmh) => {
          const isSafe = (kmh: number) =>
            (kmh + overshootKmh) / low <= limitKmh * (1 + 1e-9) && kmh <= limitKmh * (1 + 1e-9);
          const cap = safeCap({ ...base, limitKmh, ratio: { k: low, low }, overshootKmh });
          return cap === undefined
            ? !settable.some(({ kmh }) => isSafe(kmh))
            : isSafe(cap.shownKmh) && !settable.some(({ kmh }) => kmh > cap.shownKmh && isSafe(kmh));
        },
      ),
      { numRuns: 150 },
    );
  });
});
