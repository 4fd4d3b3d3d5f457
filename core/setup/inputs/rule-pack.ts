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

/** A class of vehicle at a place, with the limits that hold for it. */
export interface VehicleClass {
  readonly id: string;
  /** As read on screens and papers, e.g. `pedal assist to 25 km/h`. */
  readonly title: string;
  readonly kind: 'bike' | 'scooter' | 'any';
  readonly regime: Regime;
  /** In the statute's own unit. Null only where the type's or the site's counts. */
  readonly limit: Speed | null;
  readonly ratedPowerW: number | null;
  /** Which of the three readings of power the limit means. On `rated` no current follows from it. */
  readonly powerBasis: 'rated' | 'nominal' | 'full';
  readonly throttle: 'none' | 'toCap' | 'toSpeed' | 'asOrdered' | 'asApproved';
  /** For `toSpeed`. */
  readonly throttleTo: Speed | null;
  /** Up to here an aid may push without pedalling; null for none. */
  readonly startAid: Speed | null;
  readonly walk: 'allowed' | 'forbidden';
  readonly walkTo: Speed | null;
  /** Drive from standstill without pedalling. */
  readonly liveStart: 'allowed' | 'decide' | 'forbidden';
  /** A slow mode that must be there where people walk. */
  readonly walkingMode: Speed | null;
  /** A rider who can reach speed or power settings takes the vehicle out of this class. */
  readonly settingsOutOfReach: boolean;
  readonly needsSpeedometer: boolean;
  readonly endSpeedMeasured: boolean;
  /** Relative, stated by the rule itself; a production tolerance is no target. */
  readonly tolerance: number;
  readonly labelFields: readonly string[];
  readonly ageNote: string;
  readonly source: string;
  readonly note: string;
  /** Null while nobody of this house has checked it. */
  readonly checked: ClassCheck | null;
}

/** A place's classes. Limits are starting points that the shop checks with its own authority. */
export interface RulePack {
  readonly format: 'decurio-rule-pack/2';
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly classes: readonly VehicleClass[];
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
