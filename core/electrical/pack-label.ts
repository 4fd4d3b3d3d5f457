import type { LabelledPack } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS, CELLS_BY_LABEL } from './cell.js';

/**
 * What is odd about a pack's description: a label that goes with another number of cells, or volts that the cells never
 * have. Null where label and cells go together, or the label is none of the usual ones and lies within the cells' volts.
 */
export function doubtAboutPack({
  chemistry,
  labelV,
  cellsInSeries,
}: Pick<LabelledPack, 'chemistry' | 'labelV' | 'cellsInSeries'>): string | null {
  const usual = CELLS_BY_LABEL[chemistry].find(([label]) => label === labelV)?.[1];
  if (usual?.includes(cellsInSeries) === true) return null;
  const cell = CELL_VOLTS[chemistry];
  const span = `${cellsInSeries} cells run from ${(cell.floorV * cellsInSeries).toFixed(1)} to ${(cell.fullV * cellsInSeries).toFixed(1)} V`;
  const others = CELLS_BY_LABEL[chemistry].flatMap(([label, counts]) =>
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
