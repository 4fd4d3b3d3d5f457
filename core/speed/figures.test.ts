import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { oneSidedFactor, twoSidedFactor } from '../statistics/tolerance.js';
import { chooseWheelCodes, endSpeed } from './choose/choose-wheel-codes.js';
import { confirmRun } from './choose/confirm-run.js';
import { bentLine, endOnBentLine } from './ratio/bent-line.js';
import { estimateSpeedRatio } from './ratio/estimate-speed-ratio.js';
import type { SpeedReading } from './ratio/reading.js';
import { suspectMiles, suspectPulses } from './ratio/wrong-count.js';
import { rolledOut } from './references/roll-out.js';
import { rollerSpeed } from './references/roller-bench.js';
import { timedSpeed } from './references/timed-distance.js';
import { greatestSafeKmh } from './safe-cap.js';
import { steadyStretches, stretchBetween } from './track/steady-stretches.js';
import { circumferenceMm, wheelValueFor } from './wheel-code.js';
import { cutoffTargetV } from '../electrical/cutoff.js';
import { code, line } from '../testing/samples.js';

/** No figure that a person or an instrument can mean. */
const NONE = [NaN, Infinity, -Infinity, -1];
const reading: SpeedReading = { trueKmh: 20, uKmh: 0.1, reference: 'r', uCommon: 0, shownKmh: 20.5, scale: 1 };
const glass = { resolutionKmh: 0.1, rounding: 'nearest' } as const;
const inches = code('W1', 'wheelSize', { range: { min: 20, max: 29, step: 1 }, encoding: line('in') });
const isRefused = (outcome: { readonly ok: boolean }): boolean => !outcome.ok;

describe('figures that are none', () => {
  it.each(NONE)('%d is refused by every reference', (bad) => {
    expect(isRefused(timedSpeed({ distanceM: bad, uDistanceM: 0, seconds: 8 }))).toBe(true);
    expect(isRefused(timedSpeed({ distanceM: 50, uDistanceM: bad, seconds: 8 }))).toBe(true);
    expect(isRefused(timedSpeed({ distanceM: 50, uDistanceM: 0, seconds: bad }))).toBe(true);
    expect(isRefused(rollerSpeed({ rpm: bad, stepRpm: 1, rollerMm: 100, withinMm: 0.5 }))).toBe(true);
    expect(isRefused(rollerSpeed({ rpm: 900, stepRpm: bad, rollerMm: 100, withinMm: 0.5 }))).toBe(true);
    expect(isRefused(rollerSpeed({ rpm: 900, stepRpm: 1, rollerMm: bad, withinMm: 0.5 }))).toBe(true);
    expect(isRefused(rollerSpeed({ rpm: 900, stepRpm: 1, rollerMm: 100, withinMm: bad }))).toBe(true);
    expect(isRefused(rolledOut({ distanceMm: bad, turns: 5, loaded: true }))).toBe(true);
    expect(isRefused(rolledOut({ distanceMm: 10_000, turns: bad, loaded: true }))).toBe(true);
  });

  it.each(NONE)('%d makes no ratio, wherever in a reading it stands', (bad) => {
    for (const key of ['trueKmh', 'uKmh', 'uCommon', 'shownKmh', 'scale'] as const)
      expect(estimateSpeedRatio([reading, { ...reading, [key]: bad }], glass)).toMatchObject({
        ok: false,
        problem: { code: 'noSpeed' },
      });
    expect(estimateSpeedRatio([reading], { ...glass, resolutionKmh: bad })).toMatchObject({
      ok: false,
      problem: { code: 'noFigure' },
    });
  });

  it.each([...NONE, 0])('a ratio of %d chooses nothing, agrees with nothing and lets nothing be capped', (bad) => {
    const question = {
      ratio: { k: bad, low: bad, high: bad, wheelMm: 2070, pulses: 1 },
      wheel: [{ raw: 26, mm: 2070 }],
      pulses: [1],
      caps: [{ raw: 25, kmh: 25 }],
      limitKmh: 25,
      overshootKmh: 0,
      tolerance: 0,
      shown: 'nearest',
    } as const;
    expect(chooseWheelCodes(question)).toEqual([]);
    expect(chooseWheelCodes({ ...question, ratio: { k: 1, low: 1, high: 1, wheelMm: bad, pulses: 1 } })).toEqual([]);
    const measured = estimateSpeedRatio([reading], glass);
    expect(measured.ok && confirmRun({ k: bad, u: 0.01 }, measured.value).agrees).toBe(false);
    expect(greatestSafeKmh({ limitKmh: 25, ratio: { k: bad, low: bad }, overshootKmh: 0, tolerance: 0 })).toBe(
      -Infinity,
    );
    const counted = { k: bad, low: bad, high: bad, wheelMm: 2070, pulsesSet: 1, wheelsMm: [2070] };
    expect([suspectMiles(counted), suspectPulses(counted)]).toEqual([null, null]);
  });

  it('never let drive end sooner than it may: a ratio that may be nought has no end', () => {
    expect(endSpeed(25, { k: 1, low: 0, high: 2 }, 0).worst).toBe(Infinity);
    expect(endSpeed(25, { k: 1, low: -0.2, high: 2 }, 0).worst).toBe(Infinity);
    expect(endSpeed(NaN, { k: 1, low: 1, high: 1 }, 0).worst).toBe(Infinity);
    expect(endSpeed(25, { k: 1, low: 1, high: 1 }, -3).worst).toBe(Infinity);
  });

  it.each(NONE)('%d is no wheel, no wheel value and no scatter of positions', (bad) => {
    expect(circumferenceMm(inches, bad)).toBeUndefined();
    expect(wheelValueFor(inches, bad, 'nearest')).toBeUndefined();
    const run = { ms: [0, 60_000], pathM: [0, 300] };
    expect(steadyStretches([run], bad)).toEqual([]);
    expect(stretchBetween([run], 0, 60_000, bad)).toBeUndefined();
    expect(stretchBetween([run], 0, 60_000, 1.5)?.kmh).toBeCloseTo(18, 6);
    const pack = { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13 } as const;
    expect(() => cutoffTargetV(pack, bad)).toThrow(RangeError);
  });

  it('leave no tolerance: fewer than two of a sample are a fault of ours', () => {
    for (const n of [NaN, 0, 1, 1.5, -4, Infinity]) {
      expect(() => oneSidedFactor(n)).toThrow(RangeError);
      expect(() => twoSidedFactor(n)).toThrow(RangeError);
    }
  });
});

describe('a line that is bent', () => {
  it('ends without end where it never comes to the cap, and never below nought', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.4, max: 1.6, noNaN: true }),
        fc.double({ min: -0.02, max: 0.02, noNaN: true }),
        fc.double({ min: 5, max: 45, noNaN: true }),
        (slope, curve, cap) => {
          const readings = [5, 8, 11, 14, 17, 20, 23, 26].map((trueKmh) => ({
            ...reading,
            trueKmh,
            uKmh: 0.02,
            shownKmh: slope * trueKmh + curve * trueKmh ** 2,
          }));
          if (readings.some(({ shownKmh }) => shownKmh <= 0)) return;
          const bent = bentLine(readings, { resolutionKmh: 0.01, rounding: 'nearest' }, slope);
          if (!bent) return;
          const { worst, kmh } = endOnBentLine(bent, cap);
          expect(worst).toBeGreaterThan(0);
          expect(worst).toBeGreaterThanOrEqual(kmh);
        },
      ),
    );
  });
});
