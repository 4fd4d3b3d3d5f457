import { NO_FAULTS, type DisplayState, type Faults } from '@decurio/core';

/** A stand-in unit as this device keeps it, so that a reload finds it as it was left. */
export interface KeptStandIn {
  readonly faults: Omit<Faults, 'otherRevision'> & { readonly otherMapId: string | null };
  readonly display: DisplayState | null;
  readonly isPackIn: boolean;
  readonly chargePercent: number;
  readonly odometerKm: number;
}

const keptAt = (unitId: string): string => `decurio.standIn.${unitId}`;
/** Faults without the other display, which is kept by its name. */
const ownFaults = (faults: Faults): Omit<Faults, 'otherRevision'> => {
  const { otherRevision, ...own } = faults;
  void otherRevision;
  return own;
};

export const FRESH: KeptStandIn = {
  faults: { ...ownFaults(NO_FAULTS), otherMapId: null },
  display: null,
  isPackIn: true,
  chargePercent: 94,
  odometerKm: 3,
};

export function keptStandIn(unitId: string): KeptStandIn {
  try {
    const kept = JSON.parse(localStorage.getItem(keptAt(unitId)) ?? 'null') as Partial<KeptStandIn> | null;
    return kept?.faults ? { ...FRESH, ...kept, faults: { ...FRESH.faults, ...kept.faults } } : FRESH;
  } catch {
    return FRESH;
  }
}

export const keepStandIn = (unitId: string, kept: KeptStandIn): void =>
  localStorage.setItem(keptAt(unitId), JSON.stringify(kept));

/** The same hidden wheel for the same serial, whoever tries it. */
export const seedOf = (serial: string): number =>
  [...serial].reduce((seed, sign) => Math.imul(seed ^ sign.charCodeAt(0), 16_777_619), 2_166_136_261) >>> 0;
