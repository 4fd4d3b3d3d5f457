import {
  CELL_VOLTS,
  cutoffWish,
  doubtAboutPack,
  kmhWords,
  parseTyreMarking,
  rangeSpan,
  rollOutGuess,
  type Brake,
  type TypeFact,
  type VehicleType,
} from '@decurio/core';

export const CHEMISTRY_TITLES = { liIon: 'Li-ion', lfp: 'LFP', leadAcid: 'sealed lead-acid' } as const;

export const BRAKE_TITLES: Readonly<Record<Brake['how'], string>> = {
  disc: 'disc',
  drum: 'drum',
  rim: 'rim',
  band: 'band',
  motor: 'the motor brakes',
  unknown: 'of a kind not noted',
};

/** `front: disc, ends drive`. */
export const brakeWords = ({ wheel, how, cutsMotor }: Brake): string =>
  `${wheel}: ${BRAKE_TITLES[how]}, ${cutsMotor ? 'its lever ends drive' : 'its lever does not end drive'}`;

export const FACT_TITLES: Readonly<Record<TypeFact, string>> = {
  ratedPowerW: 'rated power',
  controllerLimitA: "controller's limit",
  typeLimitA: 'current the type allows',
  attainableKmh: 'attainable speed',
  pack: 'pack',
  displayStands: 'volts the display stands',
  wheelPulses: 'wheel pulses',
  pedalMagnets: 'pedal magnets',
  controllerCutoffV: "controller's cut-off",
  speedLimit: "maker's speed limit",
};

export interface Following {
  readonly kind: 'care' | 'note';
  readonly says: string;
}

const known = (...values: readonly unknown[]): boolean =>
  values.every((value) => typeof value === 'number' && value > 0);

/** What follows from a type as far as it is typed: odd ones first. Half-typed fields are passed over. */
export function whatFollows(type: VehicleType): readonly Following[] {
  const { pack, tyre, displayStandsV } = type;
  const rows: Following[] = [];
  const care = (says: string) => rows.unshift({ kind: 'care', says });
  const note = (says: string) => rows.push({ kind: 'note', says });
  if (known(pack.cellsInSeries, pack.labelV)) {
    const cell = CELL_VOLTS[pack.chemistry];
    const full = cell.fullV * pack.cellsInSeries;
    note(
      `A meter reads ${(cell.floorV * pack.cellsInSeries).toFixed(1)} V when empty and ${full.toFixed(1)} V right after a full charge.`,
    );
    note(
      `With a tenth of a volt per cell to spare the ride ends at ${cutoffWish(pack, 0.1, type.controllerCutoffV).volts} V.`,
    );
    const doubt = doubtAboutPack(pack);
    if (doubt) care(doubt);
    if (displayStandsV && full > displayStandsV.to)
      care(`The display stands ${displayStandsV.to} V; this pack has ${full.toFixed(1)} V when full.`);
    if (pack.protectionTripsV !== null && pack.protectionTripsV > cell.floorV * pack.cellsInSeries)
      care(
        `The pack protects itself at ${pack.protectionTripsV} V, above its cells' floor: the cut-off goes above that.`,
      );
  }
  const marking = parseTyreMarking(tyre.marking);
  if (marking) {
    const guess = rollOutGuess(marking);
    note(
      `By its marking a turn is about ${Math.round(guess.mm)} mm, between ${Math.round(guess.fromMm)} and ${Math.round(guess.toMm)}.`,
    );
    if (tyre.rolledMm !== null && known(tyre.rolledMm) && (tyre.rolledMm < guess.fromMm || tyre.rolledMm > guess.toMm))
      care(
        `Rolled out ${tyre.rolledMm} mm is outside what a ${tyre.marking} tyre rolls. Measure once more, or read the marking again.`,
      );
  } else if (tyre.marking.trim() !== '')
    note(`"${tyre.marking}" is no marking such as 47-559: a circumference has to be rolled out.`);
  if (known(type.typeLimitA, pack.labelV, type.ratedPowerW) && type.typeLimitA * pack.labelV > type.ratedPowerW * 4)
    care(
      `${type.typeLimitA} A at ${pack.labelV} V draws ${Math.round(type.typeLimitA * pack.labelV)} W for a motor rated ${type.ratedPowerW} W. Is that meant?`,
    );
  if (known(type.typeLimitA, type.controllerLimitA) && type.typeLimitA > type.controllerLimitA)
    care('The type cannot allow more current than its controller gives.');
  if (type.whPerKm && known(type.whPerKm.least, type.whPerKm.most, pack.capacityAh, pack.labelV)) {
    const range = rangeSpan({ pack, usableShare: 0.8, whPerKm: type.whPerKm });
    if (range.ok) note(`On four fifths of a charge it goes ${range.value.fromKm} to ${range.value.toKm} km.`);
  }
  if (
    type.speedLimit &&
    known(type.speedLimit.value, type.attainableKmh) &&
    type.speedLimit.unit === 'km/h' &&
    type.speedLimit.value > type.attainableKmh
  )
    note(`It does not reach the ${kmhWords(type.speedLimit.value)} its maker allows.`);
  return rows;
}
