import type { Code } from '../../../display/map/display-map.js';
import { plainValues, rawForWord, valueWords } from '../../../display/map/raw-value.js';
import { inKmh, speedWords, type Speed } from '../../../speed/speed.js';
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
  type WishFinding,
  type WishFor,
  type Work,
} from '../wish.js';
import { ratioAsKeyed } from '../counts.js';
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
  if (vehicleClass.walk === 'forbidden') return onOrOff(code, false, step('class', 'The class allows no walk assist'));
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
  if (on && vehicleClass.walk === 'decide') return withFinding(walkWithin(code, why, work), walkDecides(code));
  return on ? walkWithin(code, why, work) : onOrOff(code, false, why);
};

const walkDecides = (code: Code): WishFinding => ({
  level: 'decide',
  topic: 'walkAllowed',
  says: `${code.label} switches walk assist on, and whether it is allowed differs from place to place. Ask the authority, or switch it off under house rules.`,
});

/** On, and no faster than the class allows; where it names no speed, as slow as people walk. */
function walkWithin(code: Code, why: TrailStep, work: Work): Wish {
  const { vehicleClass } = work;
  const walkTo = vehicleClass.walkTo ?? WALKING_PACE;
  const per = kmhPerRaw(code, work);
  const to = vehicleClass.walkTo
    ? step('class', `The class allows ${speedWords(walkTo)} while walking`)
    : step('class', `The class names no speed for walking: ${speedWords(walkTo)}`);
  if (per === undefined)
    return {
      ...onOrOff(code, true, why),
      findings: [
        {
          level: 'note',
          topic: 'walkSpeed',
          says: `${code.label} switches walk assist on and tells no speed; ${speedWords(walkTo)} is allowed: it is measured when the unit is proved.`,
        },
      ],
    };
  const asKeyed = ratioAsKeyed(work);
  // Where it counts low, people are pushed faster than it says.
  const low = asKeyed.isKnown ? Math.min(1, asKeyed.ratio?.low ?? 1) : 0;
  const raw = plainValues(code)
    .filter((each) => each > 0 && each * per <= inKmh(walkTo) * low * (1 + 1e-9))
    .at(-1);
  return raw === undefined ? onOrOff(code, false, to) : { raw, because: `${why.says}. ${to.says}.`, trail: [why, to] };
}

/** As fast as people walk: what walk assist runs at where no rule names a speed. */
const WALKING_PACE: Speed = { value: 6, unit: 'km/h' };

const withFinding = (wish: Wish, more: WishFinding): Wish => ({ ...wish, findings: [...(wish.findings ?? []), more] });

/** Cruise holds drive without anybody asking for it: off wherever no throttle may drive or the class forbids it, else as the house wants. */
export const cruise: WishFor = (code, work) => {
  const { allowed, why } = throttlePermission(work);
  if (!allowed && work.vehicleClass.regime !== 'privateLand')
    return onOrOff(code, false, step(why.from, `${why.says}, and cruise would hold drive like one`));
  if (work.vehicleClass.cruise === 'forbidden')
    return onOrOff(code, false, step('class', 'The class allows no cruise'));
  const chosen = choiceStep(work, 'cruise');
  const isOn = work.choices.cruise === 'on';
  const wish = onOrOff(
    code,
    isOn,
    chosen.from === 'unit'
      ? chosen
      : step('house', isOn ? 'House rule: available' : 'House rule: off, it surprises riders'),
  );
  return isOn && work.vehicleClass.cruise === 'decide'
    ? withFinding(wish, {
        level: 'decide',
        topic: 'cruiseAllowed',
        says: `${code.label} makes cruise available, and whether it is allowed differs from place to place. Ask the authority, or switch it off under house rules.`,
      })
    : wish;
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
export function brakesLess(code: Code, raw: number, than: number): boolean {
  if (code.encoding.kind !== 'table') return raw < than;
  const strength = (value: number): number =>
    [BRAKING_WORDS.none, BRAKING_WORDS.weak, BRAKING_WORDS.strong].findIndex((words) =>
      words.some((one) => rawForWord(code, one) === value),
    );
  return strength(raw) >= 0 && strength(raw) < strength(than);
}
