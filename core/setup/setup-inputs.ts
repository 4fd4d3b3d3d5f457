import type { DisplayMap } from '../display/map/display-map.js';
import type { HouseRules } from './house-rules.js';
import type { VehicleClass } from './rule-pack.js';
import type { VehicleType } from './vehicle-type.js';

/** Everything that decides what a unit's codes must be. */
export interface SetupInputs {
  readonly type: VehicleType;
  readonly map: DisplayMap;
  readonly vehicleClass: VehicleClass;
  readonly houseRules: HouseRules;
  /** A limit the customer or site sets below the class, true km/h; null for none. */
  readonly orderLimitKmh: number | null;
}
