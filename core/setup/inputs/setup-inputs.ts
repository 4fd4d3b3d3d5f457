import type { DisplayMap } from '../../display/map/display-map.js';
import type { SpeedRatio } from '../../speed/safe-cap.js';
import type { RollOutGuess } from '../../speed/tyre-marking.js';
import type { HouseRules } from './house-rules.js';
import type { OrderTerms, UnitOverride } from './order-terms.js';
import type { VehicleClass } from './vehicle-class.js';
import type { VehicleType } from './vehicle-type.js';

/** Shown over true speed of a unit, by its own runs or by what its family was learnt to be. */
export interface KnownRatio extends SpeedRatio {
  /** The codes it was measured with; null where the display has no such code, or nobody knows. */
  readonly atWheelRaw: number | null;
  readonly atPulsesRaw?: number | null;
  /** Of so many units that were run, where this one was not. */
  readonly learntFrom?: number;
  /** What was chosen by it at the stand. */
  readonly taken?: {
    readonly wheelRaw: number | null;
    readonly pulsesRaw: number | null;
    readonly count: number;
    readonly by: string;
  };
}

/** Who let a code stand as it shows, why, and on which day. */
export interface LetStand {
  readonly words: string;
  readonly by: string;
  readonly on: string;
}

/** What is known of one unit; everything null before it is on the stand. */
export interface UnitFacts {
  /** Raw values by label as read on the glass; codes left out are presumed as delivered. */
  readonly asFound: Readonly<Record<string, number>> | null;
  /** Volts between the pack's terminals, by meter, at rest. */
  readonly packV: number | null;
  readonly ratio: KnownRatio | null;
  /** How far its wheel rolls in a turn, measured on this unit. */
  readonly rolled?: RollOutGuess | null;
  /** How far beyond its cap, in shown km/h, drive was seen to act. */
  readonly overshootKmh?: number | null;
  /** The same of others of its type and display, the farthest. */
  readonly familyOvershootKmh?: number | null;
  /** Codes that do not move on this unit and that a lead let stand as they show, by label. */
  readonly letStand?: Readonly<Record<string, LetStand>>;
  readonly override: UnitOverride | null;
}

export const NO_FACTS: UnitFacts = { asFound: null, packV: null, ratio: null, override: null };

/** Everything that decides what a unit's codes must be. */
export interface SetupInputs {
  readonly type: VehicleType;
  readonly map: DisplayMap;
  readonly vehicleClass: VehicleClass;
  readonly houseRules: HouseRules;
  readonly terms: OrderTerms;
  readonly unit: UnitFacts;
  /** Day on which it is worked out, as 2026-11-25: checks and authorities run out. */
  readonly today: string;
}
