/** How a display makes the figure it shows out of the speed it counts. */
export type Rounding = 'nearest' | 'truncated';

/** What a display's figures can tell of a speed. */
export interface SpeedGlass {
  /** Step of the figure shown, km/h: 1, 0.1, or 1.609344 where it shows whole miles an hour. */
  readonly resolutionKmh: number;
  /** Null where nobody knows: it is then taken for nearest, which makes the cap the slower one. */
  readonly rounding: Rounding | null;
}

/** A speed shown beside a true one. */
export interface SpeedReading {
  /** Against the ground, km/h. */
  readonly trueKmh: number;
  /** Standard deviation of `trueKmh` from this one reading, km/h. */
  readonly uKmh: number;
  /** The instrument behind it: readings of one share its relative error. */
  readonly reference: string;
  /** Standard deviation of that shared error, as a share of the speed. */
  readonly uCommon: number;
  /** As the display says, converted to km/h, at the wheel code and pulses it is estimated for. */
  readonly shownKmh: number;
  /** Shown figures of this reading count so much where it was taken under other codes; 1 for the same ones. */
  readonly scale: number;
}
