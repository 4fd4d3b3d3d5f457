import type { Code } from '../../display/map/display-map.js';
import { formatRaw, onGrid, valueWords } from '../../display/map/raw-value.js';
import { circumferenceMm } from '../../speed/wheel-code.js';
import { CAPS, DRIVING, RAISING } from './function-groups.js';
import { asFound, isSwitchedOff, mayBeNoCap, step, type Wish, type Work } from './wish.js';

/** What a code was made with: its value under the type's approval, or as the maker of the display delivers it. */
function madeWith(code: Code, { type, map }: Work): number {
  return type.approved.find((value) => value.map === map.id && value.label === code.label)?.raw ?? code.factory;
}

/** Brings a wish under what the class lets a shop do: only check and restore, or only lower. */
export function underRegime(code: Code, wish: Wish, work: Work): Wish {
  switch (work.vehicleClass.regime) {
    case 'checkOnly':
      return DRIVING.has(code.function) ? restored(code, wish, work) : wish;
    case 'lowerOnly':
      return RAISING.has(code.function) ? lowered(code, wish, work) : notFaster(code, wish, work);
    case 'set':
    case 'privateLand':
      return wish;
  }
}

function restored(code: Code, wish: Wish, work: Work): Wish {
  const made = madeWith(code, work);
  const why = step('class', `Approved as made: ${valueWords(code, made)}, compared and restored, never changed`);
  if (!onGrid(code, made)) return asFound(why.says);
  const isAbove = CAPS.has(code.function) && wish.raw !== null && (made > wish.raw || mayBeNoCap(code, made));
  const says = `${code.label} was approved at ${valueWords(code, made)}, more than was promised here, and in this class nothing is changed. Another vehicle, or another class.`;
  return {
    raw: made,
    because: why.says,
    trail: [why],
    ...(isAbove ? { findings: [{ level: 'stop', topic: 'approvedAbove', says }] } : {}),
  };
}

function lowered(code: Code, wish: Wish, work: Work): Wish {
  const made = madeWith(code, work);
  if (wish.raw === null || mayBeNoCap(code, made) || wish.raw <= made) return wish;
  const why = step(
    'class',
    `Made with ${formatRaw(code, made)}; in this class it may be lowered or restored, never raised.`,
  );
  return { ...wish, raw: made, because: `${wish.because} ${why.says}`, trail: [...(wish.trail ?? []), why] };
}

/**
 * What makes a vehicle faster by another way than more of a cap: a wheel taken for smaller, more pulses a turn, help that
 * was off. As made instead, in a class where it may be lowered or restored. A wheel value that runs of the vehicle chose
 * stands: the cap is worked out with it, and keeps to the limit.
 */
function notFaster(code: Code, wish: Wish, work: Work): Wish {
  const made = madeWith(code, work);
  const isMeasured = work.unit.ratio !== null && (code.function === 'wheelSize' || code.function === 'wheelPulses');
  if (wish.raw === null || wish.raw === made || isMeasured || !isFaster(code, wish.raw, made)) return wish;
  const why = step(
    'class',
    `Made with ${valueWords(code, made)}; in this class nothing is changed that makes it faster.`,
  );
  return { ...wish, raw: made, because: `${wish.because} ${why.says}`, trail: [...(wish.trail ?? []), why] };
}

function isFaster(code: Code, raw: number, made: number): boolean {
  switch (code.function) {
    case 'wheelSize': {
      const [now, then] = [circumferenceMm(code, raw), circumferenceMm(code, made)];
      return now === undefined || then === undefined || now < then;
    }
    case 'wheelPulses':
      return raw > made;
    case 'cruise':
    case 'walk':
    case 'modeTurbo':
      return isSwitchedOff(code, made) && !isSwitchedOff(code, raw);
    default:
      return false;
  }
}
