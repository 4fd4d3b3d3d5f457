import { badFigure } from '../../figures.js';
import { capOf, greatestSafeKmh, type SafeCap, type SpeedRatio } from '../safe-cap.js';
import type { ShownSpeed, WheelChoice } from '../wheel-code.js';

/** A ratio with both ends of its 95 % interval, at the codes that the display counts with now. */
export interface RatioNow extends SpeedRatio {
  readonly high: number;
  readonly wheelMm: number;
  readonly pulses: number;
}

export interface CapValue {
  readonly raw: number;
  readonly kmh: number;
}

/** What the display can be set to, and what the promise asks. */
export interface WheelQuestion {
  readonly ratio: RatioNow;
  readonly wheel: readonly WheelChoice[];
  /** Values of the pulse code that may be used; the one that stands alone where house rules want it as counted. */
  readonly pulses: readonly number[];
  readonly caps: readonly CapValue[];
  /** True km/h; null where nothing limits. */
  readonly limitKmh: number | null;
  readonly overshootKmh: number;
  readonly tolerance: number;
  readonly shown: ShownSpeed;
}

/** Wheel value, pulses and the greatest cap that is safe with them. */
export interface WheelCandidate {
  readonly wheel: WheelChoice;
  readonly pulses: number;
  /** Null where no value of the cap is safe with this wheel value. */
  readonly cap: SafeCap | null;
  /** Shown over true speed to be expected, with its interval. */
  readonly ratio: SpeedRatio & { readonly high: number };
  readonly ends: EndSpeed | null;
  /** It reads, or may read, under the true speed. */
  readonly mayReadUnder: boolean;
  /** It reads over by more than a tenth: a lead's to decide. */
  readonly readsFarOver: boolean;
}

/** Where drive ends against the ground, km/h: as expected, and at the ends of the ratio's interval, overshoot counted. */
export interface EndSpeed {
  readonly kmh: number;
  readonly least: number;
  readonly worst: number;
}

const FAR_OVER = 1.1;
const EQUAL = 1e-9;

/**
 * Where drive ends with a cap of so much shown: (V + e) / k. A ratio that may be nought, or a figure that is none, lets it
 * run without end: never less than it may be.
 * @example
 * endSpeed(25, { k: 1, low: 0.98, high: 1.02 }, 0.5).worst.toFixed(2); // '26.02'
 */
export function endSpeed(
  shownKmh: number,
  { k, low, high }: SpeedRatio & { readonly high: number },
  overshootKmh: number,
): EndSpeed {
  // Plain comparisons: this is asked of every wheel value with every pulse count.
  const isCap = shownKmh >= 0 && shownKmh < Infinity && overshootKmh >= 0 && overshootKmh < Infinity;
  const by = (ratio: number): number => (isCap && ratio > 0 ? (shownKmh + overshootKmh) / ratio : Infinity);
  return { kmh: by(k), least: by(high), worst: by(low) };
}

/**
 * The ratio that other wheel codes make of it: k * C' / C * N / N'.
 * @example
 * ratioWith({ k: 0.96, low: 0.95, high: 0.97, wheelMm: 2075, pulses: 1 }, 2234, 1).k.toFixed(3); // '1.034'
 */
export function ratioWith(
  { k, low, high, wheelMm, pulses }: RatioNow,
  mm: number,
  set: number,
): SpeedRatio & { readonly high: number } {
  const by = (mm / wheelMm) * (pulses / set);
  return { k: k * by, low: low * by, high: high * by };
}

/**
 * Every wheel value with every pulse count that is allowed and its greatest safe cap, best first by the house rule:
 * `nearest`: |ln k'| least; `neverUnder`: smallest k' whose lower end is at least 1. Values with no safe cap come last.
 * None where a figure of the ratio is none.
 */
export function chooseWheelCodes(question: WheelQuestion): readonly WheelCandidate[] {
  const { ratio } = question;
  const bad = badFigure({
    'The ratio': [ratio.k, 'aboveZero'],
    'The wheel set': [ratio.wheelMm, 'aboveZero'],
    'The pulses set': [ratio.pulses, 'aboveZero'],
  });
  if (bad || !(ratio.low <= ratio.k && ratio.k <= ratio.high)) return [];
  const rising = question.caps.toSorted((a, b) => a.kmh - b.kmh);
  const ranked = question.wheel.flatMap((wheel) =>
    question.pulses.map((pulses) => ranking(candidate(question, wheel, pulses, rising), question)),
  );
  return ranked
    .sort((a, b) => a.group - b.group || a.off - b.off || a.trimmed - b.trimmed)
    .map((each) => each.candidate);
}

function candidate(
  question: WheelQuestion,
  wheel: WheelChoice,
  pulses: number,
  rising: readonly CapValue[],
): WheelCandidate {
  const ratio = ratioWith(question.ratio, wheel.mm, pulses);
  const cap = capFor(question, ratio, rising);
  const ends = cap ? endSpeed(cap.shownKmh, ratio, question.overshootKmh) : null;
  return { wheel, pulses, cap, ratio, ends, mayReadUnder: ratio.low < 1 - EQUAL, readsFarOver: ratio.k > FAR_OVER };
}

/** The greatest safe cap by halving: what is safe at a value is safe at every lower one. */
function capFor(
  { limitKmh, overshootKmh, tolerance }: WheelQuestion,
  ratio: SpeedRatio,
  rising: readonly CapValue[],
): SafeCap | null {
  if (limitKmh === null) return null;
  const bounds = { limitKmh, ratio, overshootKmh, tolerance };
  const most = greatestSafeKmh(bounds);
  let [below, above] = [-1, rising.length];
  while (above - below > 1) {
    const middle = (below + above) >> 1;
    if ((rising[middle]?.kmh ?? Infinity) <= most) below = middle;
    else above = middle;
  }
  const best = rising[below];
  return best ? capOf(best, bounds) : null;
}

interface Ranking {
  readonly candidate: WheelCandidate;
  /** Uncappable ones last; before them those that may read under where the rule forbids it. */
  readonly group: number;
  readonly off: number;
  readonly trimmed: number;
}

function ranking(each: WheelCandidate, { shown, limitKmh, caps, ratio }: WheelQuestion): Ranking {
  const isUncappable = limitKmh !== null && caps.length > 0 && each.cap === null;
  const group = isUncappable ? 2 : shown === 'neverUnder' && each.mayReadUnder ? 1 : 0;
  // Equal but for the last digits of a division is equal: the count that stands goes before a trim.
  return {
    candidate: each,
    group,
    off: Math.round(Math.abs(Math.log(each.ratio.k)) * 1e12),
    trimmed: each.pulses === ratio.pulses ? 0 : 1,
  };
}
