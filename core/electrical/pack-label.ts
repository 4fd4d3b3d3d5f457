import type { Chemistry, LabelledPack } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS } from './cell.js';

/** Cells in series that packs of a nominal label are built with. */
const CELLS_BY_LABEL: Readonly<Record<Chemistry, Readonly<Record<number, readonly number[]>>>> = {
  liIon: { 24: [7], 36: [10], 48: [13], 52: [14], 60: [16, 17], 72: [20] },
  lfp: { 24: [8], 36: [12], 48: [15, 16], 60: [20], 72: [24] },
  leadAcid: { 24: [12], 36: [18], 48: [24], 60: [30], 72: [36] },
};

/**
 * What is odd about a pack's description: a label that goes with another number of cells, or volts that the cells never
 * have. Null where label and cells go together, or the label is none of the usual ones and lies within the cells' volts.
 */
export function doubtAboutPack({
  chemistry,
  labelV,
  cellsInSeries,
}: Pick<LabelledPack, 'chemistry' | 'labelV' | 'cellsInSeries'>): string | null {
  const usual = CELLS_BY_LABEL[chemistry][labelV];
  if (usual?.includes(cellsInSeries) === true) return null;
  const cell = CELL_VOLTS[chemistry];
  const span = `${cellsInSeries} cells run from ${(cell.floorV * cellsInSeries).toFixed(1)} to ${(cell.fullV * cellsInSeries).toFixed(1)} V`;
  const others = Object.entries(CELLS_BY_LABEL[chemistry]).flatMap(([label, counts]) =>
    counts.includes(cellsInSeries) ? [`${label} V`] : [],
  );
  const called = others.length > 0 ? ` and are usually called ${others.join(' or ')}` : '';
  if (usual)
    return `A ${labelV} V pack usually has ${usual.join(' or ')} cells in series, not ${cellsInSeries}; ${span}${called}. Read the label once more.`;
  const isWithin = labelV >= cell.floorV * cellsInSeries && labelV <= cell.fullV * cellsInSeries;
  return isWithin
    ? null
    : `${labelV} V does not go with ${cellsInSeries} cells: ${span}${called}. Read the label once more.`;
}
