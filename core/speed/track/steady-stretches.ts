import { badFigure } from '../../figures.js';
import type { SmoothRun } from './smooth-track.js';
import { POSITION_SD_M } from './track.js';

/** A stretch of a track over which the speed stayed the same. */
export interface Stretch {
  readonly fromMs: number;
  readonly toMs: number;
  /** Path length over time, km/h. */
  readonly kmh: number;
  /** Standard deviation of that: sqrt(2) * sigma / T of the positions at its ends, km/h. */
  readonly uKmh: number;
  /** Greatest less least speed within it, km/h. */
  readonly unevenKmh: number;
}

/** Speed at a moment, from the way over the window around it. */
export interface SpeedAt {
  readonly ms: number;
  readonly kmh: number;
}

const SHORTEST_MS = 10_000;
/** A speed at a moment is the way over +-6 s: over less, positions that scatter by 1.5 m make too much of themselves. */
const HALF_WINDOW_MS = 6_000;
/** A stretch is steady while its speed stays within so much in all: km/h, or share of the speed. */
const UNEVEN_KMH = 1.8;
const UNEVEN_SHARE = 0.08;
const SLOWEST_KMH = 4;
/** Its ends are cut off while they differ from its middle by more than this part of that. */
const SETTLED = 0.45;
/** Neighbours so near that are one stretch by their speeds may together be so much more uneven. */
const APART_MS = 5_000;
const MERGED = 1.6;

/** Speeds along a run, one per position. */
export function speedsAlong({ ms, pathM }: SmoothRun): readonly SpeedAt[] {
  let [from, to] = [0, 0];
  return ms.map((at) => {
    while ((ms[from] ?? 0) < at - HALF_WINDOW_MS) from++;
    while (to + 1 < ms.length && (ms[to + 1] ?? 0) <= at + HALF_WINDOW_MS) to++;
    const [a, b] = [Math.max(0, from), Math.max(to, from + 1)];
    const seconds = ((ms[b] ?? at) - (ms[a] ?? at)) / 1000;
    return { ms: at, kmh: seconds > 0 ? (3.6 * ((pathM[b] ?? 0) - (pathM[a] ?? 0))) / seconds : 0 };
  });
}

/** The longest stretches that do not overlap, each at least 10 s, over which the speed hardly moved. Oldest first. */
export function steadyStretches(runs: readonly SmoothRun[], sigmaM: number = POSITION_SD_M): readonly Stretch[] {
  if (badFigure({ 'The scatter of positions': [sigmaM, 'notBelowZero'] })) return [];
  return runs.flatMap((run) => stretchesOf(run, speedsAlong(run), sigmaM));
}

function stretchesOf(run: SmoothRun, speeds: readonly SpeedAt[], sigmaM: number): readonly Stretch[] {
  const found: Span[] = [];
  let start = 0;
  while (start < speeds.length - 1) {
    const end = steadyFrom(speeds, start);
    const span = settled(speeds, { from: start, to: Math.max(end, start) });
    if (lengthMs(speeds, span) >= SHORTEST_MS) {
      const before = found.at(-1);
      const whole = before && { from: before.from, to: span.to };
      if (whole && isOne(run, speeds, before, span, sigmaM)) found[found.length - 1] = whole;
      else found.push(span);
      start = end + 1;
    } else {
      start++;
    }
  }
  return found.map((span) => stretchOf(run, speeds, span, sigmaM));
}

interface Span {
  readonly from: number;
  readonly to: number;
}

const lengthMs = (speeds: readonly SpeedAt[], { from, to }: Span): number =>
  (speeds[to]?.ms ?? 0) - (speeds[from]?.ms ?? 0);

