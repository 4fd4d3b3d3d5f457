import { estimateSpeedRatio } from '../speed/ratio/estimate-speed-ratio.js';
import { kmhWords } from '../speed/speed.js';
import { studentQuantile } from '../statistics/quantiles.js';
import type { Cure, Judgement, Observation, Watch } from './proving-test.js';

export type SpeedObservation = Observation & { readonly kind: 'speed' };
type SpeedWatch = Watch & { readonly kind: 'speed' };

/** Where drive ended, true km/h, with its one-sided 95 % bounds. */
export interface EndSeen {
  readonly kmh: number;
  readonly lower: number;
  readonly upper: number;
  readonly count: number;
  /** Standard deviation of the mean from what readings do not share, and of what they do. */
  readonly uOwn: number;
  readonly uShared: number;
}

const ONE_SIDED = 0.95;
const EXACT = 1e-9;

/**
 * Mean true speed of readings, by the estimator that calibrates: the figure shown is taken as exact and the same each
 * time, so that the ratio of it to true speed carries all the doubt. What the readings of one instrument share never
 * shrinks with their number.
 * @returns null where there are none, or one is no speed
 */
export function endSeen(readings: readonly SpeedObservation[]): EndSeen | null {
  const [first] = readings;
  if (!first) return null;
  const shownKmh = first.trueKmh;
  const estimate = (shared: boolean) =>
    estimateSpeedRatio(
      readings.map(({ trueKmh, uKmh, uCommon, reference }) => ({
        trueKmh,
        uKmh,
        reference,
        uCommon: shared ? uCommon : 0,
        shownKmh,
        scale: 1,
      })),
      { resolutionKmh: 0, rounding: 'nearest' },
    );
  const [all, own] = [estimate(true), estimate(false)];
  if (!all.ok || !own.ok) return null;
  const kmh = shownKmh / all.value.k;
  const inKmh = (u: number): number => (kmh * u) / all.value.k;
  const reach = studentQuantile(ONE_SIDED, all.value.df) * inKmh(all.value.u);
  return {
    kmh,
    lower: kmh - reach,
    upper: kmh + reach,
    count: readings.length,
    uOwn: inKmh(own.value.u),
    uShared: inKmh(Math.sqrt(Math.max(0, all.value.u ** 2 - own.value.u ** 2))),
  };
}

/**
 * Whether readings show that drive ends within its limit: the upper bound within it shows it, the lower beyond it does
 * not, else one more is asked. A tolerance that the rule states loosens only the worst case.
 */
export function judgeSpeed(watch: SpeedWatch, readings: readonly SpeedObservation[], cure: Cure): Judgement {
  const seen = endSeen(readings);
  const { limitKmh, tolerance, least, predictedKmh, words } = watch;
  if (!seen) return { verdict: 'open', says: `${many(least)} to be taken.`, more: least };
  const found = `${seen.kmh.toFixed(1)} km/h`;
  const expected = predictedKmh === null ? '' : ` It was expected at ${kmhWords(predictedKmh)}.`;
  if (seen.lower > limitKmh * (1 + EXACT))
    return {
      verdict: 'doesNot',
      says: `It ends at ${found}, at least ${seen.lower.toFixed(1)}: beyond ${words}.${expected}`,
      cure,
    };
  const within = seen.kmh <= limitKmh * (1 + EXACT) && seen.upper <= limitKmh * (1 + tolerance) * (1 + EXACT);
  if (!within) return unsettled(watch, seen);
  if (seen.count < least)
    return { verdict: 'open', says: `${found} so far. ${many(least - seen.count)} more.`, more: least - seen.count };
  return {
    verdict: 'shows',
    says: `${found}, at most ${seen.upper.toFixed(1)}: within ${words}.${expected}`,
  };
}

const many = (count: number): string => (count === 1 ? 'One reading' : `${count} readings`);

const MOST_MORE = 30;

function unsettled({ limitKmh, tolerance, words }: SpeedWatch, seen: EndSeen): Judgement {
  const found = `${seen.kmh.toFixed(1)} km/h, perhaps ${seen.upper.toFixed(1)}; allowed is ${words}.`;
  const room = limitKmh * (1 + tolerance) - seen.kmh;
  const single = seen.uOwn * Math.sqrt(seen.count);
  const at = (count: number): number =>
    studentQuantile(ONE_SIDED, Infinity) * Math.sqrt(single ** 2 / count + seen.uShared ** 2);
  const enough =
    seen.kmh > limitKmh
      ? undefined
      : Array.from({ length: MOST_MORE }, (_, i) => seen.count + 1 + i).find((count) => at(count) <= room);
  if (enough === undefined)
    return {
      verdict: 'open',
      says: `${found} No number of readings with this reference is likely to settle it: take a closer one, or set a lower cap.`,
      more: null,
    };
  const more = enough - seen.count;
  return {
    verdict: 'open',
    says: `${found} Not settled: at this spread ${more === 1 ? 'one more reading' : `${more} more readings`}.`,
    more,
  };
}
