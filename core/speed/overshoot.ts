/** How far beyond its cap drive still acts, in shown km/h, and who says so. */
export interface Overshoot {
  readonly kmh: number;
  /** `unknown`: nobody measured it, and one step of the display stands for it until somebody does. */
  readonly from: 'measured' | 'family' | 'map' | 'unknown';
}

/**
 * As measured on the unit, else as the display's map says, else one step of what the display shows; and the farthest that
 * was seen on others of its type and display where that is more than those two: where two answers are possible, the slower
 * vehicle. All in km/h.
 * @example
 * overshootOf({ measuredKmh: null, mappedKmh: null, stepKmh: 1 }).kmh; // 1
 * overshootOf({ measuredKmh: null, mappedKmh: 0.5, stepKmh: 1 }).from; // 'map'
 * overshootOf({ measuredKmh: 0, mappedKmh: 0.5, stepKmh: 1 }).kmh; // 0
 * overshootOf({ measuredKmh: null, familyKmh: 1.4, mappedKmh: 0.5, stepKmh: 1 }).from; // 'family'
 * overshootOf({ measuredKmh: null, familyKmh: 0.2, mappedKmh: 0.5, stepKmh: 1 }).kmh; // 0.5
 */
export function overshootOf({
  measuredKmh,
  familyKmh = null,
  mappedKmh,
  stepKmh,
}: {
  readonly measuredKmh: number | null;
  /** The farthest seen on others of its type and display. */
  readonly familyKmh?: number | null;
  readonly mappedKmh: number | null;
  readonly stepKmh: number;
}): Overshoot {
  if (measuredKmh !== null) return { kmh: measuredKmh, from: 'measured' };
  if (familyKmh !== null && familyKmh > (mappedKmh ?? stepKmh)) return { kmh: familyKmh, from: 'family' };
  return mappedKmh === null ? { kmh: stepKmh, from: 'unknown' } : { kmh: mappedKmh, from: 'map' };
}
