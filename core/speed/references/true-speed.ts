/** A speed against the ground by some reference. */
export interface TrueSpeed {
  readonly kmh: number;
  /** Standard deviation from this reading alone, km/h. */
  readonly uKmh: number;
  /** Standard deviation of what all readings of the reference share, as a share of the speed. */
  readonly uCommon: number;
}

/** The ways a true speed can be had. */
export const REFERENCES = {
  spot: 'Spot reading',
  live: 'Live receiver',
  timed: 'Timed distance',
  roller: 'Roller bench',
  track: 'Ridden track',
} as const;
export type ReferenceKind = keyof typeof REFERENCES;

/** A satellite receiver's speed, read once: 0.5 km/h. */
export const SPOT_U_KMH = 0.5;

export const spotSpeed = (kmh: number, uKmh: number = SPOT_U_KMH): TrueSpeed => ({ kmh, uKmh, uCommon: 0 });
