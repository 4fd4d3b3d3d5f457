import type { Code } from '../../../display/map/display-map.js';
import { formatRaw, greatestRawWithin, plainValues } from '../../../display/map/raw-value.js';
import { certain } from '../../../result.js';
import { currentLimitFor, powerWords, type CurrentLimit } from '../../../electrical/current-limit.js';
import type { TrailStep } from '../../setup.js';
import { asFound, type Wish, type WishFor, type Work } from '../wish.js';

export const currentOf = ({ type, vehicleClass }: Pick<Work, 'type' | 'vehicleClass'>): CurrentLimit =>
  certain(
    currentLimitFor({
      pack: type.pack,
      limits: vehicleClass.power,
      ratedW: type.ratedPowerW,
      controllerA: type.controllerLimitA,
      typeA: type.typeLimitA,
    }),
  );

interface Power {
  readonly limit: CurrentLimit;
  readonly trail: readonly TrailStep[];
}
const powers = new WeakMap<Work, Power>();

/** The limit and its trail, worked out once a setup however many codes ask. */
function powerOf(work: Work): Power {
  const kept = powers.get(work);
  if (kept) return kept;
  const limit = currentOf(work);
  const power = { limit, trail: powerTrail(work, limit) };
  powers.set(work, power);
  return power;
}

/** All readings of every power limit, and what controller and type allow. */
function powerTrail(
  { type }: Work,
  { limitA, decidedBy, decides, nominalV, fullV, readings }: CurrentLimit,
): TrailStep[] {
  const counts = {
    rated: `the motor's label, ${type.ratedPowerW} W; no current follows from that`,
    nominal: 'label volts times amperes',
    full: 'full-pack volts times amperes',
    peak: 'what the motor gives at most, held to what it takes from a full pack',
  };
  const steps = readings.flatMap(({ limit, nominalA, fullA }): TrailStep[] => [
    {
      from: 'class',
      says: `${sentenceCase(powerWords(limit))}, counted as ${counts[limit.basis]}.`,
      ...(limit === decides ? { decided: true as const } : {}),
    },
    {
      from: 'class',
      says: `As current that would be ${nominalA.toFixed(1)} A at ${nominalV} V by label, ${fullA.toFixed(1)} A at ${fullV.toFixed(1)} V when full.`,
    },
  ]);
  steps.push({
    from: 'type',
    says: `The type allows ${type.typeLimitA} A, its controller ${type.controllerLimitA} A.`,
    ...(decidedBy === 'power' ? {} : { decided: true as const }),
  });
  if (decidedBy === 'power') steps.push({ from: 'class', says: `So at most ${limitA.toFixed(1)} A.` });
  return steps;
}

const sentenceCase = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export const currentLimit: WishFor = (code, work) => {
  const { limit, trail } = powerOf(work);
  if (limit.stop)
    return {
      ...asFound(`The motor is rated ${work.type.ratedPowerW} W.`, {
        level: 'stop',
        topic: 'ratedPower',
        says: limit.stop,
      }),
      trail,
    };
  const raw = greatestRawWithin(code, limit.limitA);
  if (raw === undefined)
    return {
      ...asFound('No setting of this code is low enough.', {
        level: 'stop',
        topic: 'tooLow',
        says: `${code.label} cannot be set as low as ${limit.limitA.toFixed(1)} A.`,
      }),
      trail,
    };
  return { raw, because: shortReason(work, limit), trail };
};

function shortReason({ type }: Work, { limitA, decidedBy, decides, nominalV, fullV, readings }: CurrentLimit): string {
  const reading = readings.find(({ limit }) => limit === decides);
  if (!reading)
    return `${type.ratedPowerW} W rated; ${decidedBy === 'controller' ? 'controller' : 'type'} allows ${limitA} A`;
  const byLabel = `${reading.nominalA.toFixed(1)} A at ${nominalV} V by label`;
  const whenFull = `${reading.fullA.toFixed(1)} A at ${fullV.toFixed(1)} V when full`;
  const isByLabel = reading.limit.basis === 'nominal';
  return `${sentenceCase(powerWords(reading.limit))}: ${isByLabel ? `${byLabel}, as the rule counts; ${whenFull}` : `${whenFull}, as the rule counts; ${byLabel}`}`;
}

/**
 * Current of one ride mode in per cent of what the controller gives: as delivered where that is within the limit. With a
 * motor front and rear each has its share, so that both at p % draw p % together.
 */
export const modeCurrentPercent: WishFor = (code, work) => shareOfController(code, work);
export const maxOutputPercent: WishFor = (code, work) => shareOfController(code, work);

function shareOfController(code: Code, work: Work): Wish {
  const { limit, trail } = powerOf(work);
  if (limit.stop)
    return asFound(`The motor is rated ${work.type.ratedPowerW} W.`, {
      level: 'stop',
      topic: 'ratedPower',
      says: limit.stop,
    });
  const percent = (limit.limitA / work.type.controllerLimitA) * 100;
  const greatest = greatestRawWithin(code, percent);
  if (greatest === undefined)
    return {
      ...asFound('No setting of this code is low enough.', {
        level: 'stop',
        topic: 'tooLow',
        says: `${code.label} cannot be set as low as ${Math.floor(percent)} %.`,
      }),
      trail,
    };
  const isDelivered = plainValues(code).includes(code.factory) && code.factory <= greatest;
  const raw = isDelivered ? code.factory : greatest;
  const amps = ((work.type.controllerLimitA * raw) / 100).toFixed(1);
  const [whose, together] =
    work.type.motors.length > 1 ? ["both controllers'", ' for both motors'] : ["the controller's", ''];
  const because = isDelivered
    ? `As the maker delivers it: ${formatRaw(code, raw)} %, ${amps} A${together} of ${limit.limitA.toFixed(1)} A allowed`
    : `${formatRaw(code, raw)} % of ${whose} ${work.type.controllerLimitA} A is ${amps} A${together}; ${limit.limitA.toFixed(1)} A is allowed`;
  return { raw, because, trail };
}
