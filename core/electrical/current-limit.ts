import { badFigure } from '../figures.js';
import { ok, type Result } from '../result.js';
import type { PowerLimit } from '../setup/inputs/vehicle-class.js';
import type { LabelledPack } from '../setup/inputs/vehicle-type.js';
import { CELL_VOLTS } from './cell.js';

export interface CurrentLimitInputs {
  readonly pack: LabelledPack;
  /** What the class allows, in each of the readings that it names; empty where it names no power. */
  readonly limits: readonly PowerLimit[];
  /** The motor's label, W. */
  readonly ratedW: number;
  readonly controllerA: number;
  readonly typeA: number;
}

export interface CurrentLimit {
  /** Greatest battery current, A, before it is brought onto a code's grid. */
  readonly limitA: number;
  readonly decidedBy: 'controller' | 'type' | 'power';
  /** The limit of power that decides; null where none does. */
  readonly decides: PowerLimit | null;
  readonly nominalV: number;
  readonly fullV: number;
  /** What each limit would be in amperes by either voltage. */
  readonly readings: readonly { readonly limit: PowerLimit; readonly nominalA: number; readonly fullA: number }[];
  /** A rated label above the class: no current cures that. */
  readonly stop: string | null;
}

/** A figure that has to stay under a limit keeps so far from it, as a share. */
const UNDER = 1e-6;

/** `750 W`, or `less than 750 W`. */
export const powerWords = ({ watts, is }: PowerLimit): string =>
  is === 'under' ? `less than ${watts} W` : `${watts} W`;

/**
 * The battery current that limits of power leave. Volts times amperes is battery input, not rated output: on the rated
 * basis no current follows from a limit. The nominal voltage is the label's (48, not 13 * 3.6); the full one is that
 * of a pack at the end of charge; a peak is held to what goes in from a full pack, which is never less than what comes out.
 * Never above controller or type.
 * @returns refused (`noFigure`) where a figure is none
 * @example
 * const pack = { chemistry: 'liIon', cellsInSeries: 13, labelV: 48, capacityAh: 14 } as const;
 * const by = (basis: 'nominal' | 'full') =>
 *   currentLimitFor({ pack, limits: [{ watts: 750, basis, is: 'atMost' }], ratedW: 750, controllerA: 25, typeA: 22 });
 * [by('nominal'), by('full')].map((limit) => limit.ok && Math.floor(limit.value.limitA)); // [15, 13]
 */
export function currentLimitFor(inputs: CurrentLimitInputs): Result<CurrentLimit> {
  const { pack, limits, ratedW, controllerA, typeA } = inputs;
  const bad = badFigure({
    'The label': [pack.labelV, 'aboveZero'],
    'Its number of cells': [pack.cellsInSeries, 'whole'],
    ...Object.fromEntries(
      limits.map(({ watts }, i) => [`The power allowed${i > 0 ? ` (${i + 1})` : ''}`, [watts, 'aboveZero'] as const]),
    ),
    "The motor's rating": [ratedW, 'notBelowZero'],
    "The controller's limit": [controllerA, 'aboveZero'],
    "The type's limit": [typeA, 'aboveZero'],
  });
  if (bad) return { ok: false, problem: bad };
  const [nominalV, fullV] = [pack.labelV, CELL_VOLTS[pack.chemistry].fullV * pack.cellsInSeries];
  const readings = limits.map((limit) => ({ limit, nominalA: limit.watts / nominalV, fullA: limit.watts / fullV }));
  const allowed = readings.map(({ limit, nominalA, fullA }) => {
    const amps = { rated: Infinity, nominal: nominalA, full: fullA, peak: fullA }[limit.basis];
    return { limit, amps: limit.is === 'under' ? amps * (1 - UNDER) : amps };
  });
  const byPower = Math.min(Infinity, ...allowed.map(({ amps }) => amps));
  const decidedBy = byPower <= Math.min(typeA, controllerA) ? 'power' : typeA <= controllerA ? 'type' : 'controller';
  return ok({
    limitA: Math.min(byPower, typeA, controllerA),
    decidedBy,
    decides: decidedBy === 'power' ? (allowed.find(({ amps }) => amps === byPower)?.limit ?? null) : null,
    nominalV,
    fullV,
    readings,
    stop: ratedStop(limits, ratedW),
  });
}

function ratedStop(limits: readonly PowerLimit[], ratedW: number): string | null {
  const over = limits.find(
    ({ basis, watts, is }) => basis === 'rated' && (is === 'under' ? ratedW >= watts : ratedW > watts),
  );
  return over
    ? `The motor is rated ${ratedW} W; the class allows ${powerWords(over)}. No current setting cures that.`
    : null;
}
