/** How far beyond its cap drive still acts, in shown km/h, and who says so. */
export interface Overshoot {
  readonly kmh: number;
  /** `unknown`: nobody measured it, and one step of the display stands for it until somebody does. */
  readonly from: 'measured' | 'map' | 'unknown';
}

/**
 * As measured on the unit, else as the display's map says, else one step of what the display shows: where two answers are
 * possible, the slower vehicle. All in km/h.
 * @example
 * overshootOf({ measuredKmh: null, mappedKmh: null, stepKmh: 1 }).kmh; // 1
 * overshootOf({ measuredKmh: null, mappedKmh: 0.5, stepKmh: 1 }).from; // 'map'
 * overshootOf({ measuredKmh: 0, mappedKmh: 0.5, stepKmh: 1 }).kmh; // 0
 */
export function overshootOf({
  measuredKmh,
  mappedKmh,
  stepKmh,
}: {
  readonly measuredKmh: number | null;
  readonly mappedKmh: number | null;
  readonly stepKmh: number;
}): Overshoot {
  if (measuredKmh !== null) return { kmh: measuredKmh, from: 'measured' };
  return mappedKmh === null ? { kmh: stepKmh, from: 'unknown' } : { kmh: mappedKmh, from: 'map' };
}
