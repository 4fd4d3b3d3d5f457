import type { Chemistry } from '../setup/inputs/vehicle-type.js';

/** Volts of one cell. A lead-acid cell is 2 V. */
export interface CellVolts {
  /** Under load, never below. */
  readonly floorV: number;
  readonly nominalV: number;
  /** The highest that it rests at. */
  readonly restedFullV: number;
  /** At the end of charge. */
  readonly fullV: number;
  /** Rested, with about a tenth of its charge left. */
  readonly restedLowV: number;
  /** Rested lower than this it is charged only while somebody watches, and measured again. */
  readonly watchedBelowV: number;
  /** Rested lower than this it is never charged or powered again. */
  readonly ruinedBelowV: number;
  /** What a gauge should call full: what a cell rests at some time after the charger is off. */
  readonly gaugeFullV: number;
  /** The least at which a ride should end: off the knee of its curve. */
  readonly kneeV: number;
}

/** Common figures for cells in consumer packs; the maker's paper for a given pack goes before them. */
export const CELL_VOLTS: Readonly<Record<Chemistry, CellVolts>> = {
  liIon: {
    floorV: 3.0,
    nominalV: 3.6,
    restedFullV: 4.2,
    fullV: 4.2,
    restedLowV: 3.45,
    watchedBelowV: 3.0,
    ruinedBelowV: 2.5,
    gaugeFullV: 4.12,
    kneeV: 3.0,
  },
  lfp: {
    floorV: 2.5,
    nominalV: 3.2,
    restedFullV: 3.4,
    fullV: 3.65,
    restedLowV: 3.15,
    watchedBelowV: 2.8,
    ruinedBelowV: 2.0,
    gaugeFullV: 3.34,
    kneeV: 2.8,
  },
  leadAcid: {
    floorV: 1.75,
    nominalV: 2.0,
    restedFullV: 2.12,
    fullV: 2.4,
    restedLowV: 1.97,
    watchedBelowV: 1.95,
    ruinedBelowV: 1.5,
    gaugeFullV: 2.11,
    kneeV: 1.75,
  },
};

/** Less than this a cell is not discharged to: a switch, a fuse or the pack's own protection is open. */
export const OPEN_BELOW_V = 0.5;

/** Cells in series that packs of a nominal label are built with. */
export const CELLS_BY_LABEL: Readonly<
  Record<Chemistry, readonly (readonly [labelV: number, cells: readonly number[]])[]>
> = {
  liIon: [
    [24, [7]],
    [36, [10]],
    [48, [13]],
    [52, [14]],
    [60, [16, 17]],
    [72, [20]],
  ],
  lfp: [
    [24, [8]],
    [36, [12]],
    [48, [15, 16]],
    [60, [20]],
    [72, [24]],
  ],
  leadAcid: [
    [24, [12]],
    [36, [18]],
    [48, [24]],
    [60, [30]],
    [72, [36]],
  ],
};

/** Li-ion packs of counts that go with none of the usual labels, and are met all the same. */
const ODD_COUNTS: Readonly<Record<Chemistry, readonly number[]>> = { liIon: [12, 15], lfp: [], leadAcid: [] };

/** Every count of cells in series that a pack of this chemistry is usually built with, rising. */
export const countsInSeries = (chemistry: Chemistry): readonly number[] =>
  [...CELLS_BY_LABEL[chemistry].flatMap(([, cells]) => cells), ...ODD_COUNTS[chemistry]].toSorted((a, b) => a - b);
