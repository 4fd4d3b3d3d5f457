import type { DisplayMap } from '../../display/map/display-map.js';
import type { SpeedRatio } from '../../speed/safe-cap.js';
import type { HouseRules } from './house-rules.js';
import type { OrderTerms, UnitOverride } from './order-terms.js';
import type { VehicleClass } from './rule-pack.js';
import type { VehicleType } from './vehicle-type.js';

/** What is known of one unit; everything null before it is on the stand. */
export interface UnitKnown {
  /** Raw values by label as read on the glass; codes left out are presumed as delivered. */
  readonly asFound: Readonly<Record<string, number>> | null;
  /** Volts between the pack's terminals, by meter, at rest. */
  readonly packV: number | null;
  /** Shown over true speed, measured with the wheel code at `atWheelRaw`. */
  readonly ratio: (SpeedRatio & { readonly atWheelRaw: number | null }) | null;
  readonly override: UnitOverride | null;
}

export const NOTHING_KNOWN: UnitKnown = { asFound: null, packV: null, ratio: null, override: null };

/** Everything that decides what a unit's codes must be. */
export interface SetupInputs {
  readonly type: VehicleType;
  readonly map: DisplayMap;
  readonly vehicleClass: VehicleClass;
  readonly houseRules: HouseRules;
  readonly terms: OrderTerms;
  readonly unit: UnitKnown;
  /** Day on which it is worked out, as 2026-11-25: checks and authorities run out. */
  readonly today: string;
}
