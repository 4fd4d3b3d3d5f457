/** Chemistry of a pack; decides the floor and full volts of a cell. */
export type Chemistry = 'liIon' | 'lfp' | 'leadAcid';

export interface Pack {
  readonly chemistry: Chemistry;
  readonly cellsInSeries: number;
  /** The voltage printed on it (48, not 13 * 3.6). */
  readonly labelV: number;
  readonly capacityAh: number;
}

/** A vehicle model: what all its units have in common. */
export interface VehicleType {
  readonly format: 'decurio-vehicle-type/1';
  readonly id: string;
  readonly name: string;
  /** Longer name for screens with room. */
  readonly title: string;
  readonly kind: 'bike' | 'scooter';
  readonly motor: string;
  readonly ratedPowerW: number;
  readonly controllerLimitA: number;
  /** What the maker of the vehicle allows, at most the controller's limit. */
  readonly typeLimitA: number;
  /** Top speed on a full pack, on the level, without any cap. */
  readonly attainableKmh: number;
  readonly pack: Pack;
  readonly tyre: { readonly marking: string; readonly wheelInch: number };
  /** Pulses the wheel sensor gives per turn, as counted. */
  readonly wheelPulses: number;
  readonly pedalMagnets: number;
  readonly throttleFitted: boolean;
  /** Ids of the display maps that may be fitted. */
  readonly maps: readonly string[];
  readonly cautions: readonly string[];
  /** How to cut power at once, in one line. */
  readonly cutPower: string;
}
