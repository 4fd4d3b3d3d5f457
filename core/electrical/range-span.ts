import type { LabelledPack } from '../setup/inputs/vehicle-type.js';

export interface RangeInputs {
  readonly pack: LabelledPack;
  /** Share of the charge that is planned on, 0 to 1; four fifths where the house spares its packs. */
  readonly usableShare: number;
  /** Consumption of the type at a level, least and most, Wh per km. */
  readonly whPerKm: { readonly least: number; readonly most: number };
}

/** How far a charge goes, as a span, with what it rests on. */
export interface RangeSpan {
  readonly fromKm: number;
  readonly toKm: number;
  readonly usableWh: number;
  readonly assumes: readonly string[];
}

/** Range for the handover card: label volts * Ah * usable share, over Wh per km; whole kilometres, rounded down. */
export function rangeSpan({ pack, usableShare, whPerKm }: RangeInputs): RangeSpan {
  const usableWh = pack.labelV * pack.capacityAh * usableShare;
  return {
    fromKm: Math.floor(usableWh / whPerKm.most),
    toKm: Math.floor(usableWh / whPerKm.least),
    usableWh,
    assumes: [
      `${pack.labelV} V and ${pack.capacityAh} Ah as labelled, a healthy pack at about 20 °C`,
      `${Math.round(usableShare * 100)} % of the charge used`,
      `${whPerKm.least} to ${whPerKm.most} Wh per km; wind, hills and load take more`,
    ],
  };
}
