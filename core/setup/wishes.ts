import type { Code } from '../display/map/display-map.js';
import type { CodeFunction } from '../display/map/functions.js';
import { formatRaw, greatestRawWithin, leastRawFrom, onGrid, rawForWord } from '../display/map/raw-value.js';
import { currentLimitFor } from '../electrical/current-limit.js';
import { cutoffTargetV } from '../electrical/cutoff.js';
import type { SetupInputs } from './setup-inputs.js';
import type { Finding } from './setup.js';
import { speedLimit } from './speed-limit.js';

/** What one code should be set to (null: as found), the reason, and what is wrong with it if anything. */
export interface Wish {
  readonly raw: number | null;
  readonly because: string;
  readonly finding?: Pick<Finding, 'level' | 'says'>;
}

const KM_PER_MILE = 1.609344;

type WishFor = (code: Code, inputs: SetupInputs) => Wish;

/** How each function that a setup decides gets its target. Functions not named here stay as found. */
export const WISHES: Partial<Record<CodeFunction, WishFor>> = {
  units: (code, { houseRules }) =>
    word(code, houseRules.choices.units, houseRules.choices.units === 'kmh' ? 'House rule: km/h' : 'House rule: mph'),
  speedCap,
  driveMode,
  currentLimit,
  wheelSize: (code, { type }) =>
    number(code, type.tyre.wheelInch, `As marked: ${type.tyre.marking}, not yet measured`),
  wheelPulses: (code, { type }) => number(code, type.wheelPulses, `As counted: ${type.wheelPulses} a turn, never a trim`),
  standstillStart: (code, { houseRules }) =>
    word(code, houseRules.choices.standstillStart, {
      rolling: 'House rule: only once rolling',
      live: 'House rule: live from standstill',
      pedalFirst: 'House rule: only once pedalling',
    }[houseRules.choices.standstillStart]),
  walk: (code, { houseRules }) => word(code, houseRules.choices.walk, `House rule: walk assist ${houseRules.choices.walk}`),
  cruise: (code, { houseRules }) =>
    word(code, houseRules.choices.cruise, houseRules.choices.cruise === 'off' ? 'House rule: off, it surprises riders' : 'House rule: available'),
  pedalStartStrength: (code, { houseRules }) =>
    word(code, houseRules.choices.assistStart, `House rule: ${houseRules.choices.assistStart} start`),
  assistLevels: (code, { houseRules }) => number(code, houseRules.choices.assistLevels, `House rule: ${houseRules.choices.assistLevels} levels`),
  brightness: (code, { houseRules }) => number(code, houseRules.choices.brightness, 'House rule: readable by day'),
  autoOff: (code, { houseRules }) =>
    number(code, houseRules.choices.autoOffMin, houseRules.choices.autoOffMin === 0 ? 'House rule: never' : `House rule: after ${houseRules.choices.autoOffMin} min`),
  cutoffVoltage: (code, { type, houseRules }) => {
    const wantedV = cutoffTargetV(type.pack, houseRules.choices.cutoffMarginVPerCell);
    const raw = leastRawFrom(code, wantedV);
    const perCell = (wantedV / type.pack.cellsInSeries).toFixed(1);
    return raw === undefined
      ? asFound(`${wantedV} V wanted, not on this code`, { level: 'stop', says: `${code.label} cannot be set to ${wantedV} V: cells would be run too low.` })
      : { raw, because: `${perCell} V a cell, ${type.pack.cellsInSeries} cells` };
  },
};

function speedCap(code: Code, inputs: SetupInputs): Wish {
  const limit = speedLimit(inputs);
  const inMiles = code.encoding.kind === 'line' && code.encoding.follows !== undefined && inputs.houseRules.choices.units === 'mph';
  const raw = greatestRawWithin(code, inMiles ? limit.kmh / KM_PER_MILE : limit.kmh);
  if (raw === undefined) {
    return asFound(`${limit.because}: below the range of this code`, {
      level: 'stop',
      says: `${code.label} cannot be set as low as ${limit.kmh} km/h; its lowest is ${formatRaw(code, code.range.min)}.`,
    });
  }
  return { raw, because: limit.because };
}

function driveMode(code: Code, { vehicleClass, type }: SetupInputs): Wish {
  if (vehicleClass.throttle === 'none') {
    const wish = word(code, 'pedal', 'Class allows pedal assist only');
    return wish.raw === null
      ? { ...wish, finding: { level: 'stop', says: `${code.label} has no pedal-only mode, and the class allows no throttle.` } }
      : wish;
  }
  return type.throttleFitted ? word(code, 'both', 'Throttle fitted, and the class allows it') : word(code, 'pedal', 'No throttle is fitted');
}

function currentLimit(code: Code, { type, vehicleClass }: SetupInputs): Wish {
  const { ratedPowerW: limitW, powerBasis: basis } = vehicleClass;
  const { limitA, decidedBy, readings, stop } = currentLimitFor({ pack: type.pack, limitW, basis, ratedW: type.ratedPowerW, controllerA: type.controllerLimitA, typeA: type.typeLimitA });
  if (stop) return asFound(`Motor is rated ${type.ratedPowerW} W`, { level: 'stop', says: stop });
  const raw = greatestRawWithin(code, limitA);
  if (raw === undefined) return asFound('No setting of this code is low enough', { level: 'stop', says: `${code.label} cannot be set low enough.` });
  if (decidedBy !== 'power' || !readings) return { raw, because: `${type.ratedPowerW} W rated; ${decidedBy === 'controller' ? 'controller' : 'type'} allows ${limitA} A` };
  const byLabel = `${readings.nominalA.toFixed(1)} A at ${readings.nominalV} V by label`;
  const whenFull = `${readings.fullA.toFixed(1)} A at ${readings.fullV.toFixed(1)} V when full`;
  return { raw, because: `${limitW} W: ${basis === 'full' ? `${whenFull}, as the rule counts; ${byLabel}` : `${byLabel}, as the rule counts; ${whenFull}`}` };
}

const asFound = (because: string, finding: Wish['finding']): Wish => ({ raw: null, because, ...(finding ? { finding } : {}) });

function word(code: Code, value: string, because: string): Wish {
  const raw = rawForWord(code, value);
  return raw === undefined
    ? asFound(`${because}: not offered by this code`, { level: 'decide', says: `${code.label} does not offer what was chosen (${because}).` })
    : { raw, because };
}

function number(code: Code, meaning: number, because: string): Wish {
  const scale = code.encoding.kind === 'line' ? code.encoding.scale : 1;
  const raw = Number((meaning / scale).toFixed(code.decimals));
  return onGrid(code, raw)
    ? { raw, because }
    : asFound(`${because}: outside this code's range`, { level: 'decide', says: `${code.label} cannot be set to ${meaning} (${because}).` });
}
