import { badFigure } from '../../figures.js';
import { ok, refuse, type Result } from '../../result.js';
import type { RollOutGuess } from '../tyre-marking.js';

/** Either end of a roll-out is marked to about so much, mm, as a standard deviation. */
const MARK_MM = 4;
/** A tyre rolls differently with rider, pressure and warmth, as a share. */
const LOAD_SHARE = 0.003;
/** Rolled by hand without a rider's load, a turn comes out so much too long, at most: a small or a fat tyre gives more. */
const UNLOADED_SHARE = 0.02;
const UNLOADED_SHARE_SOFT = 0.05;
/** Under this a wheel is small, mm a turn; from this width on a tyre is fat. */
const SMALL_MM = 1400;
const FAT_MM = 60;

export interface RollOut {
  /** Between the first mark and the last, mm. */
  readonly distanceMm: number;
  readonly turns: number;
  /** With a rider's weight on it. */
  readonly loaded: boolean;
  /** Width of its tyre by the marking, mm; null or left out where that tells none. */
  readonly widthMm?: number | null;
}

/**
 * How far a wheel rolls in a turn, measured over some turns, with its 95 % range.
 * @returns refused: `noTurns`, `noWheel`
 * @example
 * const guess = rolledOut({ distanceMm: 10_350, turns: 5, loaded: true });
 * guess.ok && guess.value.mm; // 2070
 */
export function rolledOut({ distanceMm, turns, loaded, widthMm = null }: RollOut): Result<RollOutGuess> {
  if (badFigure({ 'The turns': [turns, 'whole'] }))
    return refuse('noTurns', 'Type over how many whole turns it was rolled.');
  const mm = distanceMm / turns;
  if (!(mm >= 300 && mm <= 3000))
    return refuse(
      'noWheel',
      `${Math.round(mm)} mm a turn is no wheel of such a vehicle: give the whole distance in millimetres, and the turns.`,
    );
  const within = 2 * Math.hypot((Math.SQRT2 * MARK_MM) / turns, LOAD_SHARE * mm);
  const isSoft = mm < SMALL_MM || (widthMm !== null && widthMm >= FAT_MM);
  const unloaded = loaded ? 0 : isSoft ? UNLOADED_SHARE_SOFT : UNLOADED_SHARE;
  return ok({ mm, fromMm: mm - within - unloaded * mm, toMm: mm + within });
}
