import { describe, expect, it } from 'vitest';
import { seeded } from '../../statistics/seeded.js';
import { bentLine } from './bent-line.js';
import { estimateSpeedRatio } from './estimate-speed-ratio.js';
import type { SpeedGlass, SpeedReading } from './reading.js';

const WHOLE: SpeedGlass = { resolutionKmh: 1, rounding: 'nearest' };
const RUNS = 400;

/** Readings of a display in whole numbers with no offset at all, at these speeds in turn. */
function readingsAt(speeds: readonly number[], count: number, uKmh: number, seed: number): readonly SpeedReading[] {
  const { uniform, normal } = seeded(seed);
  const k = 0.94 + 0.12 * uniform();
  const where = speeds.map((kmh) => kmh + 2 * uniform() - 1);
  return Array.from({ length: count }, (_, i) => {
    const real = where[i % where.length] ?? 0;
    return {
      trueKmh: real + uKmh * normal(),
      uKmh,
      uCommon: 0,
      reference: 'spot',
      shownKmh: Math.round(k * real),
      scale: 1,
    };
  });
}

function falseAlarms(speeds: readonly number[], count: number, uKmh: number): number {
  let alarms = 0;
  for (let seed = 1; seed <= RUNS; seed++) {
    const readings = readingsAt(speeds, count, uKmh, seed);
    const found = estimateSpeedRatio(readings, WHOLE);
    if (found.ok && bentLine(readings, WHOLE, found.value.k) !== null) alarms++;
  }
  return alarms / RUNS;
}

describe('an offset that is not there', () => {
  it.each([
    ['two speeds', [10, 24], 6, 0.03],
    ['two speeds', [10, 24], 10, 0.03],
    ['two speeds', [10, 24], 20, 0.03],
    ['two speeds', [10, 24], 40, 0.03],
    ['three speeds', [8, 16, 24], 6, 0.15],
    ['three speeds', [8, 16, 24], 12, 0.15],
    ['three speeds', [8, 16, 24], 24, 0.15],
    ['spread speeds', [8, 10.3, 12.7, 14.9, 17.2, 19.6, 21.8, 24.1], 24, 0.15],
  ] as const)('is claimed in at most 2 of 100 runs: %s, %j, %i readings of ± %f', (_, speeds, count, uKmh) => {
    expect(falseAlarms(speeds, count, uKmh)).toBeLessThanOrEqual(0.02);
  });
});
