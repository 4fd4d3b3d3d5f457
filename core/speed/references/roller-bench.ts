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

/** Speed of the tread on a roller of `rollerMm` diameter. */
export function rollerSpeed({ rpm, stepRpm, rollerMm, withinMm }: RollerReading): Result<TrueSpeed> {
  if (!(rollerMm > 0)) return refuse('noRoller', "Type the roller's diameter in millimetres.");
  if (!(rpm > 0)) return refuse('noTurns', 'The roller stands still.');
  const perRpm = (Math.PI * rollerMm * 60) / 1e6;
  return ok({ kmh: rpm * perRpm, uKmh: uniformSd(stepRpm / 2) * perRpm, uCommon: uniformSd(withinMm) / rollerMm });
}
