import { badFigure } from '../../figures.js';
import { ok, refuse, type Result } from '../../result.js';
import { uniformSd } from '../../statistics/spread.js';
import type { TrueSpeed } from './true-speed.js';

export interface RollerReading {
  /** Turns of the roller per minute, as its counter shows. */
  readonly rpm: number;
  /** The counter's step, turns per minute. */
  readonly stepRpm: number;
  readonly rollerMm: number;
  /** How sure the roller's diameter is, plus or minus mm: every reading on it shares that. */
  readonly withinMm: number;
}

/**
 * What a tyre does on a roller that it does not do on the road, as a share: it slips, and it is dented by the roller's
 * curve, and both make the display count high beside the roller. Somewhere between nothing and twice this, at any reading
 * alike: taken for nothing, a cap would be too fast.
 */
export const ROLLER_SLIP = 0.01;

/**
 * Road speed of a wheel on a roller of `rollerMm` diameter: the roller's own and what the tyre slips and is dented.
 * @returns refused: `noRoller`, `noTurns`
 * @example
 * const speed = rollerSpeed({ rpm: 1200, stepRpm: 1, rollerMm: 100, withinMm: 0.5 });
 * speed.ok && speed.value.kmh.toFixed(2); // '22.85'
 */
export function rollerSpeed({ rpm, stepRpm, rollerMm, withinMm }: RollerReading): Result<TrueSpeed> {
  if (badFigure({ 'The roller': [rollerMm, 'aboveZero'], 'Its doubt': [withinMm, 'notBelowZero'] }))
    return refuse('noRoller', "Type the roller's diameter in millimetres, and how sure that is.");
  if (badFigure({ 'The turns': [rpm, 'aboveZero'], 'The step': [stepRpm, 'notBelowZero'] }))
    return refuse('noTurns', 'The roller stands still.');
  const perRpm = (Math.PI * rollerMm * 60) / 1e6;
  return ok({
    kmh: rpm * perRpm * (1 + ROLLER_SLIP),
    uKmh: uniformSd(stepRpm / 2) * perRpm,
    uCommon: Math.hypot(uniformSd(withinMm) / rollerMm, uniformSd(ROLLER_SLIP)),
  });
}
