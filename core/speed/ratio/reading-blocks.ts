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
export function blocksOf(readings: readonly SpeedReading[], { resolutionKmh, rounding }: SpeedGlass): readonly ReadingBlock[] {
  const groups = new Map<string, SpeedReading[]>();
  for (const reading of readings) {
    const key = `${reading.shownKmh.toFixed(6)} ${reading.scale.toFixed(9)}`;
    const group = groups.get(key);
    if (group) group.push(reading);
    else groups.set(key, [reading]);
  }
  return [...groups.values()].map((group) => {
    const stepKmh = resolutionKmh * (group[0]?.scale ?? 1);
    return { readings: group, shownKmh: (group[0]?.shownKmh ?? 0) + (rounding === 'truncated' ? stepKmh / 2 : 0), stepKmh };
  });
}

/**
 * Share of its rounding error, 0 to 1, that a block's readings have in common. Rounding averages out only over different
 * speeds: 1 where the true speeds cannot be told apart, less the more surely they differ.
 */
export function sharedRounding({ readings, stepKmh }: ReadingBlock, k: number): number {
  const n = readings.length;
  if (n < 2) return 0;
  const noise = (2 * k ** 2 * readings.reduce((sum, { uKmh }) => sum + uKmh ** 2, 0)) / n;
  const blur = (noise + (SAME_SPEED * stepKmh) ** 2) * ((n - 1) / CHANCE) ** 2;
  let shared = 0;
  for (const [i, a] of readings.entries()) for (const b of readings.slice(0, i)) shared += Math.exp(-((k * (a.trueKmh - b.trueKmh)) ** 2) / (2 * blur));
  return shared / ((n * (n - 1)) / 2);
}
