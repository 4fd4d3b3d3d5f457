import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judgeEstimator } from '../../testing/judge-estimator.js';
import { SIMULATED_REFERENCES } from '../../testing/simulated-readings.js';
import { estimateSpeedRatio, type SpeedRatioEstimate } from './estimate-speed-ratio.js';
import type { SpeedGlass, SpeedReading } from './reading.js';

const tenths: SpeedGlass = { resolutionKmh: 0.1, rounding: 'nearest' };
const whole: SpeedGlass = { resolutionKmh: 1, rounding: 'nearest' };
const reading = (trueKmh: number, shownKmh: number, more: Partial<SpeedReading> = {}): SpeedReading => ({
  trueKmh,
  shownKmh,
  uKmh: 0.1,
  reference: 'spot',
  uCommon: 0,
  scale: 1,
  ...more,
});
const estimate = (readings: readonly SpeedReading[], glass = tenths): SpeedRatioEstimate => {
  const outcome = estimateSpeedRatio(readings, glass);
  if (!outcome.ok) throw new Error(outcome.problem.message);
  return outcome.value;
};

describe('a speed ratio', () => {
  const yard = [reading(9.8, 9.4), reading(15.6, 15), reading(20.3, 19.6), reading(24.6, 23.7)];

  it('of four readings in the yard is 3.7 % low, to within half a per cent', () => {
    const { k, low, high, count } = estimate(yard);
    expect(k).toBeCloseTo(0.9636, 3);
    expect([(k - low) / k, (high - k) / k]).toEqual([expect.closeTo(0.0056, 3), expect.closeTo(0.0056, 3)]);
    expect(count).toBe(4);
  });

  it('of one reading is known by its instruments alone: sqrt((k u)^2 + res^2 / 12) / true', () => {
    const { k, u, df } = estimate([reading(20, 19, { uKmh: 0.5 })], whole);
    expect(k).toBeCloseTo(0.95, 6);
    expect(u).toBeCloseTo(Math.hypot(0.95 * 0.5, 1 / Math.sqrt(12)) / 20, 3);
    expect(df).toBe(Infinity);
  });

  it('does not shrink below what all readings of its reference share', () => {
    const many = Array.from({ length: 40 }, (_, i) =>
      reading(8 + i * 0.45, (8 + i * 0.45) * 0.96, { uCommon: 0.01, reference: 'roller' }),
    );
    expect(estimate(many).u).toBeGreaterThan(0.0096);
    const halves = many.map((each, i) => (i % 2 === 0 ? each : { ...each, reference: 'another roller' }));
    expect(estimate(halves).u).toBeLessThan(0.0075);
  });

  it('counts repeats at one speed as sharing one rounding error', () => {
    const repeated = Array.from({ length: 12 }, () => reading(20, 19, { uKmh: 0.02 }));
    const spread = Array.from({ length: 12 }, (_, i) => reading((8 + i) / 0.95, 8 + i, { uKmh: 0.02 }));
    expect(estimate(repeated, whole).u).toBeCloseTo(1 / Math.sqrt(12) / 20, 3);
    expect(estimate(spread, whole).u).toBeLessThan(0.007);
  });

  it('widens where readings scatter more than their instruments explain', () => {
    const rough = [reading(10, 9), reading(15, 15.6), reading(20, 18.2), reading(25, 25.1)];
    const { scatter, df, low, high } = estimate(rough);
    expect(scatter).toBeGreaterThan(20);
    expect(df).toBeLessThan(3.6);
    expect(high - low).toBeGreaterThan(0.15);
  });

  it('adds half a step where the display truncates, and says the doubt where nobody knows', () => {
    const shown = [8, 12, 16, 20, 24].map((kmh) => reading((kmh + 0.5) / 0.97, kmh));
    expect(estimate(shown, { ...whole, rounding: 'truncated' }).k).toBeCloseTo(0.97, 3);
    const unknown = estimate(shown, { ...whole, rounding: null });
    expect(unknown.k).toBeLessThan(0.95);
    expect(unknown.ifTruncated).toBeCloseTo(0.97, 3);
  });

  it.each([
    [[reading(0, 10)], 'noSpeed'],
    [[reading(10, -1)], 'noSpeed'],
    [[reading(NaN, 10)], 'noSpeed'],
    [[], 'noReadings'],
  ])('of %j is refused: %s', (readings, code) => {
    const outcome = estimateSpeedRatio(readings, tenths);
    expect(outcome.ok ? null : outcome.problem.code).toBe(code);
  });

  it('is the exact one where readings are exact, in whatever order', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 1.6, noNaN: true }),
        fc.array(fc.double({ min: 5, max: 45, noNaN: true }), { minLength: 1, maxLength: 12 }),
        (k, speeds) => {
          const readings = speeds.map((kmh) => reading(kmh, kmh * k));
          const [forth, back] = [estimate(readings), estimate(readings.toReversed())];
          return (
            Math.abs(forth.k - k) < 1e-9 && Math.abs(forth.k - back.k) < 1e-12 && Math.abs(forth.u - back.u) < 1e-12
          );
        },
      ),
    );
  });
});

/** Two thousand runs each whose true ratio is known, the same at every run of the tests. */
describe.each(SIMULATED_REFERENCES)('over 2,000 simulated runs by $name', (reference) => {
  const cases = (['nearest', 'truncated'] as const).flatMap((rounding) =>
    [3, 8, 40].map((count) => ({ rounding, count })),
  );

  it.each(cases)(
    '$count readings over spread speeds, $rounding: the 95 % interval holds the truth, near the bound and without bias',
    ({ rounding, count }) => {
      const { coverage, overBound, bias } = judgeEstimator(
        { reference, glass: { resolutionKmh: 1, rounding }, count, speeds: 'spread' },
        2000,
      );
      expect(coverage).toBeGreaterThanOrEqual(0.93);
      expect(coverage).toBeLessThanOrEqual(0.98);
      expect(overBound).toBeLessThan(1.1);
      expect(Math.abs(bias)).toBeLessThan(0.1);
    },
  );

  it.each(cases)('$count readings repeated at one speed, $rounding: never falsely sure', ({ rounding, count }) => {
    const { coverage, bias } = judgeEstimator(
      { reference, glass: { resolutionKmh: 1, rounding }, count, speeds: 'repeated' },
      2000,
    );
    expect(coverage).toBeGreaterThanOrEqual(0.93);
    expect(Math.abs(bias)).toBeLessThan(0.1);
  });
});
