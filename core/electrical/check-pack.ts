import type { LabelledPack } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS } from './cell.js';

/** Cells in series that packs of each chemistry are built with. */
const SERIES_COUNTS = {
  liIon: [7, 10, 13, 14, 16, 17, 20],
  lfp: [8, 12, 15, 16, 20, 24],
  leadAcid: [12, 18, 24, 30, 36],
} as const;

export interface PackCheck {
  readonly verdict: 'fits' | 'tooLow' | 'tooHigh';
  readonly floorV: number;
  readonly fullV: number;
  /** Every usual count of this chemistry that puts the reading between floor and full. */
  readonly countsThatFit: readonly number[];
  /** One sentence for the bench. */
  readonly says: string;
}

/**
 * Holds a meter reading at rest against the pack that the type says is fitted.
 * @param packV volts between the pack's terminals, measured
 */
export function checkPack(pack: LabelledPack, packV: number): PackCheck {
  const cell = CELL_VOLTS[pack.chemistry];
  const floorV = round(cell.floorV * pack.cellsInSeries);
  const fullV = round(cell.fullV * pack.cellsInSeries);
  const countsThatFit = SERIES_COUNTS[pack.chemistry].filter(
    (n) => packV >= cell.floorV * n - 1e-9 && packV <= cell.fullV * n + 1e-9,
  );
  const verdict = packV < floorV - 1e-9 ? 'tooLow' : packV > fullV + 1e-9 ? 'tooHigh' : 'fits';
  const range = `${pack.cellsInSeries} cells read ${floorV.toFixed(1)} to ${fullV.toFixed(1)} V`;
  const other = countsThatFit.length > 0 ? ` ${packV.toFixed(1)} V would fit ${countsThatFit.join(' or ')} cells.` : '';
  const says = {
    fits: `Fits: ${range}.`,
    tooLow: `Below its floor: ${range}. Charge it with its own charger and read again; a pack that stays low goes to whoever is qualified.${other}`,
    tooHigh: `Too high for this type: ${range}. This may be another pack.${other} Do not power it until that is settled.`,
  }[verdict];
  return { verdict, floorV, fullV, countsThatFit, says };
}

const round = (volts: number): number => Math.round(volts * 100) / 100;
