import type { Chemistry } from '../setup/inputs/vehicle-type.js';

/** Volts of one cell: loaded floor, nominal, highest rested, end of charge. A lead-acid cell is 2 V. */
export interface CellVolts {
  readonly floorV: number;
  readonly nominalV: number;
  readonly restedFullV: number;
  readonly fullV: number;
}

/** Common figures for cells in consumer packs; the maker's paper for a given pack goes before them. */
export const CELL_VOLTS: Readonly<Record<Chemistry, CellVolts>> = {
  liIon: { floorV: 3.0, nominalV: 3.6, restedFullV: 4.2, fullV: 4.2 },
  lfp: { floorV: 2.5, nominalV: 3.2, restedFullV: 3.4, fullV: 3.65 },
  leadAcid: { floorV: 1.75, nominalV: 2.0, restedFullV: 2.12, fullV: 2.4 },
};
