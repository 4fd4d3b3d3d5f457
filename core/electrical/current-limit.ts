import { badFigure } from '../figures.js';
import { ok, type Result } from '../result.js';
import type { LabelledPack } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS } from './cell.js';

export interface CurrentLimitInputs {
  readonly pack: LabelledPack;
  /** What the class allows, W; null where it names no power. */
  readonly limitW: number | null;
  /** Which reading of a power the rule means. */
  readonly basis: 'rated' | 'nominal' | 'full';
  /** The motor's label, W. */
  readonly ratedW: number;
  readonly controllerA: number;
  readonly typeA: number;
}

export interface CurrentLimit {
  /** Greatest battery current, A, before it is brought onto a code's grid. */
  readonly limitA: number;
  readonly decidedBy: 'controller' | 'type' | 'power';
  /** What a limit of so many watts would be in amperes by either voltage; null where no power is named. */
  readonly readings: {
    readonly nominalA: number;
    readonly fullA: number;
    readonly nominalV: number;
    readonly fullV: number;
  } | null;
  /** A rated label above the class: no current cures that. */
  readonly stop: string | null;
}

/**
 * The battery current that a power limit leaves. Volts times amperes is battery input, not rated output: on the rated
 * basis no current follows from the limit. The nominal voltage is the label's (48, not 13 * 3.6); the full one is that
 * of a pack at the end of charge. Never above controller or type.
 * @returns refused (`noFigure`) where a figure is none
 * @example
 * const pack = { chemistry: 'liIon', cellsInSeries: 13, labelV: 48, capacityAh: 14 } as const;
 * const by = (basis: 'nominal' | 'full') => currentLimitFor({ pack, limitW: 750, basis, ratedW: 750, controllerA: 25, typeA: 22 });
 * [by('nominal'), by('full')].map((limit) => limit.ok && Math.floor(limit.value.limitA)); // [15, 13]
 */
export function currentLimitFor(inputs: CurrentLimitInputs): Result<CurrentLimit> {
  const { pack, limitW, basis, ratedW, controllerA, typeA } = inputs;
  const bad = badFigure({
    'The label': [pack.labelV, 'aboveZero'],
    'Its number of cells': [pack.cellsInSeries, 'whole'],
    'The power allowed': [limitW ?? 1, 'aboveZero'],
    "The motor's rating": [ratedW, 'notBelowZero'],
    "The controller's limit": [controllerA, 'aboveZero'],
    "The type's limit": [typeA, 'aboveZero'],
  });
  if (bad) return { ok: false, problem: bad };
  const fullV = CELL_VOLTS[pack.chemistry].fullV * pack.cellsInSeries;
  const readings =
    limitW === null ? null : { nominalV: pack.labelV, nominalA: limitW / pack.labelV, fullV, fullA: limitW / fullV };
  const byPower =
    readings === null || basis === 'rated' ? Infinity : basis === 'nominal' ? readings.nominalA : readings.fullA;
  const limitA = Math.min(byPower, typeA, controllerA);
  const stop =
    limitW !== null && basis === 'rated' && ratedW > limitW
      ? `The motor is rated ${ratedW} W; the class allows ${limitW} W. No current setting cures that.`
      : null;
  return ok({
    limitA,
    decidedBy: byPower <= Math.min(typeA, controllerA) ? 'power' : typeA <= controllerA ? 'type' : 'controller',
    readings,
    stop,
  });
}
