import type { TrackPoint } from './track.js';
import { distanceM, type Place } from './wgs84.js';

/** Positions so far before and after a moment speak for where it was, within so much time. */
const HALF_WINDOW_M = 12;
const SHORTEST_HALF_MS = 2_000;
const LONGEST_HALF_MS = 5_000;
/** Nothing that is got ready here goes faster, km/h: a leap beyond it is no ride. */
const LEAP_KMH = 120;
/** A receiver without sight of the sky says the same place again and again, for longer than any takes between two fixes. */
const FROZEN_MS = 4_000;
/** Heights so far before and after a moment tell how steep the way is there. */
const SLOPE_HALF_MS = 15_000;
/** No way that such a vehicle is ridden on is steeper. */
const STEEPEST = 0.25;
const LONGEST_GAP_MS = 5_000;

/** A run of positions without a gap, smoothed, with the way rolled since its first. */
export interface SmoothRun {
  readonly ms: readonly number[];
  /** Path length on the WGS84 ellipsoid since the run began, m. */
  readonly pathM: readonly number[];
}

/** Why a track was cut where it was. */
export interface TrackCut {
  readonly kind: 'gap' | 'leap' | 'frozen';
  readonly fromMs: number;
  readonly toMs: number;
}

/**
 * Smooths positions, not speeds: a speed from jittered positions lies high. Each position is where a parabola through
 * its neighbours lies, which follows a bend that a mean would cut; what scatter is left is taken off the way. Where the
 * track has heights the way is the one along the slope. A fix that a fast log repeats counts once. Gaps, leaps and frozen
 * positions end a run.
 */
export function smoothTrack(points: readonly TrackPoint[]): {
  readonly runs: readonly SmoothRun[];
  readonly cuts: readonly TrackCut[];
} {
  const { pieces, cuts } = cutTrack(points);
  return { runs: pieces.filter((piece) => piece.length > 2).map(smoothPiece), cuts };
}

function cutTrack(points: readonly TrackPoint[]): {
  readonly pieces: readonly (readonly TrackPoint[])[];
  readonly cuts: readonly TrackCut[];
} {
  const gapMs = Math.max(LONGEST_GAP_MS, 3 * usualStepMs(points));
  const pieces: TrackPoint[][] = [];
  const cuts: TrackCut[] = [];
  let piece: TrackPoint[] = [];
  let fix: TrackPoint | null = null;
  let isFrozen = false;
  const cut = (kind: TrackCut['kind'], fromMs: number, toMs: number): void => {
    pieces.push(piece);
    piece = [];
    cuts.push({ kind, fromMs, toMs });
  };
  for (const [i, point] of points.entries()) {
    const before = points[i - 1];
    if (before && fix && fix.lat === point.lat && fix.lon === point.lon && point.ms - before.ms <= gapMs) {
      // The same fix once more; only for so long does that mean that it was not yet renewed.
      if (point.ms - fix.ms < FROZEN_MS) continue;
      const last = cuts.at(-1);
      if (isFrozen && last) cuts[cuts.length - 1] = { ...last, toMs: point.ms };
      else {
        piece.pop();
        cut('frozen', fix.ms, point.ms);
      }
      isFrozen = true;
      continue;
    }
    if (before && fix && !isFrozen) {
      if (point.ms - before.ms > gapMs) cut('gap', before.ms, point.ms);
      else if (roughlyM(fix, point) > (LEAP_KMH / 3600) * (point.ms - fix.ms) + 5) cut('leap', before.ms, point.ms);
    }
    isFrozen = false;
    fix = point;
    piece.push(point);
  }
  return { pieces: [...pieces, piece], cuts };
}

/** Near enough to tell a leap from a ride. */
const roughlyM = (a: Place, b: Place): number =>
  111_000 * Math.hypot(a.lat - b.lat, (((a.lon - b.lon + 540) % 360) - 180) * Math.cos((a.lat * Math.PI) / 180));

function usualStepMs(points: readonly TrackPoint[]): number {
  const steps = points
    .slice(1, 2_000)
    .map(({ ms }, i) => ms - (points[i]?.ms ?? ms))
    .toSorted((a, b) => a - b);
  return steps[Math.floor(steps.length / 2)] ?? 0;
}

function smoothPiece(piece: readonly TrackPoint[]): SmoothRun {
  const ms = piece.map((point) => point.ms);
  const [lats, lons] = [piece.map(({ lat }) => lat), unwrapped(piece)];
  const smoothed: Place[] = [];
  const widths: number[] = [];
  let [scatter, freedom] = [0, 0];
  for (const [i, point] of piece.entries()) {
    const half = halfWindowMs(piece, i);
    let [from, to] = [i, i];
    while (from > 0 && point.ms - (ms[from - 1] ?? 0) <= half) from--;
    while (to + 1 < piece.length && (ms[to + 1] ?? 0) - point.ms <= half) to++;
    const place = { lat: parabolaAt(ms, lats, from, to, point.ms), lon: parabolaAt(ms, lons, from, to, point.ms) };
    smoothed.push(place);
    widths.push(to - from + 1);
    scatter += roughlyM({ lat: point.lat, lon: lons[i] ?? 0 }, place) ** 2 / 2;
    freedom += 1 - ownWeight(to - from + 1);
  }
  const variance = scatter / Math.max(freedom, 1);
  const levelM: number[] = [];
  for (const [i, place] of smoothed.entries()) {
    const before = smoothed[i - 1];
    levelM.push(
      before
        ? (levelM[i - 1] ?? 0) + withoutJitter(distanceM(before, place), variance * stepWeight(widths[i] ?? 1))
        : 0,
    );
  }
  return { ms, pathM: alongSlope(piece, levelM) };
}

