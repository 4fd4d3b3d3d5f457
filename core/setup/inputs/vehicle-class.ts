import type { Speed } from '../../speed/speed.js';

/** Who checked a class's values, with which authority, by which source, and until when that holds. Days as 2026-11-25. */
export interface ClassCheck {
  readonly by: string;
  readonly authority: string;
  readonly source: string;
  readonly on: string;
  readonly expiresOn: string;
}

/**
 * What may be done under a class. `set`: codes are set within its limits. `lowerOnly`: lowered, or restored as made,
 * never raised. `checkOnly`: approved as it is: compared and restored, never changed. `privateLand`: off public roads
 * only, with a lead's written authority.
 */
export type Regime = 'set' | 'lowerOnly' | 'checkOnly' | 'privateLand';

/** Whether the figure itself is within the rule: "up to 20 mph", or "less than 20 mph". */
export type Bound = 'atMost' | 'under';

/** `decide`: places under this class differ, or nobody is sure: a lead chooses, in writing. */
export type Leave = 'allowed' | 'decide' | 'forbidden';

/** Whether a rider needs something. `decide`: nobody is sure, and the authority is asked. */
export type Asked = 'no' | 'yes' | 'decide';

/**
 * Which reading of a power a rule means. `rated`: the motor's label, from which no current follows. `nominal`: label volts
 * times amperes. `full`: volts of a full pack times amperes. `peak`: what the motor gives at most, held to what goes into
 * it from a full pack, which is never less.
 */
export type PowerBasis = 'rated' | 'nominal' | 'full' | 'peak';

/** One limit of power. A class may have several, as a rated and a peak one. */
export interface PowerLimit {
  readonly watts: number;
  readonly basis: PowerBasis;
  readonly is: Bound;
}

/** What a vehicle carries for the road, and a class may ask for. */
export const FITTINGS = {
  frontLight: 'front light',
  rearLight: 'rear light',
  brakeLight: 'brake light',
  indicators: 'turn signals',
  reflectors: 'reflectors',
  bell: 'bell or horn',
  mirror: 'mirror',
  speedometer: 'speedometer',
} as const;
export type Fitting = keyof typeof FITTINGS;

/** A paper on battery, electrical system or whole vehicle that has to be seen, with the standard it names. */
export interface CertificateAsked {
  readonly of: 'battery' | 'electrical' | 'vehicle';
  readonly standard: string;
}

/** A place or an hour with a speed of its own, and what keeps it there: the rider, a code, or a module on the vehicle. */
export interface PlaceLimit {
  readonly where: string;
  readonly limit: Speed;
  readonly keptBy: 'rider' | 'code' | 'module';
}

/** A value of a class that nobody is sure of, with the question for the authority. */
export interface ClassDoubt {
  readonly about: string;
  readonly question: string;
}

/** A class of vehicle at a place, with the limits that hold for it and all else that it asks. */
export interface VehicleClass {
  readonly id: string;
  /** As read on screens and papers, e.g. `pedal assist to 25 km/h`. */
  readonly title: string;
  readonly kind: 'bike' | 'scooter' | 'any';
  readonly regime: Regime;
  /** In the statute's own unit. Null only where the type's or the site's counts. */
  readonly limit: Speed | null;
  readonly limitIs: Bound;
  readonly power: readonly PowerLimit[];
  readonly throttle: 'none' | 'toCap' | 'toSpeed' | 'asOrdered' | 'asApproved';
  /** For `toSpeed`. */
  readonly throttleTo: Speed | null;
  /** From which motion a throttle may drive. */
  readonly throttleFrom: 'standstill' | 'decide' | 'rolling' | 'pedalling';
  /** Up to here an aid may push without pedalling; null for none. */
  readonly startAid: Speed | null;
  readonly walk: Leave;
  readonly walkTo: Speed | null;
  /** Cruise holds drive without anybody asking for it. Where no throttle may drive it is off whatever stands here. */
  readonly cruise: Leave;
  /** A slow mode that must be there where people walk. */
  readonly walkingMode: Speed | null;
  /** Assist at most so many times the rider's own power; null for no such rule. */
  readonly assistFactor: number | null;
  /** Assist grows less towards the limit. */
  readonly taper: boolean;
  /** Each brake lever ends drive. */
  readonly cutOnBrake: boolean;
  /** Drive ends when pedalling stops: within so many seconds; `withinS` null where the rule names none. Null for no such rule. */
  readonly cutOnPedalStop: { readonly withinS: number | null } | null;
  /** A rider who can reach speed or power settings takes the vehicle out of this class. */
  readonly settingsOutOfReach: boolean;
  /** Who may change settings, in words; empty for no such rule. */
  readonly mayChange: string;
  /** Whoever alters what is approved may count as its maker: a lead decides, with the authority's answer. */
  readonly changeMakesMaker: boolean;
  /** Brakes that work without one another; 0 where the rule names none. */
  readonly brakes: number;
  readonly fittings: readonly Fitting[];
  readonly greatestMassKg: number | null;
  readonly leastAge: number | null;
  readonly helmet: Asked;
  readonly licence: Asked;
  readonly plate: Asked;
  readonly insurance: Asked;
  /** What else a rider has to know, in a sentence. */
  readonly riderNote: string;
  readonly certificates: readonly CertificateAsked[];
  readonly places: readonly PlaceLimit[];
  readonly labelFields: readonly string[];
  /** Least height of letters on the label, mm. */
  readonly labelLetterMm: number | null;
  readonly endSpeedMeasured: boolean;
  /** Relative, stated by the rule itself; a production tolerance is no target. */
  readonly tolerance: number;
  /** Values that nobody is sure of; the others are held for common knowledge, and are checked all the same. */
  readonly doubts: readonly ClassDoubt[];
  /** Whom to ask. */
  readonly ask: string;
  readonly source: string;
  readonly note: string;
  /** Null while nobody of this house has checked it. */
  readonly checked: ClassCheck | null;
}

export type CheckStanding = 'checked' | 'expired' | 'notChecked';

/** Whether the check of a class holds on a day (2026-11-25). It holds on its last day too. */
export function checkStanding(checked: ClassCheck | null, today: string): CheckStanding {
  if (checked === null) return 'notChecked';
  return checked.expiresOn < today ? 'expired' : 'checked';
}

/** `checked by Ines M. on 2026-11-02`, `not checked`, or that the check ran out, as every screen and paper shows it. */
export function checkedLine(checked: ClassCheck | null, today?: string): string {
  if (checked === null) return 'not checked';
  const line = `checked by ${checked.by} on ${checked.on}`;
  return today !== undefined && checked.expiresOn < today ? `${line}, ran out on ${checked.expiresOn}` : line;
}

/** What a class says, without who checked it: a check belongs to exactly these values. */
export const classValues = ({ checked: _checked, ...values }: VehicleClass): Omit<VehicleClass, 'checked'> => values;
