import type { ReferenceKind, SpeedUnit, TrueSpeed } from '@decurio/core';

/** A reading as a way to measure gives it. */
export interface NewReading {
  readonly speed: TrueSpeed;
  /** As the display said; null where nobody asked. */
  readonly shown: number | null;
  readonly instrument?: string;
  readonly offGround?: boolean;
  readonly words?: string;
}

/** Whoever takes what is measured: a visit on the bench, a test, a trial. */
export interface Readings {
  /** Under which a reading that is being typed is kept. */
  readonly place: string;
  /** The display's own, as it is keyed. */
  readonly unit: SpeedUnit;
  /** The true speed alone is asked for: what the display says of it does not matter here. */
  readonly isTrueOnly?: true;
  readonly add: (reference: ReferenceKind, reading: NewReading) => Promise<void>;
}