/** The span without its ends, as far as speed was still changing there. */
function settled(speeds: readonly SpeedAt[], { from, to }: Span): Span {
  const sorted = speeds
    .slice(from, to + 1)
    .map(({ kmh }) => kmh)
    .toSorted((a, b) => a - b);
  const median = sorted[Math.floor(sorted.length / 2)] ?? 0;
  const isOff = (i: number): boolean => Math.abs((speeds[i]?.kmh ?? 0) - median) > unevenness(median) * SETTLED;
  const isSettled = (i: number, towards: 1 | -1): boolean =>
    [0, 1, 2, 3].every((step) => !isOff(Math.min(to, Math.max(from, i + step * towards))));
  let [first, last] = [from, to];
  while (first < last && !isSettled(first, 1)) first++;
  while (last > first && !isSettled(last, -1)) last--;
  return { from: first, to: last };
}

/** Two neighbours that positions alone set apart: as fast as each other, as far as can be told, and nearly touching. */
function isOne(run: SmoothRun, speeds: readonly SpeedAt[], a: Span, b: Span, sigmaM: number): boolean {
  const [first, second] = [stretchOf(run, speeds, a, sigmaM), stretchOf(run, speeds, b, sigmaM)];
  const { least, most } = rangeOf(speeds, { from: a.from, to: b.to });
  return (
    second.fromMs - first.toMs <= APART_MS &&
    Math.abs(first.kmh - second.kmh) <= 2 * Math.hypot(first.uKmh, second.uKmh) &&
    most - least <= MERGED * unevenness(most)
  );
}

const unevenness = (kmh: number): number => Math.max(UNEVEN_KMH, UNEVEN_SHARE * kmh);

/** Last position up to which the speed stays within its bounds; before `start` where it is too slow at once. */
function steadyFrom(speeds: readonly SpeedAt[], start: number): number {
  let [least, most] = [Infinity, -Infinity];
  for (let i = start; i < speeds.length; i++) {
    const kmh = speeds[i]?.kmh ?? 0;
    least = Math.min(least, kmh);
    most = Math.max(most, kmh);
    if (least < SLOWEST_KMH || most - least > unevenness(most)) return i - 1;
  }
  return speeds.length - 1;
}

function rangeOf(speeds: readonly SpeedAt[], { from, to }: Span): { readonly least: number; readonly most: number } {
  let [least, most] = [Infinity, -Infinity];
  for (let i = from; i <= to; i++) {
    least = Math.min(least, speeds[i]?.kmh ?? 0);
    most = Math.max(most, speeds[i]?.kmh ?? 0);
  }
  return { least, most };
}

function stretchOf({ ms, pathM }: SmoothRun, speeds: readonly SpeedAt[], span: Span, sigmaM: number): Stretch {
  const { from, to } = span;
  const [fromMs, toMs] = [ms[from] ?? 0, ms[to] ?? 0];
  const seconds = (toMs - fromMs) / 1000;
  const { least, most } = rangeOf(speeds, span);
  return {
    fromMs,
    toMs,
    kmh: (3.6 * ((pathM[to] ?? 0) - (pathM[from] ?? 0))) / seconds,
    uKmh: (3.6 * Math.SQRT2 * sigmaM) / seconds,
    unevenKmh: most - least,
  };
}

/**
 * The stretch a person drew, from the run that holds it; undefined where a gap lies within it or it is no stretch at all.
 */
export function stretchBetween(
  runs: readonly SmoothRun[],
  fromMs: number,
  toMs: number,
  sigmaM: number = POSITION_SD_M,
): Stretch | undefined {
  if (badFigure({ 'The scatter of positions': [sigmaM, 'notBelowZero'] })) return undefined;
  const run = runs.find(({ ms }) => (ms[0] ?? Infinity) <= fromMs && (ms.at(-1) ?? -Infinity) >= toMs);
  if (!run) return undefined;
  const from = run.ms.findIndex((ms) => ms >= fromMs);
  const to = run.ms.findLastIndex((ms) => ms <= toMs);
  return to > from ? stretchOf(run, speedsAlong(run), { from, to }, sigmaM) : undefined;
}
