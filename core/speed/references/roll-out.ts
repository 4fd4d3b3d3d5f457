import { badFigure } from '../../figures.js';
import { ok, refuse, type Result } from '../../result.js';
import type { RollOutGuess } from '../tyre-marking.js';

/** Either end of a roll-out is marked to about so much, mm, as a standard deviation. */
const MARK_MM = 4;
/** A tyre rolls differently with rider, pressure and warmth, as a share. */
const LOAD_SHARE = 0.003;
/** Rolled by hand without a rider's load, a turn comes out so much too long, at most. */
const UNLOADED_SHARE = 0.02;

export interface RollOut {
  /** Between the first mark and the last, mm. */
  readonly distanceMm: number;
  readonly turns: number;
  /** With a rider's weight on it. */
  readonly loaded: boolean;
}

/**
 * How far a wheel rolls in a turn, measured over some turns, with its 95 % range.
 * @returns refused: `noTurns`, `noWheel`
 * @example
 * const guess = rolledOut({ distanceMm: 10_350, turns: 5, loaded: true });
 * guess.ok && guess.value.mm; // 2070
 */
export function rolledOut({ distanceMm, turns, loaded }: RollOut): Result<RollOutGuess> {
  if (badFigure({ 'The turns': [turns, 'whole'] }))
    return refuse('noTurns', 'Type over how many whole turns it was rolled.');
  const mm = distanceMm / turns;
  if (!(mm >= 300 && mm <= 3000))
    return refuse(
      'noWheel',
      `${Math.round(mm)} mm a turn is no wheel of such a vehicle: give the whole distance in millimetres, and the turns.`,
    );
  const within = 2 * Math.hypot((Math.SQRT2 * MARK_MM) / turns, LOAD_SHARE * mm);
  return ok({ mm, fromMm: mm - within - (loaded ? 0 : UNLOADED_SHARE * mm), toMm: mm + within });
}
