import { badFigure } from '../figures.js';
import { ok, refuse, type Result } from '../result.js';
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

/**
 * Range for the handover card: label volts * Ah * usable share, over Wh per km; whole kilometres, rounded down. What the
 * last binary digit alone keeps under a whole kilometre is that kilometre.
 * @returns refused where a figure is none (`noFigure`), or most lies under least (`turnedRound`)
 * @example
 * const pack = { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13 } as const;
 * const range = rangeSpan({ pack, usableShare: 0.8, whPerKm: { least: 7, most: 11 } });
 * range.ok && [range.value.fromKm, range.value.toKm]; // [34, 53]
 */
export function rangeSpan({ pack, usableShare, whPerKm }: RangeInputs): Result<RangeSpan> {
  const bad = badFigure({
    'The label': [pack.labelV, 'aboveZero'],
    'The capacity': [pack.capacityAh, 'aboveZero'],
    'The share planned on': [usableShare, 'aboveZero'],
    'The least use': [whPerKm.least, 'aboveZero'],
    'The most use': [whPerKm.most, 'aboveZero'],
  });
  if (bad) return { ok: false, problem: bad };
  if (usableShare > 1) return refuse('moreThanAll', 'No more than the whole charge can be planned on.');
  if (whPerKm.most < whPerKm.least) return refuse('turnedRound', 'The least use comes first, the most after it.');
  const usableWh = pack.labelV * pack.capacityAh * usableShare;
  return ok({
    fromKm: wholeKm(usableWh / whPerKm.most),
    toKm: wholeKm(usableWh / whPerKm.least),
    usableWh,
    assumes: [
      `${pack.labelV} V and ${pack.capacityAh} Ah as labelled, a healthy pack at about 20 °C`,
      `${Math.round(usableShare * 100)} % of the charge used`,
      `${whPerKm.least} to ${whPerKm.most} Wh per km; wind, hills and load take more`,
      ...(pack.chemistry === 'leadAcid'
        ? ['less at a high current, as lead-acid gives less the faster it is drawn']
        : []),
    ],
  });
}

const wholeKm = (km: number): number => Math.floor(km * (1 + 1e-12));
