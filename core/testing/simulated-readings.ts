import type { SpeedGlass, SpeedReading } from '../speed/ratio/reading.js';
import { seeded } from '../statistics/seeded.js';

/** What one reading of a reference is worth. */
export interface SimulatedReference {
  readonly name: string;
  readonly uCommon: number;
  /** Standard deviation of one reading at a true speed, km/h. */
  readonly u: (trueKmh: number) => number;
}

const TIMED_M = 60;

export const SIMULATED_REFERENCES: readonly SimulatedReference[] = [
  { name: 'spot', uCommon: 0, u: () => 0.5 },
  { name: 'timed distance', uCommon: 0.002, u: (kmh) => (kmh * Math.SQRT2 * 0.1) / (TIMED_M / (kmh / 3.6)) },
  { name: 'roller bench', uCommon: 0.004, u: (kmh) => 0.002 * kmh + 0.02 },
  { name: 'track', uCommon: 0, u: () => (3.6 * Math.SQRT2 * 1.5) / 25 },
];

export interface SimulatedRun {
  readonly reference: SimulatedReference;
  readonly glass: SpeedGlass & { readonly rounding: 'nearest' | 'truncated' };
  readonly count: number;
  readonly speeds: 'spread' | 'repeated';
}

/** A hidden ratio, and readings that a careful person would have taken of it. The same seed gives the same. */
export function simulateRun(
  { reference, glass, count, speeds }: SimulatedRun,
  seed: number,
): { readonly k: number; readonly readings: readonly SpeedReading[] } {
  const { uniform, normal } = seeded(seed);
  const k = 0.9 + 0.2 * uniform();
  const common = 1 + reference.uCommon * normal();
  const once = 8 + 18 * uniform();
  const readings = Array.from({ length: count }, (_, i) => {
    const actual = speeds === 'repeated' ? once : 7 + (20 * (i + uniform())) / count;
    const counted = (k * actual) / glass.resolutionKmh;
    const figure = glass.rounding === 'truncated' ? Math.floor(counted) : Math.round(counted);
    const u = reference.u(actual);
    return {
      trueKmh: actual * common + u * normal(),
      uKmh: u,
      reference: reference.name,
      uCommon: reference.uCommon,
      shownKmh: figure * glass.resolutionKmh,
      scale: 1,
    };
  });
  return { k, readings };
}
