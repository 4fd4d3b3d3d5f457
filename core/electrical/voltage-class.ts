import type { Chemistry } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS } from './cell.js';
import { chargeTold } from './open-circuit.js';

/** Voltage classes that displays are made for, with the cells in series each takes for granted. */
const CLASSES: Readonly<Record<Chemistry, readonly (readonly [labelV: number, cells: number])[]>> = {
  liIon: [
    [24, 7],
    [36, 10],
    [48, 13],
    [52, 14],
    [60, 16],
    [72, 20],
  ],
  lfp: [
    [24, 8],
    [36, 12],
    [48, 16],
    [60, 20],
    [72, 24],
  ],
  leadAcid: [
    [24, 12],
    [36, 18],
    [48, 24],
    [60, 30],
    [72, 36],
  ],
};

/** What a gauge set to a class would show of a pack. */
export interface GaugeUnderClass {
  readonly labelV: number;
  /** Percent that a rested reading would be taken for; null above the class's full volts. */
  readonly percent: number | null;
  readonly says: 'more than full' | 'empty' | 'plausible';
}

/** What the gauge would show of a pack at `packV` under each voltage class of its chemistry, rising. */
export function gaugeUnderEachClass(chemistry: Chemistry, packV: number): readonly GaugeUnderClass[] {
  return CLASSES[chemistry].map(([labelV, cells]) => {
    const cellV = packV / cells;
    const { floorV, fullV } = CELL_VOLTS[chemistry];
    if (cellV > fullV + 1e-9) return { labelV, percent: null, says: 'more than full' };
    const { fromPercent, toPercent } = chargeTold(chemistry, cellV);
    return {
      labelV,
      percent: Math.round((fromPercent + toPercent) / 2),
      says: cellV <= floorV ? 'empty' : 'plausible',
    };
  });
}

/** Percent within which a gauge's reading is taken for the curve's: gauges differ, and a pack is rarely quite at rest. */
const READING_SLACK = 12;

/**
 * Names the classes whose gauge would show what was seen: an impossible percentage, or "empty" on a charged pack, is
 * explained by a class other than the pack's.
 * @param shown percent on the glass; 0 for "empty", above 100 as shown
 */
export function classesThatExplain(chemistry: Chemistry, packV: number, shown: number): readonly number[] {
  return gaugeUnderEachClass(chemistry, packV)
    .filter(({ percent, says }) =>
      shown > 100 ? says === 'more than full' : percent !== null && Math.abs(percent - shown) <= READING_SLACK,
    )
    .map(({ labelV }) => labelV);
}
