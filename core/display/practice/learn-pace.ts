import { medianOf } from '../../statistics/median.js';
import type { Gesture } from '../map/gesture.js';
import { DEFAULT_PACE, type Pace } from '../plan/pace.js';

/** One press as it was made in practice. */
export interface TimedPress {
  readonly gesture: Gesture;
  /** From the end of the press before it to the end of this one, ms. */
  readonly sinceLastMs: number;
  /** Whether another item had come on the glass since the press before, so that one had to look. */
  readonly isAfterLook: boolean;
}

/** Fewer presses of a kind than this say nothing about a person. */
const FEWEST = 6;
/** A pause longer than this is no pace: the person did something else. */
const PAUSE_MS = 8_000;

/**
 * The pace of a person from presses made in practice: medians, so that one slip counts little. Where a kind of press was
 * too rare, what was known before stands.
 * @returns tap, extra over a hold, and look, ms
 */
export function learnPace(presses: readonly TimedPress[], before: Pace = DEFAULT_PACE): Pace {
  const steady = presses.filter(
    (press) =>
      press.sinceLastMs > 0 && press.sinceLastMs < PAUSE_MS + (press.gesture.kind === 'hold' ? press.gesture.ms : 0),
  );
  const taps = steady.filter((press) => press.gesture.kind === 'tap');
  const tapMs = median(taps.filter((press) => !press.isAfterLook).map((press) => press.sinceLastMs)) ?? before.tapMs;
  const lookMs =
    median(taps.filter((press) => press.isAfterLook).map((press) => press.sinceLastMs - tapMs)) ?? before.lookMs;
  const holds = steady.flatMap(({ gesture, sinceLastMs, isAfterLook }) =>
    gesture.kind === 'hold' ? [sinceLastMs - gesture.ms - (isAfterLook ? lookMs : 0)] : [],
  );
  const holdExtraMs = median(holds, 3) ?? before.holdExtraMs;
  return {
    tapMs: within(tapMs, 50, 5_000),
    holdExtraMs: within(holdExtraMs, 0, 5_000),
    lookMs: within(lookMs, 50, 20_000),
  };
}

const within = (ms: number, least: number, most: number): number => Math.round(Math.max(least, Math.min(most, ms)));

const median = (values: readonly number[], fewest = FEWEST): number | null =>
  values.length < fewest ? null : medianOf(values);
