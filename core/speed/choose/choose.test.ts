import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SpeedReading } from '../ratio/reading.js';
import { estimateSpeedRatio } from '../ratio/estimate-speed-ratio.js';
import { chooseWheelCodes, endSpeed, type WheelQuestion } from './choose-wheel-codes.js';
import { confirmRun } from './confirm-run.js';
import { nextReading } from './next-reading.js';

const inch = (raw: number) => ({ raw, mm: Math.PI * 25.4 * raw });
const caps = Array.from({ length: 23 }, (_, i) => ({ raw: i + 10, kmh: i + 10 }));
/** 26 keyed, and the display reads 3.7 % low: each inch of the code is 3.8 %. */
const question: WheelQuestion = {
  ratio: { k: 0.963, low: 0.957, high: 0.969, wheelMm: inch(26).mm, pulses: 6 },
  wheel: [24, 26, 27, 28, 29].map(inch),
  pulses: [6],
  caps,
  limitKmh: 25,
  overshootKmh: 0,
  tolerance: 0,
  shown: 'neverUnder',
};
const seen = (each: ReturnType<typeof chooseWheelCodes>[number] | undefined) =>
  each && [each.wheel.raw, each.cap?.raw, Number(each.ends?.worst.toFixed(1)), each.mayReadUnder];

describe('wheel value and cap together', () => {
  it('never under true: the smallest that surely does not read under, and what each ends at', () => {
    const all = chooseWheelCodes(question);
    expect(all.map(seen)).toEqual([
      [28, 25, 24.3, false],
      [29, 25, 23.4, false],
      [27, 24, 24.1, true],
      [26, 23, 24, true],
      [24, 22, 24.9, true],
    ]);
    expect(all[0]?.ends).toEqual({
      kmh: expect.closeTo(24.1, 1),
      least: expect.closeTo(24, 1),
      worst: expect.closeTo(24.3, 1),
    });
  });

  it('nearest to true takes the wheel that reads truest, and the cap pays', () => {
    expect(seen(chooseWheelCodes({ ...question, shown: 'nearest' })[0])).toEqual([27, 24, 24.1, true]);
  });

  it('as keyed now, 25 would run to 26.1 at worst', () => {
    expect(endSpeed(25, question.ratio, 0)).toEqual({
      kmh: expect.closeTo(25.96, 2),
      least: expect.closeTo(25.8, 2),
      worst: expect.closeTo(26.12, 2),
    });
  });

  it('trims by pulses only where they are offered', () => {
    const trimmed = chooseWheelCodes({ ...question, pulses: [5, 6, 7], shown: 'nearest' })[0];
    expect(Math.abs(Math.log(trimmed?.ratio.k ?? 0))).toBeLessThanOrEqual(
      Math.abs(Math.log(0.963 * (27 / 26))) + 1e-12,
    );
    expect(chooseWheelCodes(question).every(({ pulses }) => pulses === 6)).toBe(true);
  });

  it('has no cap where none is safe, and such values come last', () => {
    const slow = chooseWheelCodes({
      ...question,
      limitKmh: 10,
      ratio: { ...question.ratio, k: 0.9, low: 0.88, high: 0.92 },
    });
    expect(slow.at(-1)?.cap).toBeNull();
    expect(chooseWheelCodes({ ...question, limitKmh: null })[0]?.cap).toBeNull();
  });

  it("far over is a lead's to decide", () => {
    expect(chooseWheelCodes({ ...question, wheel: [inch(30)] })[0]?.readsFarOver).toBe(true);
  });

  it('never ends above the limit, whatever the ratio, and the next cap up would', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.7, max: 1.3, noNaN: true }),
        fc.double({ min: 0.001, max: 0.05, noNaN: true }),
        fc.double({ min: 10, max: 32, noNaN: true }),
        (k, reach, limitKmh) =>
          chooseWheelCodes({
            ...question,
            limitKmh,
            ratio: { ...question.ratio, k, low: k - reach, high: k + reach },
          }).every(({ cap, ratio, ends }) => {
            if (cap === null) return caps[0]!.kmh / ratio.low > limitKmh * (1 - 1e-9) || caps[0]!.kmh > limitKmh;
            const next = cap.shownKmh + 1;
            return (
              (ends?.worst ?? Infinity) <= limitKmh * (1 + 1e-8) &&
              cap.shownKmh <= limitKmh * (1 + 1e-8) &&
              (next > 32 || next > limitKmh * (1 - 1e-8) || next / ratio.low > limitKmh * (1 - 1e-8))
            );
          }),
      ),
    );
  });
});

describe('whether to read once more', () => {
  const glass = { resolutionKmh: 0.1, rounding: 'nearest' } as const;
  const reading = (trueKmh: number, u = 0.1): SpeedReading => ({
    trueKmh,
    shownKmh: Math.round(trueKmh * 9.63) / 10,
    uKmh: u,
    reference: 'spot',
    uCommon: 0,
    scale: 1,
  });
  const ask = (speeds: readonly number[], u = 0.1, more: Partial<WheelQuestion> = {}) => {
    const readings = speeds.map((kmh) => reading(kmh, u));
    const estimate = estimateSpeedRatio(readings, glass);
    const value = estimate.ok
      ? estimate.value
      : { k: 1, u: 1, low: 0.5, high: 1.5, df: Infinity, count: 0, scatter: 0, ifTruncated: null };
    return nextReading({
      readings,
      estimate: value,
      glass,
      uNext: () => u,
      question: { ...question, ...more, ratio: { ...question.ratio, ...value } },
      fastestKmh: 30,
    });
  };

  it('asks for the first near the limit, then for a slow one, then is content', () => {
    expect(ask([])).toEqual({ isEnough: false, atKmh: 24, why: 'none' });
    expect(ask([12])).toMatchObject({ atKmh: 24, why: 'noneNearLimit' });
    expect(ask([24, 24.5])).toMatchObject({ atKmh: 12, why: 'noneSlow' });
    expect(ask([24, 12])).toMatchObject({ isEnough: false, why: 'few' });
    expect(ask([9.8, 15.6, 20.3, 24.6]).isEnough).toBe(true);
  });

  it('asks on while one more could change the pick, and names both', () => {
    const asked = ask([8, 16, 24], 0.5);
    expect(asked).toMatchObject({ isEnough: false, why: 'undecided', atKmh: 24 });
    if (!asked.isEnough) expect(asked.between?.map(({ wheel }) => wheel.raw)).toHaveLength(2);
  });

  it('asks for no speed that the vehicle does not reach', () => {
    expect(ask([], 0.1, { limitKmh: 45 })).toMatchObject({ atKmh: 30 });
  });
});

describe('a check run', () => {
  it('agrees within what is known of both', () => {
    const measured = {
      k: 1.04,
      u: 0.004,
      low: 1.032,
      high: 1.048,
      df: Infinity,
      count: 2,
      scatter: 1,
      ifTruncated: null,
    };
    expect(confirmRun({ k: 1.037, u: 0.003 }, measured)).toMatchObject({
      agrees: true,
      off: expect.closeTo(0.0029, 4),
    });
    expect(confirmRun({ k: 0.999, u: 0.003 }, measured).agrees).toBe(false);
  });
});
