import type { Code } from '../../../display/map/display-map.js';
import { greatestRawWithin, plainValues } from '../../../display/map/raw-value.js';
import { inKmh, speedWords } from '../../../speed/speed.js';
import type { TrailStep } from '../../setup.js';
import {
  asFound,
  choiceStep,
  nearest,
  number,
  rawOfSentinel,
  step,
  strength,
  unitOf,
  word,
  type Wish,
  type WishFor,
} from '../wish.js';

export const pedalMagnets: WishFor = (code, { type }) =>
  type.pedalMagnets === null
    ? asFound('No pedals: stays as found.')
    : number(code, type.pedalMagnets, step('type', `As fitted: ${type.pedalMagnets} magnets`));

export const assistLevels: WishFor = (code, work) =>
  nearest(code, work.choices.assistLevels, choiceStep(work, 'assistLevels'));

export const zeroLevel: WishFor = (code, work) => {
  const offered = work.choices.zeroLevel === 'offered';
  return onOrOff(
    code,
    offered,
    step(
      choiceStep(work, 'zeroLevel').from,
      `House rule: level 0 ${offered ? 'offered, so that help can be switched off' : 'not offered'}`,
    ),
  );
};

/** Help when the pedals start to turn: gentle or strong. A delay is gentle where it is long. */
export const assistStart: WishFor = (code, work) =>
  strength(code, work.choices.assistStart, choiceStep(work, 'assistStart'));
export const startRamp: WishFor = (code, work) => strength(code, work.choices.startRamp, choiceStep(work, 'startRamp'));

/** Walk assist: what the house wants, what the class allows, and no faster than it allows. */
export const walk: WishFor = (code, work) => {
  const { vehicleClass, type, choices } = work;
  if (vehicleClass.walk === 'forbidden') return walkAt(code, false, step('class', 'The class allows no walk assist'));
  const on = choices.walk === 'on' || (choices.walk === 'onForCargo' && type.heavyCargo);
  const chosen = choiceStep(work, 'walk');
  const why: TrailStep =
    choices.walk === 'onForCargo'
      ? {
          ...chosen,
          says: on ? 'House rule: walk assist on, this type is heavy to push' : 'House rule: walk assist off',
        }
      : {
          ...chosen,
          says: `${chosen.from === 'house' ? 'House rule' : 'This unit'}: walk assist ${on ? 'on' : 'off'}`,
        };
  if (!on || vehicleClass.walkTo === null || unitOf(code) !== 'km/h') return walkAt(code, on, why);
  const raw = greatestRawWithin(code, inKmh(vehicleClass.walkTo));
  const to = step('class', `The class allows ${speedWords(vehicleClass.walkTo)} while walking`);
  return raw === undefined ? walkAt(code, false, to) : { raw, because: `${why.says}. ${to.says}.`, trail: [why, to] };
};

function walkAt(code: Code, on: boolean, why: TrailStep): Wish {
  if (on && unitOf(code) === 'km/h') return asFound(`${why.says}: its speed stays as found.`);
  return onOrOff(code, on, why);
}

export const cruise: WishFor = (code, work) =>
  onOrOff(
    code,
    work.choices.cruise === 'on',
    choiceStep(work, 'cruise').from === 'unit'
      ? choiceStep(work, 'cruise')
      : step('house', work.choices.cruise === 'on' ? 'House rule: available' : 'House rule: off, it surprises riders'),
  );

/** A table's words for on and off, the off of a line, or its 0 and 1. */
function onOrOff(code: Code, on: boolean, why: TrailStep): Wish {
  if (code.encoding.kind === 'table')
    return word(code, on ? ['on', 'offered', 'yes', '1'] : ['off', 'notOffered', 'no', '0'], why);
  const off = rawOfSentinel(code, 'off');
  if (!on && off !== undefined) return { raw: off, because: why.says, trail: [why] };
  return number(code, on ? 1 : 0, why);
}

/** Motor braking; a motor that freewheels cannot brake. */
export const regen: WishFor = (code, work) => {
  if (work.type.motors.every((motor) => motor.freewheels))
    return asFound('The motor freewheels and cannot brake: stays as found.');
  const { motorBraking } = work.choices;
  const why = { ...choiceStep(work, 'motorBraking'), says: `${choiceStep(work, 'motorBraking').says} motor braking` };
  if (motorBraking === 'none')
    return code.encoding.kind === 'table' ? word(code, ['none', 'off'], why) : onOrOff(code, false, why);
  if (code.encoding.kind === 'table')
    return word(code, motorBraking === 'weak' ? ['weak', 'low'] : ['strong', 'high'], why);
  const braking = plainValues(code).filter((raw) => raw > 0);
  const raw = motorBraking === 'strong' ? braking.at(-1) : braking[0];
  return raw === undefined ? asFound(why.says) : { raw, because: why.says, trail: [why] };
};
