import { badFigure } from '../figures.js';
import { ok, type Result } from '../result.js';
import type { LabelledPack } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS } from './cell.js';
import { restedCellV } from './open-circuit.js';

export interface GaugeInputs {
  readonly pack: LabelledPack;
  readonly bars: number;
  /** Where a bar goes out: at the end of its share of the charge, or in the middle of it. The map says. */
  readonly goesOutAt: 'edge' | 'centre';
  /** Sag while riding: cruising current, A, and what pack and leads resist, ohm. Left out, the gauge is that of a resting pack. */
  readonly sag?: { readonly cruisingA: number; readonly ohm: number };
  /** Where the controller ends the ride, V; a gauge is empty no lower than that. */
  readonly cutoffV?: number;
}

/** Pack volts, loaded if a sag is given. */
export interface GaugeSteps {
  /** Lowest voltage that keeps bar 2, 3, … up to the last; bar 1 is kept down to `emptyV`. Rising. */
  readonly steps: readonly { readonly bar: number; readonly packV: number }[];
  readonly emptyV: number;
  readonly fullV: number;
}

/**
 * The voltages of a battery gauge: each step is the lowest that keeps its bar, from the open-circuit curve of the
 * chemistry less the sag I * R at cruising current. Empty is the cell floor, which counts under load as it is, and never
 * under where the ride is cut off; full is what a rested pack shows some time after the charger is off.
 * @returns refused (`noFigure`) where a figure is none
 * @example
 * const pack = { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13 } as const;
 * const gauge = gaugeSteps({ pack, bars: 5, goesOutAt: 'edge', cutoffV: 31 });
 * gauge.ok && [gauge.value.emptyV, ...gauge.value.steps.map(({ packV }) => packV), gauge.value.fullV]; // [31, 35.5, 36.5, 37.7, 39.6, 41.2]
 */
export function gaugeSteps({ pack, bars, goesOutAt, sag, cutoffV }: GaugeInputs): Result<GaugeSteps> {
  const bad = badFigure({
    'The number of bars': [bars, 'whole'],
    'Its number of cells': [pack.cellsInSeries, 'whole'],
    'The cruising current': [sag?.cruisingA ?? 0, 'notBelowZero'],
    'The resistance': [sag?.ohm ?? 0, 'notBelowZero'],
    'The cut-off': [cutoffV ?? 0, 'notBelowZero'],
  });
  if (bad) return { ok: false, problem: bad };
  const sagV = sag ? sag.cruisingA * sag.ohm : 0;
  const packAt = (percent: number): number => round(restedCellV(pack.chemistry, percent) * pack.cellsInSeries - sagV);
  const shift = goesOutAt === 'edge' ? 0 : 0.5;
  const { floorV, gaugeFullV } = CELL_VOLTS[pack.chemistry];
  const emptyV = round(Math.max(floorV * pack.cellsInSeries, cutoffV ?? 0));
  const steps = Array.from({ length: Math.max(0, bars - 1) }, (_, i) => ({
    bar: i + 2,
    packV: Math.max(emptyV, packAt(((i + 1 + shift) / bars) * 100)),
  }));
  return ok({ steps, emptyV, fullV: round(gaugeFullV * pack.cellsInSeries - sagV) });
}

const round = (volts: number): number => Math.round(volts * 100) / 100;
