import { badFigure } from '../figures.js';
import type { LabelledPack, Pack } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS } from './cell.js';

export interface CutoffWish {
  /** Volts at which the ride should end gently, before it is brought onto a code's grid. */
  readonly volts: number;
  /** Whether the code's value must lie above `volts`, not at it: the pack's own protection trips there. */
  readonly strictly: boolean;
  readonly decidedBy: 'cells' | 'controller' | 'protection';
}

/**
 * (cell floor + margin) * cells in series, and never nearer the knee of the cell's curve than it should be.
 * @throws RangeError where margin or cells are no figure: types and house rules are looked at before
 * @example
 * cutoffTargetV({ chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13 }, 0.1); // 31
 * cutoffTargetV({ chemistry: 'lfp', cellsInSeries: 12, labelV: 36, capacityAh: 13 }, 0.1); // 33.6
 */
export function cutoffTargetV(pack: LabelledPack, marginVPerCell: number): number {
  const bad = badFigure({ 'The margin': [marginVPerCell, 'notBelowZero'], 'The cells': [pack.cellsInSeries, 'whole'] });
  if (bad) throw new RangeError(bad.message);
  const { floorV, kneeV } = CELL_VOLTS[pack.chemistry];
  return Number((Math.max(floorV + marginVPerCell, kneeV) * pack.cellsInSeries).toFixed(3));
}

/**
 * Where the ride should end: at the cells' floor and margin, not under the controller's own cut-off where that is
 * known, and above the voltage at which the pack's own protection trips, so that the controller ends the ride first.
 */
export function cutoffWish(pack: Pack, marginVPerCell: number, controllerCutoffV: number | null): CutoffWish {
  const cells = cutoffTargetV(pack, marginVPerCell);
  const trips = pack.protectionTripsV;
  if (trips !== null && trips >= Math.max(cells, controllerCutoffV ?? 0))
    return { volts: trips, strictly: true, decidedBy: 'protection' };
  if (controllerCutoffV !== null && controllerCutoffV > cells)
    return { volts: controllerCutoffV, strictly: false, decidedBy: 'controller' };
  return { volts: cells, strictly: false, decidedBy: 'cells' };
}