/** The way along the slope, where heights tell it; the level one where they do not. */
function alongSlope(piece: readonly TrackPoint[], levelM: readonly number[]): readonly number[] {
  const heights = piece.flatMap(({ heightM }) => heightM ?? []);
  if (heights.length < piece.length) return levelM;
  const ms = piece.map((point) => point.ms);
  const pathM: number[] = [];
  let [from, to] = [0, 0];
  for (const [i, at] of ms.entries()) {
    while ((ms[from] ?? 0) < at - SLOPE_HALF_MS) from++;
    while (to + 1 < ms.length && (ms[to + 1] ?? 0) <= at + SLOPE_HALF_MS) to++;
    const slope = slopeOf(levelM, heights, from, to);
    const step = (levelM[i] ?? 0) - (levelM[i - 1] ?? 0);
    pathM.push(i === 0 ? 0 : (pathM[i - 1] ?? 0) + step * Math.sqrt(1 + slope ** 2));
  }
  return pathM;
}

/** Rise over way by least squares: single heights scatter by metres, and a step between two of them is no slope. */
function slopeOf(wayM: readonly number[], heights: readonly number[], from: number, to: number): number {
  const n = to - from + 1;
  let [x, y, xx, xy] = [0, 0, 0, 0];
  const [x0, y0] = [wayM[from] ?? 0, heights[from] ?? 0];
  for (let j = from; j <= to; j++) {
    const [way, height] = [(wayM[j] ?? 0) - x0, (heights[j] ?? 0) - y0];
    x += way;
    y += height;
    xx += way * way;
    xy += way * height;
  }
  const spread = n * xx - x * x;
  const slope = spread > 1 ? (n * xy - x * y) / spread : 0;
  return Math.abs(slope) <= STEEPEST ? slope : 0;
}

/** So long that a bend of the usual yard is followed and scatter is averaged: +-12 m of way. */
function halfWindowMs(piece: readonly TrackPoint[], i: number): number {
  const [a, b] = [piece[Math.max(0, i - 3)], piece[Math.min(piece.length - 1, i + 3)]];
  const perMs = a && b && b.ms > a.ms ? roughlyM(a, b) / (b.ms - a.ms) : 0;
  return Math.min(LONGEST_HALF_MS, Math.max(SHORTEST_HALF_MS, HALF_WINDOW_M / Math.max(perMs, 1e-6)));
}

/** A step between jittered places is longer than the way by variance / (2 * step), on average. */
const withoutJitter = (stepM: number, variance: number): number =>
  stepM > 0 ? stepM - Math.min(stepM / 4, variance / (2 * stepM)) : 0;

/** Longitudes that run on across the date line. */
function unwrapped(piece: readonly TrackPoint[]): readonly number[] {
  let turns = 0;
  return piece.map(({ lon }, i) => {
    const before = piece[i - 1]?.lon ?? lon;
    if (lon - before > 180) turns -= 360;
    if (lon - before < -180) turns += 360;
    return lon + turns;
  });
}

/** Value, at time `at`, of the parabola fitted to a value at each of the moments `from` to `to`. */
function parabolaAt(ms: readonly number[], values: readonly number[], from: number, to: number, at: number): number {
  let [s1, s2, s3, s4, v0, v1, v2] = [0, 0, 0, 0, 0, 0, 0];
  const middle = values[from] ?? 0;
  for (let j = from; j <= to; j++) {
    const t = ((ms[j] ?? at) - at) / 1000;
    const [t2, value] = [t * t, (values[j] ?? 0) - middle];
    s1 += t;
    s2 += t2;
    s3 += t2 * t;
    s4 += t2 * t2;
    v0 += value;
    v1 += t * value;
    v2 += t2 * value;
  }
  const n = to - from + 1;
  const [a, b, c] = [s2 * s4 - s3 * s3, s2 * s3 - s1 * s4, s1 * s3 - s2 * s2];
  const determinant = n * a + s1 * b + s2 * c;
  return middle + (n < 3 || Math.abs(determinant) < 1e-9 ? v0 / n : (a * v0 + b * v1 + c * v2) / determinant);
}

/** Weights of the parabola through `count` evenly spaced values at its middle one (A. Savitzky and M. Golay, 1964). */
function middleWeights(count: number): readonly number[] {
  const m = (count - 1) / 2;
  const places = Array.from({ length: count }, (_, i) => i - m);
  const [s2, s4] = [places.reduce((sum, t) => sum + t ** 2, 0), places.reduce((sum, t) => sum + t ** 4, 0)];
  const determinant = count * s4 - s2 * s2;
  return count < 3 ? places.map(() => 1 / count) : places.map((t) => (s4 - s2 * t * t) / determinant);
}

/** How much of a position's own error stays in its smoothed one. */
const ownWeight = remembered((count) => middleWeights(count)[Math.floor((count - 1) / 2)] ?? 1);

/** Variance of the step between two neighbouring smoothed positions, over that of one position. */
const stepWeight = remembered((count) => {
  const weights = [0, ...middleWeights(count), 0];
  return weights.slice(1).reduce((sum, weight, i) => sum + (weight - (weights[i] ?? 0)) ** 2, 0);
});

function remembered(of: (count: number) => number): (count: number) => number {
  const known = new Map<number, number>();
  return (count) => {
    const value = known.get(count) ?? of(count);
    known.set(count, value);
    return value;
  };
}
