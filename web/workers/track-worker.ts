import { expose } from 'comlink';
import {
  readTrack,
  smoothTrack,
  speedsAlong,
  steadyStretches,
  stretchBetween,
  type Problem,
  type SmoothRun,
  type SpeedAt,
  type Stretch,
  type TrackCut,
} from '@decurio/core';

/** A track as the screen shows it. */
export interface TrackView {
  readonly name: string;
  readonly notes: readonly string[];
  readonly startMs: number;
  readonly endMs: number;
  readonly points: number;
  /** At most two thousand, evenly picked. A null speed breaks the line where the track was cut. */
  readonly speeds: readonly { readonly ms: number; readonly kmh: number | null }[];
  readonly stretches: readonly Stretch[];
  readonly cuts: readonly TrackCut[];
}

const SHOWN = 2_000;
let smoothed: readonly (readonly SmoothRun[])[] = [];

const reader = {
  /** Reads a file and finds the steady stretches of each of its tracks. `zone`: of times without one. `onProgress` hears a share, 0 to 1. */
  read(
    text: string,
    zone: string,
    onProgress: (share: number) => void,
  ): { readonly tracks: readonly TrackView[] } | { readonly problem: Problem } {
    const read = readTrack(text, zone, (share) => onProgress(share * 0.6));
    if (!read.ok) return { problem: read.problem };
    smoothed = [];
    const tracks = read.value.map((track, i) => {
      const { runs, cuts } = smoothTrack(track.points);
      smoothed = [...smoothed, runs];
      onProgress(0.6 + (0.4 * (i + 1)) / read.value.length);
      const along = runs.map(speedsAlong);
      return {
        name: track.name,
        notes: track.notes,
        startMs: track.points[0]?.ms ?? 0,
        endMs: track.points.at(-1)?.ms ?? 0,
        points: track.points.length,
        speeds: thinned(along),
        stretches: steadyStretches(runs),
        cuts,
      };
    });
    return { tracks };
  },
  /** A stretch that a person drew; null where the track has a gap in it. */
  between: (track: number, fromMs: number, toMs: number): Stretch | null =>
    stretchBetween(smoothed[track] ?? [], fromMs, toMs) ?? null,
};
export type TrackReader = typeof reader;

function thinned(runs: readonly (readonly SpeedAt[])[]): TrackView['speeds'] {
  const total = runs.reduce((sum, run) => sum + run.length, 0);
  const every = Math.max(1, Math.ceil(total / SHOWN));
  return runs.flatMap((run) => [
    ...run.filter((_, i) => i % every === 0 || i === run.length - 1),
    { ms: (run.at(-1)?.ms ?? 0) + 1, kmh: null },
  ]);
}

expose(reader);
