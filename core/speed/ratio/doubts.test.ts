import { describe, expect, it } from 'vitest';
import { simulateRun, SIMULATED_REFERENCES } from '../../testing/simulated-readings.js';
import { estimateSpeedRatio } from './estimate-speed-ratio.js';
import { lineFit } from './line-fit.js';
import { readingDoubts } from './reading-doubts.js';
import type { SpeedReading } from './reading.js';
import { seeded } from '../../statistics/seeded.js';
import { bentLine, endOnBentLine } from './bent-line.js';
import { suspectMiles, suspectPulses } from './wrong-count.js';

const glass = { resolutionKmh: 0.1, rounding: 'nearest' } as const;
const reading = (trueKmh: number, shownKmh: number, uKmh = 0.2): SpeedReading => ({
  trueKmh,
  shownKmh,
  uKmh,
  reference: 'spot',
  uCommon: 0,
  scale: 1,
});
const ratioOf = (readings: readonly SpeedReading[]): number => {
  const outcome = estimateSpeedRatio(readings, glass);
  return outcome.ok ? outcome.value.k : NaN;
};

describe('a doubtful reading', () => {
  const good = [reading(9.8, 9.4), reading(15.6, 15), reading(20.3, 19.6), reading(24.6, 23.7)];

  it('that was read while braking is named, and it alone', () => {
    const all = [...good, reading(17.6, 19.8)];
    const doubts = readingDoubts(all, glass, ratioOf(all));
    expect(doubts.map(({ index }) => index)).toEqual([4]);
    expect(doubts[0]?.times).toBeGreaterThan(6);
    expect(doubts[0]?.offKmh).toBeGreaterThan(2);
  });

  it('cannot be told among four', () => {
    const four = [...good.slice(1), reading(17.6, 19.8)];
    expect(readingDoubts(four, glass, ratioOf(four))).toEqual([]);
  });

  it('is not one whose instruments explain it, however well the others agree', () => {
    const exact = [8, 12, 16, 20].map((kmh) => reading(kmh, kmh * 0.95, 0.5));
    const all = [...exact, reading(24, 24 * 0.95 + 0.4, 0.5)];
    expect(readingDoubts(all, glass, ratioOf(all))).toEqual([]);
  });

  it('is named in at most one in twenty runs that have none', () => {
    const reference = SIMULATED_REFERENCES[0]!;
    const runs = Array.from(
      { length: 1000 },
      (_, seed) => simulateRun({ reference, glass, count: 8, speeds: 'spread' }, seed + 1).readings,
    );
    const named = runs.filter((readings) => readingDoubts(readings, glass, ratioOf(readings)).length > 0).length;
    expect(named).toBeLessThan(50);
  });
});

describe('a line that misses the origin', () => {
  const speeds = [6, 9, 12, 15, 18, 21, 24];

  it('is told by its offset, and what the wheel code cannot cure is predicted by the line', () => {
    const off = speeds.map((kmh) => reading(kmh, 1.4 + 0.95 * kmh));
    const fit = lineFit(off, glass, ratioOf(off), () => 1);
    expect(fit?.isReal).toBe(true);
    expect(fit?.amount).toBeCloseTo(1.4, 1);
    expect(fit?.slope).toBeCloseTo(0.95, 2);
  });

  it('or bends, as missed pulses make it, is told by its bend', () => {
    const bent = speeds.map((kmh) => reading(kmh, 1.05 * kmh - 0.01 * kmh ** 2, 0.1));
    expect(lineFit(bent, glass, ratioOf(bent), (kmh) => kmh ** 2)?.isReal).toBe(true);
  });

  it.each([5, 12, 40])('is claimed of at most three in a hundred runs of %d readings that have neither', (count) => {
    const reference = SIMULATED_REFERENCES[0]!;
    const runs = Array.from(
      { length: 1000 },
      (_, seed) => simulateRun({ reference, glass, count, speeds: 'spread' }, seed + 1).readings,
    );
    const claimed = runs.filter((readings) => lineFit(readings, glass, ratioOf(readings), () => 1)?.isReal).length;
    expect(claimed).toBeLessThan(30);
  });

  it('is not looked for among three readings, or where all are at one speed', () => {
    expect(
      lineFit(
        speeds.slice(0, 3).map((kmh) => reading(kmh, kmh)),
        glass,
        1,
        () => 1,
      ),
    ).toBeNull();
    expect(
      lineFit(
        [1, 2, 3, 4, 5].map(() => reading(20, 19)),
        glass,
        0.95,
        () => 1,
      ),
    ).toBeNull();
  });
});

describe('a wrong count', () => {
  const inches = [24, 26, 27, 28, 29].map((inch) => Math.PI * 25.4 * inch);
  const counted = { wheelMm: Math.PI * 25.4 * 26, pulsesSet: 6, wheelsMm: inches };

  it('of pulses names the whole number that brings the ratio to 1', () => {
    expect(suspectPulses({ ...counted, k: 1.98, low: 1.96, high: 2 })).toEqual({
      kind: 'pulses',
      pulses: 12,
      ratio: expect.closeTo(0.99, 6),
    });
    expect(suspectPulses({ ...counted, k: 0.168, low: 0.167, high: 0.169 })).toMatchObject({ pulses: 1 });
  });

  it('is not named where a wheel value explains it, or tread and load do', () => {
    expect(suspectPulses({ ...counted, k: 0.96, low: 0.95, high: 0.97 })).toBeNull();
    expect(suspectPulses({ ...counted, wheelsMm: [1600, 2100], k: 1.3, low: 1.29, high: 1.31 })).toBeNull();
  });

  it('of miles for kilometres is asked about', () => {
    const byWheel = (k: number, set: number, ...inches: number[]) =>
      suspectMiles({ k, wheelMm: set, wheelsMm: [set, ...inches] });
    expect(byWheel(0.61, 26, 24, 28)).toEqual({ kind: 'miles', meant: 'mph' });
    expect(byWheel(1.63, 26, 24, 28)).toEqual({ kind: 'miles', meant: 'km/h' });
    expect(byWheel(0.96, 26, 24, 28)).toBeNull();
    // A wheel code explains these exactly.
    for (const [set, real] of [
      [26, 16],
      [20, 12],
      [29, 18],
      [16, 26],
    ] as const)
      expect(byWheel(set / real, set, ...Array.from({ length: 18 }, (_, i) => i + 12))).toBeNull();
    // Miles explain it better than the nearest wheel does.
    expect(byWheel(1.609, 26, 16)).toEqual({ kind: 'miles', meant: 'km/h' });
  });
});

describe('the end of drive on such a line', () => {
  it('is predicted by the line, with an interval that holds the truth about as often as it says', () => {
    let held = 0;
    for (let seed = 1; seed <= 600; seed++) {
      const { normal } = seeded(seed);
      const readings = [6, 9, 12, 15, 18, 21, 24].map((kmh) =>
        reading(kmh + 0.15 * normal(), Math.round((2 + 0.93 * kmh) * 10) / 10, 0.15),
      );
      const bent = bentLine(readings, glass, ratioOf(readings));
      if (!bent) throw new Error('the offset was not seen');
      const { least, worst } = endOnBentLine(bent, 25);
      const truth = (25 - 2) / 0.93;
      if (least <= truth && truth <= worst) held++;
    }
    expect(held / 600).toBeGreaterThan(0.9);
    expect(held / 600).toBeLessThan(0.99);
  });
});
