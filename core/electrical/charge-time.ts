import { badFigure } from '../figures.js';
import { ok, type Result } from '../result.js';
import type { LabelledPack } from '../setup/inputs/vehicle-type.js';
import { chargeTold } from './open-circuit.js';

/** Of what a charger gives, so much stays in the cells. */
const KEPT = { liIon: 0.97, lfp: 0.97, leadAcid: 0.8 } as const;
/** The last part goes in at a falling current: it takes so much longer than at the full one, minutes. */
const TAIL_MIN = { liIon: 25, lfp: 15, leadAcid: 90 } as const;
/** A pack nobody measured is reckoned with as makers send them. */
const AS_SENT_PERCENT = 30;

/**
 * Minutes until a pack is full at a charger: what it lacks by its volts at rest, at the charger's current, and the tail
 * at a falling one. Where its volts leave a span of charge the emptier end counts.
 * @param packV at rest, by meter; null where nobody measured it
 * @param currentA of the charger
 * @returns refused (`noFigure`) where a figure is none
 * @example
 * const pack = { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 10 } as const;
 * // Half of 10 Ah at 2 A, 155 minutes, and 25 for the tail.
 * chargeMinutes(pack, 37, 2); // { ok: true, value: 180 }
 */
export function chargeMinutes(pack: LabelledPack, packV: number | null, currentA: number): Result<number> {
  const { chemistry, cellsInSeries, capacityAh } = pack;
  const bad = badFigure({
    'Its number of cells': [cellsInSeries, 'whole'],
    'Its capacity': [capacityAh, 'aboveZero'],
    "The charger's current": [currentA, 'aboveZero'],
    ...(packV === null ? {} : { 'The volts': [packV, 'notBelowZero'] as const }),
  });
  if (bad) return { ok: false, problem: bad };
  const percent = packV === null ? AS_SENT_PERCENT : (chargeTold(chemistry, packV / cellsInSeries)?.fromPercent ?? 0);
  const lacksAh = (capacityAh * (100 - percent)) / 100;
  return ok(Math.round((lacksAh / (currentA * KEPT[chemistry])) * 60 + TAIL_MIN[chemistry]));
}
