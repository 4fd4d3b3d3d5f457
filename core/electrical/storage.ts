import { badFigure } from '../figures.js';
import { ok, type Result } from '../result.js';
import type { LabelledPack } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS } from './cell.js';
import { chargeTold, restedCellV } from './open-circuit.js';

/** At which charge a pack is put away, percent: lithium half full, lead-acid full, since that dies of standing empty. */
const KEPT_AT = { liIon: [40, 60], lfp: [40, 60], leadAcid: [90, 100] } as const;

/** Whole days after which a pack that stands is measured again. */
export const STORAGE_DAYS = 30;

/** What to do with a pack before it stands, in a sentence. */
export const STORAGE_ACTS = {
  store: 'Put it away so: dry, cool, apart, off the vehicle.',
  charge: 'Charge it up to there first, with its own charger.',
  use: 'Use it down to there first: a full lithium pack ages while it stands.',
  measureCharge: 'Its volts do not tell: charge it full, then take half of its Ah out of it.',
  stop: 'Not as it is: it is neither charged nor powered until somebody qualified has seen it. Measure it again at check in.',
} as const;

export interface StorageAdvice {
  /** Volts at rest between which it is put away. */
  readonly fromV: number;
  readonly toV: number;
  /** `charge` it first, `use` it down first, `store` it, or its volts do not tell (`measureCharge`), or nobody powers it (`stop`). */
  readonly act: keyof typeof STORAGE_ACTS;
}

/**
 * How a pack is put away for more than a few weeks: by its volts at rest, by meter.
 * @returns refused (`noFigure`) where a figure is none
 * @example
 * const pack = { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13 } as const;
 * const acts = [35.9, 37, 41].map((packV) => storageAdvice(pack, packV)).map((advice) => advice.ok && advice.value.act);
 * acts; // ['charge', 'store', 'use']
 */
export function storageAdvice(pack: LabelledPack, packV: number): Result<StorageAdvice> {
  const { chemistry, cellsInSeries } = pack;
  const bad = badFigure({ 'Its number of cells': [cellsInSeries, 'whole'], 'The volts': [packV, 'notBelowZero'] });
  if (bad) return { ok: false, problem: bad };
  const [from, to] = KEPT_AT[chemistry];
  const volts = (percent: number): number => Number((restedCellV(chemistry, percent) * cellsInSeries).toFixed(1));
  const cellV = packV / cellsInSeries;
  const told = chargeTold(chemistry, cellV);
  const act = (): StorageAdvice['act'] => {
    if (cellV < CELL_VOLTS[chemistry].watchedBelowV || cellV > CELL_VOLTS[chemistry].fullV + 0.02) return 'stop';
    if (told === null || told.toPercent < from) return 'charge';
    if (told.fromPercent > to) return 'use';
    return told.fromPercent >= from && told.toPercent <= to ? 'store' : 'measureCharge';
  };
  return ok({ fromV: volts(from), toV: volts(to), act: act() });
}
