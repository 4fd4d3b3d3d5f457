import type { PinPolicy } from '../../inputs/house-rules.js';
import { asFound, choiceStep, level, nearest, rawOfSentinel, step, word, type Wish, type WishFor } from '../wish.js';

export const units: WishFor = (code, work) => word(code, work.choices.units, choiceStep(work, 'units'));

export const brightness: WishFor = (code, work) =>
  level(
    code,
    work.choices.brightness,
    step(
      choiceStep(work, 'brightness').from,
      work.choices.brightness === 'full' ? 'House rule: full, readable in the sun' : 'House rule: middle',
    ),
  );

/** A sensor that dims by itself: in the middle of its range. */
export const lightSensitivity: WishFor = (code) =>
  level(code, 'middle', step('display', 'A sensor is fitted: middle of its range'));

export const autoOff: WishFor = (code, work) => {
  const { autoOffMin } = work.choices;
  const said = choiceStep(work, 'autoOffMin');
  const why = step(said.from, autoOffMin === 0 ? 'House rule: never' : `House rule: after ${autoOffMin} min`);
  const off = rawOfSentinel(code, 'off');
  return autoOffMin === 0 && off !== undefined
    ? { raw: off, because: why.says, trail: [why] }
    : nearest(code, autoOffMin, why);
};

/** Kept encrypted and keyed at hand over: the digits are never in a setup. */
const pinBy = (policy: PinPolicy, what: string): Wish =>
  policy === 'asFound'
    ? asFound('No PIN was promised: stays as found.')
    : {
        raw: null,
        secret: true,
        because: `${what} by policy: ${policy === 'perOrder' ? 'one for the order' : "this unit's own"}, keyed at hand over; a lead can look it up.`,
      };

export const menuPin: WishFor = (_code, { choices }) => pinBy(choices.pin, 'Menu PIN');
export const startPin: WishFor = (_code, { choices }) => pinBy(choices.startPin, 'Start PIN');

/** Odometers and trip meters are evidence: never reset by the way. */
export const odometer: WishFor = (_code, { choices }) =>
  asFound(choices.odometer === 'never' ? 'It is evidence: never reset.' : 'Reset on hand-over, never before.');

export const serviceMode: WishFor = (code) =>
  word(code, 'off', step('display', 'Service mode is for the workshop: off when it leaves'));
