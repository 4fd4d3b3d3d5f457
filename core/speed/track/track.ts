import type { Place } from './wgs84.js';

/** A position of a track. */
export interface TrackPoint extends Place {
  /** Milliseconds since 1970, UTC. */
  readonly ms: number;
  /** Height above the sea, m, where the track has it. */
  readonly heightM?: number;
}

export interface Track {
  readonly name: string;
  readonly points: readonly TrackPoint[];
  /** What was met on the way and dealt with, for a person to read. */
  readonly notes: readonly string[];
}

/** Positions of a track are taken for so sure, m, unless more is known. */
export const POSITION_SD_M = 1.5;
