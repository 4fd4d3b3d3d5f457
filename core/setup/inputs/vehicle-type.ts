import type { Speed } from '../../speed/speed.js';
import type { CertificateAsked, Fitting } from './vehicle-class.js';

/** Chemistry of a pack; decides the floor and full volts of a cell. */
export type Chemistry = 'liIon' | 'lfp' | 'leadAcid';

/** What stands on a pack's label. */
export interface LabelledPack {
  readonly chemistry: Chemistry;
  readonly cellsInSeries: number;
  /** The voltage printed on it (48, not 13 * 3.6). */
  readonly labelV: number;
  readonly capacityAh: number;
}

/** A pack with what else is known of it. */
export interface Pack extends LabelledPack {
  /** Pack volts at which its own protection cuts off, hard; null where nobody knows. */
  readonly protectionTripsV: number | null;
  /** The display's profile that belongs to this pack, where several exist. */
  readonly profile: string | null;
}

/** A motor of a type. One that freewheels can neither brake nor give pulses while coasting. */
export interface Motor {
  readonly place: 'front' | 'rear' | 'mid';
  readonly drive: 'mid' | 'gearedHub' | 'directHub';
  readonly freewheels: boolean;
}

export interface Tyre {
  readonly marking: string;
  /** The name of its size in inches; a name, not a diameter. */
  readonly wheelInch: number;
  /** Measured with a rider's load over a marked number of turns, mm a turn; null while nobody did. */
  readonly rolledMm: number | null;
  readonly barFrom: number | null;
  readonly barTo: number | null;
}

/** A brake, and whether its lever ends drive. `motor`: the motor brakes, as the brake that a law may count. */
export interface Brake {
  readonly wheel: 'front' | 'rear';
  readonly how: 'disc' | 'drum' | 'rim' | 'band' | 'motor' | 'unknown';
  readonly cutsMotor: boolean;
}

/** A paper that was seen for the type: what it is on, the standard that it names, and its number. */
export interface SeenCertificate extends CertificateAsked {
  readonly paper: string;
}

/** Numbers that stand on a vehicle and its parts, and the firmware that its display shows. */
export const NUMBERS = {
  frame: 'Frame',
  motor: 'Motor',
  controller: 'Controller',
  pack: 'Pack',
  charger: 'Charger',
  key: 'Key',
  firmware: 'Firmware',
} as const;
export type NumberOf = keyof typeof NUMBERS;
/** A part has a number to itself; the same firmware runs on many units. */
export const isOfOnePart = (of: NumberOf): boolean => of !== 'firmware';

/** A code's value under which the type was approved, where that is not what the display is delivered with. */
export interface ApprovedValue {
  readonly map: string;
  readonly label: string;
  readonly raw: number;
}

/** Facts of a type that may still lack a source. */
export const TYPE_FACTS = [
  'ratedPowerW',
  'controllerLimitA',
  'typeLimitA',
  'attainableKmh',
  'pack',
  'displayStands',
  'wheelPulses',
  'pedalMagnets',
  'controllerCutoffV',
  'speedLimit',
] as const;
export type TypeFact = (typeof TYPE_FACTS)[number];

/** A vehicle model: what all its units have in common. */
export interface VehicleType {
  readonly format: 'decurio-vehicle-type/3';
  readonly id: string;
  readonly name: string;
  /** Longer name for screens with room. */
  readonly title: string;
  readonly kind: 'bike' | 'scooter';
  readonly motors: readonly Motor[];
  /** The motor's label, W; of all motors together. */
  readonly ratedPowerW: number;
  /** Battery current of all controllers together, A. */
  readonly controllerLimitA: number;
  /** What the maker of the vehicle allows, at most the controller's limit. */
  readonly typeLimitA: number;
  /** Volts at which the controller itself cuts off; null where nobody knows. */
  readonly controllerCutoffV: number | null;
  /** Top speed on a full pack, on the level, without any cap, km/h. */
  readonly attainableKmh: number;
  /** Speed the maker of the vehicle allows, such as for its brakes; null for none. */
  readonly speedLimit: Speed | null;
  readonly pack: Pack;
  /** Supply volts that the display stands; null where nobody knows. */
  readonly displayStandsV: { readonly from: number; readonly to: number } | null;
  readonly tyre: Tyre;
  /** Pulses the wheel sensor gives per turn, as counted. */
  readonly wheelPulses: number;
  /** Magnets of the pedal sensor; null where there are no pedals. */
  readonly pedalMagnets: number | null;
  readonly throttleFitted: boolean;
  readonly brakes: readonly Brake[];
  readonly fittings: readonly Fitting[];
  /** As it leaves, pack and all, kg; null where nobody weighed it. */
  readonly massKg: number | null;
  readonly certificates: readonly SeenCertificate[];
  /** Numbers that are scanned at check in. */
  readonly numbers: readonly NumberOf[];
  /** The list of checks before delivery, of the library; null for none. */
  readonly checkList: string | null;
  readonly keySwitch: boolean;
  /** Built to carry: pushed by hand it is heavy. */
  readonly heavyCargo: boolean;
  /** Consumption at a middle level, Wh per km; null where nobody knows. */
  readonly whPerKm: { readonly least: number; readonly most: number } | null;
  /** Ids of the display maps that may be fitted. */
  readonly maps: readonly string[];
  readonly approved: readonly ApprovedValue[];
  /** Facts above that nobody has a source for yet. */
  readonly needsSource: readonly TypeFact[];
  readonly cautions: readonly string[];
  /** How to cut power at once, in one line. */
  readonly cutPower: string;
}

/** Whether the lever of a wheel's brake ends drive. */
export const cutsMotor = ({ brakes }: Pick<VehicleType, 'brakes'>, wheel: Brake['wheel']): boolean =>
  brakes.some((brake) => brake.wheel === wheel && brake.cutsMotor);

/** Whether the motor is one of its brakes: whoever makes it weaker takes from what the law may count. */
export const brakesByMotor = ({ brakes }: Pick<VehicleType, 'brakes'>): boolean =>
  brakes.some(({ how }) => how === 'motor');

const DRIVES = { mid: 'mid motor', gearedHub: 'geared hub', directHub: 'direct hub' } as const;

/** `geared hub, rear` or `direct hub, front and direct hub, rear`. */
export const motorWords = (type: Pick<VehicleType, 'motors'>): string =>
  type.motors.map(({ place, drive }) => (drive === 'mid' ? 'mid motor' : `${DRIVES[drive]}, ${place}`)).join(' and ');
