/** A class of vehicle at a place, with the limits that hold for it. */
export interface VehicleClass {
  readonly id: string;
  /** As read on screens and papers, e.g. `pedal assist to 25 km/h`. */
  readonly title: string;
  readonly kind: 'bike' | 'scooter';
  readonly capKmh: number;
  readonly ratedPowerW: number | null;
  /** Which of the three readings of power the limit means. On `rated` no current follows from it. */
  readonly powerBasis: 'rated' | 'nominal' | 'full';
  readonly throttle: 'none' | 'asOrdered' | 'toCap';
  /** Speed up to which a start-up aid may push without pedalling. */
  readonly throttleToKmh: number;
  readonly source: string;
  readonly note: string;
}

/** A place's classes. Limits are starting points that the shop checks with its own authority. */
export interface RulePack {
  readonly format: 'decurio-rule-pack/1';
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly classes: readonly VehicleClass[];
  /** Who checked the values, with which authority, and until when that holds; null while nobody has. */
  readonly checked: { readonly by: string; readonly authority: string; readonly on: string; readonly expiresOn: string } | null;
}

/** `checked by Ines M. on 2026-11-02` or `not checked`, as every screen and paper shows it. */
export const checkedLine = (pack: Pick<RulePack, 'checked'>): string =>
  pack.checked ? `checked by ${pack.checked.by} on ${pack.checked.on}` : 'not checked';
