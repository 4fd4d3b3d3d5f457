/** International mile: 1.609344 km exactly. */
export const KM_PER_MILE = 1.609344;

export type SpeedUnit = 'km/h' | 'mph';

/** A speed in the unit it was laid down in: a statute's 15.5 mph stays 15.5 mph. */
export interface Speed {
  readonly value: number;
  readonly unit: SpeedUnit;
}

/**
 * @example
 * inKmh({ value: 15.5, unit: 'mph' }).toFixed(3); // '24.945'
 */
export const inKmh = ({ value, unit }: Speed): number => (unit === 'mph' ? value * KM_PER_MILE : value);

const trim = (n: number, digits: number): string => String(Math.round(n * 10 ** digits) / 10 ** digits);

/**
 * A speed in its own unit, and in km/h beside it.
 * @example
 * speedWords({ value: 25, unit: 'km/h' }); // '25 km/h'
 * speedWords({ value: 15.5, unit: 'mph' }); // '15.5 mph (24.945 km/h)'
 */
export const speedWords = (speed: Speed): string =>
  speed.unit === 'mph' ? `${trim(speed.value, 3)} mph (${trim(inKmh(speed), 3)} km/h)` : `${trim(speed.value, 3)} km/h`;

/** A speed in km/h as people read it: at most one decimal. */
export const kmhWords = (kmh: number): string => `${trim(kmh, 1)} km/h`;

/** Figures that are round limits in miles and odd ones in kilometres. */
const MILE_FIGURES: readonly number[] = [12.5, 15.5, 28];

/**
 * Whether a typed speed may have been meant in the other unit: the statute counts in the other one and the figure is
 * plausible in both, or it is a figure that only miles have. Asked once, never guessed.
 */
export function mayBeOtherUnit(typed: Speed, statute: Speed | null): boolean {
  if (typed.unit === 'km/h' && MILE_FIGURES.includes(typed.value)) return true;
  if (statute === null || statute.unit === typed.unit) return false;
  return typed.value >= statute.value * 0.25 && typed.value <= statute.value * 1.25;
}
