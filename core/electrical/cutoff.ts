import type { Pack } from '../setup/vehicle-type.js';
import { CELL_VOLTS } from './cell.js';

/** Volts at which the ride should end gently: (cell floor + margin) * cells in series. */
export const cutoffTargetV = (pack: Pack, marginVPerCell: number): number =>
  Number(((CELL_VOLTS[pack.chemistry].floorV + marginVPerCell) * pack.cellsInSeries).toFixed(3));
