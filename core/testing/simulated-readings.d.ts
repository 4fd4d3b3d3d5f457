import type { SpeedGlass, SpeedReading } from '../speed/ratio/reading.js';
/** What one reading of a reference is worth. */
export interface SimulatedReference {
  readonly name: string;
  readonly uCommon: number;
  /** Standard deviation of one reading at a true speed, km/h. */
  readonly u: (trueKmh: number) => number;
}
export declare const SIMULATED_REFERENCES: readonly SimulatedReference[];
export interface SimulatedRun {
  readonly reference: SimulatedReference;
  readonly glass: SpeedGlass & {
    readonly rounding: 'nearest' | 'truncated';
  };
  readonly count: number;
  readonly speeds: 'spread' | 'repeated';
}
/** A hidden ratio, and readings that a careful person would have taken of it. The same seed gives the same. */
export declare function simulateRun(
  { reference, glass, count, speeds }: SimulatedRun,
  seed: number,
): {
  readonly k: number;
  readonly readings: readonly SpeedReading[];
};
