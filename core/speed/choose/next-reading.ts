import { studentQuantile } from '../../statistics/quantiles.js';
import type { SpeedRatioEstimate } from '../ratio/estimate-speed-ratio.js';
import type { SpeedGlass, SpeedReading } from '../ratio/reading.js';
import { chooseWheelCodes, type WheelCandidate, type WheelQuestion } from './choose-wheel-codes.js';

/** Whether the readings are enough to choose by, or what one more would tell. */
export type NextReading =
  | { readonly isEnough: true; readonly why: 'decided' | 'oneMoreTellsNothing' }
  | {
      readonly isEnough: false;
      readonly atKmh: number;
      readonly why: 'none' | 'few' | 'noneNearLimit' | 'noneSlow' | 'undecided';
      readonly between?: readonly [WheelCandidate, WheelCandidate];
    };

/** A reading at or above this share of the limit has to be among them. */
export const NEAR_LIMIT = 0.8;
const FEWEST = 3;
/** Readings all within this factor of each other would not show an offset. */
const SPAN = 1.5;
/** Picks that end within so much of each other, true km/h, and read within so much, are one to a rider. */
const SAME_END_KMH = 0.2;
const SAME_READING = 0.005;

interface Asked {
  readonly readings: readonly SpeedReading[];
  readonly estimate: SpeedRatioEstimate;
  readonly glass: SpeedGlass;
  /** Standard deviation of one more reading by the same reference, at a true speed. */
  readonly uNext: (trueKmh: number) => number;
  readonly question: WheelQuestion;
  /** Fastest speed that the vehicle or the place allows to be read, km/h. */
  readonly fastestKmh: number;
}

/**
 * Enough is: three readings, one of them near the limit and one slow, and no further one that could, whatever it says
 * within reason, change the pick. Otherwise the true speed at which one more would tell most.
 */
export function nextReading(asked: Asked): NextReading {
  const { readings, question, fastestKmh } = asked;
  const speeds = readings.map(({ trueKmh }) => trueKmh);
  const [slowest, fastest] = [Math.min(...speeds), Math.max(...speeds)];
  const top = topSpeed(question.limitKmh, fastestKmh);
  if (readings.length === 0) return { isEnough: false, atKmh: top, why: 'none' };
  const near = NEAR_LIMIT * Math.min(question.limitKmh ?? fastestKmh, fastestKmh);
  if (fastest < near) return { isEnough: false, atKmh: top, why: 'noneNearLimit' };
  if (fastest < slowest * SPAN && readings.length >= FEWEST - 1)
    return { isEnough: false, atKmh: Math.round(fastest / 2), why: 'noneSlow' };
  if (readings.length < FEWEST)
    return { isEnough: false, atKmh: fastest < slowest * SPAN ? Math.round(fastest / 2) : top, why: 'few' };
  const [pick] = chooseWheelCodes(question);
  if (!pick) return { isEnough: true, why: 'decided' };
  const other = afterOneMore(asked, top).find((each) => !isSame(each, pick));
  if (other) return { isEnough: false, atKmh: top, why: 'undecided', between: [pick, other] };
  return { isEnough: true, why: isDecided(question, pick) ? 'decided' : 'oneMoreTellsNothing' };
}

/** Near the limit, and a round figure: what a throttle can be held at. */
const topSpeed = (limitKmh: number | null, fastestKmh: number): number =>
  Math.floor(Math.min((limitKmh ?? Infinity) * 0.96, fastestKmh));

/** What would be picked after one more reading, where it moves the ratio as far down or up as 95 of 100 do, or not at all. */
function afterOneMore({ estimate, glass, uNext, question }: Asked, atKmh: number): readonly WheelCandidate[] {
  const { k, u } = estimate;
  const information = 1 / u ** 2 + atKmh ** 2 / ((k * uNext(atKmh)) ** 2 + glass.resolutionKmh ** 2 / 12);
  const after = Math.sqrt(1 / information);
  const move = 1.96 * Math.sqrt(Math.max(0, u ** 2 - after ** 2));
  const reach = after * studentQuantile(0.975, estimate.df === Infinity ? Infinity : estimate.df + 1);
  return [-move, 0, move].flatMap((by) => chooseWheelCodes(withRatio(question, k + by, reach)).slice(0, 1));
}

/** Whether knowing the ratio exactly would change nothing, wherever in its interval it lies. */
const isDecided = (question: WheelQuestion, pick: WheelCandidate): boolean =>
  [question.ratio.low, question.ratio.k, question.ratio.high].every((k) =>
    chooseWheelCodes(withRatio(question, k, 0))
      .slice(0, 1)
      .every((each) => isSame(each, pick)),
  );

const withRatio = (question: WheelQuestion, k: number, reach: number): WheelQuestion => ({
  ...question,
  ratio: { ...question.ratio, k, low: k - reach, high: k + reach },
});

const isSame = (a: WheelCandidate, b: WheelCandidate): boolean =>
  (a.wheel.raw === b.wheel.raw || Math.abs(a.wheel.mm / b.wheel.mm - 1) < SAME_READING) &&
  a.pulses === b.pulses &&
  Math.abs((a.cap?.shownKmh ?? 0) - (b.cap?.shownKmh ?? 0)) < SAME_END_KMH;
