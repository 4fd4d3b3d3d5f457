import type { TrackPoint } from '../speed/track/track.js';
/** Part of a ride: so many seconds at a speed, reached over the first few of them. */
export interface RidePart {
  readonly kmh: number;
  readonly seconds: number;
}
export interface RiddenPoint extends TrackPoint {
  readonly trueKmh: number;
}
/** Laps of the yard with positions that scatter by `sigmaM`, one a second. The same seed gives the same ride. */
export declare function rideInYard(
  parts: readonly RidePart[],
  {
    seed,
    sigmaM,
    stepMs,
  }?: {
    seed?: number | undefined;
    sigmaM?: number | undefined;
    stepMs?: number | undefined;
  },
): readonly RiddenPoint[];
export declare const gpxOf: (points: readonly TrackPoint[], name?: string) => string;
