import { badFigure } from '../figures.js';
import type { Chemistry } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS, CELLS_BY_LABEL } from './cell.js';
import { chargeTold, type ChargeTold } from './open-circuit.js';

/** What a gauge set to a class would show of a pack, whichever of the usual counts it takes for granted. */
export interface GaugeUnderClass {
  readonly labelV: number;
  /** Percent that a rested reading would be taken for; a span where volts or counts do not tell more. Null above full. */
  readonly charge: ChargeTold | null;
  /** `more than full` and `empty` where every count of the class says so. */
  readonly says: 'more than full' | 'empty' | 'plausible';
}

/**
 * What the gauge would show of a pack at `packV` under each voltage class of its chemistry, rising.
 * @returns nothing where the volts are no figure
 * @example
 * gaugeUnderEachClass('liIon', 50).map(({ labelV, says }) => `${labelV} ${says}`).slice(1, 3); // ['36 more than full', '48 plausible']
 */
export function gaugeUnderEachClass(chemistry: Chemistry, packV: number): readonly GaugeUnderClass[] {
  if (badFigure({ 'The pack': [packV, 'notBelowZero'] })) return [];
  const { fullV } = CELL_VOLTS[chemistry];
  return CELLS_BY_LABEL[chemistry].map(([labelV, counts]) => {
    const told = counts.flatMap((cells) => {
      const cellV = packV / cells;
      return cellV > fullV + 1e-9 ? [] : (chargeTold(chemistry, cellV) ?? []);
    });
    if (told.length === 0) return { labelV, charge: null, says: 'more than full' };
    const charge = {
      fromPercent: Math.min(...told.map(({ fromPercent }) => fromPercent)),
      toPercent: Math.max(...told.map(({ toPercent }) => toPercent)),
    };
    return { labelV, charge, says: charge.toPercent <= 0 ? 'empty' : 'plausible' };
  });
}

/** Percent within which a gauge's reading is taken for the curve's: gauges differ, and a pack is rarely quite at rest. */
const READING_SLACK = 12;

/**
 * Names the classes whose gauge would show what was seen: an impossible percentage, or "empty" on a charged pack, is
 * explained by a class other than the pack's. A span explains all that lies within it.
 * @param shown percent on the glass; 0 for "empty", above 100 as shown
 * @returns nothing where a figure is none
 */
export function classesThatExplain(chemistry: Chemistry, packV: number, shown: number): readonly number[] {
  if (badFigure({ 'The gauge': [shown, 'notBelowZero'] })) return [];
  return gaugeUnderEachClass(chemistry, packV)
    .filter(({ charge, says }) =>
      shown > 100
        ? says === 'more than full'
        : charge !== null && shown >= charge.fromPercent - READING_SLACK && shown <= charge.toPercent + READING_SLACK,
    )
    .map(({ labelV }) => labelV);
}

/** A charge as a person reads it: `about 40`, or `20 to 90` where the voltage tells no more. */
export function percentWords({ fromPercent, toPercent }: ChargeTold): string {
  const [from, to] = [Math.round(fromPercent), Math.round(toPercent)];
  return from === to ? `about ${from}` : `${from} to ${to}`;
}
