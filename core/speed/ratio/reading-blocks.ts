import type { SpeedGlass, SpeedReading } from './reading.js';

/** Readings whose rounding errors hang together, for the same figure was shown. */
export interface ReadingBlock {
  readonly readings: readonly SpeedReading[];
  /** Shown, with half a step added where the display truncates: on average what it counted, km/h. */
  readonly shownKmh: number;
  /** Step of the figure, km/h. */
  readonly stepKmh: number;
}

/** True speeds closer to each other than this share of a step are one speed, as far as rounding goes. */
const SAME_SPEED = 0.15;
/** So many further readings of one figure may come about by chance; more of them are repeats the more surely. */
const CHANCE = 3.5;

/** Readings by the figure shown. A truncating display reads half a step low; that half is added. */
export function blocksOf(
  readings: readonly SpeedReading[],
  { resolutionKmh, rounding }: SpeedGlass,
): readonly ReadingBlock[] {
  const groups = new Map<string, SpeedReading[]>();
  for (const reading of readings) {
    const key = `${reading.shownKmh.toFixed(6)} ${reading.scale.toFixed(9)}`;
    const group = groups.get(key);
    if (group) group.push(reading);
    else groups.set(key, [reading]);
  }
  return [...groups.values()].map((group) => {
    const stepKmh = resolutionKmh * (group[0]?.scale ?? 1);
    return {
      readings: group,
      shownKmh: (group[0]?.shownKmh ?? 0) + (rounding === 'truncated' ? stepKmh / 2 : 0),
      stepKmh,
    };
  });
}

/** How few readings that may or may not be repeats of one speed are taken: as of several, or as sharing their rounding. */
export type Doubt = 'apart' | 'shared';

/**
 * Share of its rounding error, 0 to 1, that a block's readings have in common. Rounding averages out only over different
 * speeds: 1 where the true speeds cannot be told apart, less the more surely they differ.
 */
export function sharedRounding({ readings, stepKmh }: ReadingBlock, k: number, doubt: Doubt): number {
  const n = readings.length;
  if (n < 2) return 0;
  const noise = (2 * k ** 2 * readings.reduce((sum, { uKmh }) => sum + uKmh ** 2, 0)) / n;
  const blur = (noise + (SAME_SPEED * stepKmh) ** 2) * Math.max(doubt === 'shared' ? 1 : 0, ((n - 1) / CHANCE) ** 2);
  let shared = 0;
  for (const [i, a] of readings.entries())
    for (const b of readings.slice(0, i)) shared += Math.exp(-((k * (a.trueKmh - b.trueKmh)) ** 2) / (2 * blur));
  return shared / ((n * (n - 1)) / 2);
}

/** Keeps exact readings from weighing without end, (km/h)^2. */
const LEAST_VARIANCE = 1e-9;

/**
 * Multiplies by the inverse of the covariance of a block's errors: each reading's own, and the rounding error that all
 * have in common (Sherman and Morrison).
 */
export function blockSolver(
  block: ReadingBlock,
  k: number,
  doubt: Doubt,
): (values: readonly number[]) => readonly number[] {
  const rounding = block.stepKmh ** 2 / 12;
  const shared = sharedRounding(block, k, doubt);
  const own = block.readings.map(({ uKmh }) => 1 / ((k * uKmh) ** 2 + (1 - shared) * rounding + LEAST_VARIANCE));
  const common = shared * rounding;
  const pull = common / (1 + common * own.reduce((sum, w) => sum + w, 0));
  return (values) => {
    const together = pull * dot(own, values);
    return values.map((value, i) => (own[i] ?? 0) * (value - together));
  };
}

export const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, value, i) => sum + value * (b[i] ?? 0), 0);

/** Speeds further apart than this many steps of the figure are two speeds. */
const APART_STEPS = 2;

/** At how many speeds that can be told apart there are readings. */
export function speedsApart(readings: readonly SpeedReading[], { resolutionKmh }: SpeedGlass): number {
  const rising = readings.map(({ trueKmh }) => trueKmh).sort((a, b) => a - b);
  return rising.filter((kmh, i) => i === 0 || kmh - (rising[i - 1] ?? 0) > APART_STEPS * resolutionKmh).length;
}
