import type { Code } from '../../../display/map/display-map.js';
import { plainValues, rawForWord, valueWords } from '../../../display/map/raw-value.js';
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
  word,
  type Wish,
  type WishFor,
  type Work,
} from '../wish.js';
import { kmhPerRaw } from './speed.js';
import { throttlePermission } from '../throttle-permission.js';

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
  if (vehicleClass.walk === 'forbidden')
    return walkAt(code, false, step('class', 'The class allows no walk assist'), work);
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
  const { walkTo } = vehicleClass;
  if (!on || walkTo === null) return walkAt(code, on, why, work);
  const per = kmhPerRaw(code, work);
  const to = step('class', `The class allows ${speedWords(walkTo)} while walking`);
  if (per === undefined)
    return {
      ...walkAt(code, true, why, work),
      findings: [
        {
          level: 'note',
          topic: 'walkSpeed',
          says: `${code.label} switches walk assist on and tells no speed; the class allows ${speedWords(walkTo)}: it is measured when the unit is proved.`,
        },
      ],
    };
  const raw = plainValues(code)
    .filter((each) => each > 0 && each * per <= inKmh(walkTo) * (1 + 1e-9))
    .at(-1);
  return raw === undefined
    ? walkAt(code, false, to, work)
    : { raw, because: `${why.says}. ${to.says}.`, trail: [why, to] };
};

function walkAt(code: Code, on: boolean, why: TrailStep, work: Work): Wish {
  if (on && kmhPerRaw(code, work) !== undefined) return asFound(`${why.says}: its speed stays as found.`);
  return onOrOff(code, on, why);
}

/** Cruise holds drive without anybody asking for it: off wherever no throttle may drive, else as the house wants. */
export const cruise: WishFor = (code, work) => {
  const { allowed, why } = throttlePermission(work);
  if (!allowed && work.vehicleClass.regime !== 'privateLand')
    return onOrOff(code, false, step(why.from, `${why.says}, and cruise would hold drive like one`));
  const chosen = choiceStep(work, 'cruise');
  const isOn = work.choices.cruise === 'on';
  return onOrOff(
    code,
    isOn,
    chosen.from === 'unit'
      ? chosen
      : step('house', isOn ? 'House rule: available' : 'House rule: off, it surprises riders'),
  );
};

/** A table's words for on and off, the off of a line, or its 0 and 1. */
function onOrOff(code: Code, on: boolean, why: TrailStep): Wish {
  if (code.encoding.kind === 'table')
    return word(code, on ? ['on', 'offered', 'yes', '1'] : ['off', 'notOffered', 'no', '0'], why);
  const off = rawOfSentinel(code, 'off');
  if (!on && off !== undefined) return { raw: off, because: why.says, trail: [why] };
  return number(code, on ? 1 : 0, why);
}

/**
 * Motor braking; a motor that freewheels cannot brake. On many vehicles it is a brake that the law counts: it is not set
 * weaker than it was delivered but by a word of a lead for that unit, and that asks for a stopping distance.
 */
export const regen: WishFor = (code, work) => {
  if (work.type.motors.every((motor) => motor.freewheels))
    return asFound('The motor freewheels and cannot brake: stays as found.');
  const chosen = choiceStep(work, 'motorBraking');
  const wish = brakingWish(code, work.choices.motorBraking, { ...chosen, says: `${chosen.says} motor braking` });
  if (wish.raw === null || !brakesLess(code, wish.raw, code.factory)) return wish;
  const delivered = valueWords(code, code.factory);
  if (chosen.from === 'unit')
    return {
      ...wish,
      findings: [
        {
          level: 'decide',
          topic: 'brakesLess',
          says: `${code.label} would brake less than it was delivered (${delivered}). Where the motor counts as a brake, measure how far it takes to stop, and say so. A full pack may refuse to brake at all.`,
        },
      ],
    };
  const why = step(
    'display',
    `Delivered at ${delivered}, which brakes more than the house wants: the motor may be a brake that the law counts, and is not made weaker for all`,
  );
  return {
    raw: code.factory,
    because: why.says,
    trail: [...(wish.trail ?? []), why],
    findings: [
      {
        level: 'note',
        topic: 'brakesAsDelivered',
        says: `${code.label} keeps its motor braking as delivered (${delivered}). A lead may have it weaker on one unit, under its own wishes. A full pack may refuse to brake.`,
      },
    ],
  };
};

function brakingWish(code: Code, wanted: Work['choices']['motorBraking'], why: TrailStep): Wish {
  if (code.encoding.kind === 'table') return word(code, BRAKING_WORDS[wanted], why);
  if (wanted === 'none') return onOrOff(code, false, why);
  const braking = plainValues(code).filter((raw) => raw > 0);
  const raw = wanted === 'strong' ? braking.at(-1) : braking[0];
  return raw === undefined ? asFound(why.says) : { raw, because: why.says, trail: [why] };
}

const BRAKING_WORDS = { none: ['none', 'off'], weak: ['weak', 'low'], strong: ['strong', 'high'] } as const;

/** Whether one value brakes less than another, as far as the map tells. */
function brakesLess(code: Code, raw: number, than: number): boolean {
  if (code.encoding.kind !== 'table') return raw < than;
  const strength = (value: number): number =>
    [BRAKING_WORDS.none, BRAKING_WORDS.weak, BRAKING_WORDS.strong].findIndex((words) =>
      words.some((one) => rawForWord(code, one) === value),
    );
  return strength(raw) >= 0 && strength(raw) < strength(than);
}
