import type { CodeFunction } from './functions.js';

const SWITCH = ['off', 'on'] as const;
const STRENGTH = ['gentle', 'soft', 'middle', 'strong', 'full'] as const;
const BRAKING = ['none', 'weak', 'middle', 'strong'] as const;

/** Words that a value can mean, by what its code controls: those that a setup asks for. A function without any counts in digits. */
const VOCABULARY: Partial<Record<CodeFunction, readonly string[]>> = {
  units: ['kmh', 'mph'],
  driveMode: ['pedal', 'throttle', 'both'],
  standstillStart: ['live', 'rolling', 'pedalFirst'],
  throttleScope: ['full', 'limited', 'walk'],
  throttleStrength: STRENGTH,
  pedalStartStrength: STRENGTH,
  startRamp: STRENGTH,
  regen: BRAKING,
  modeRegen: BRAKING,
  zeroLevel: SWITCH,
  cruise: SWITCH,
  walk: SWITCH,
  modeTurbo: SWITCH,
  lowBatteryLimp: SWITCH,
  powerGraphic: SWITCH,
  lightOutput: SWITCH,
  serviceMode: SWITCH,
  serviceReminder: SWITCH,
  motorTempShown: SWITCH,
  tripReset: ['no', 'yes'],
  restoreDefaults: ['no', 'yes'],
  energyCounterReset: ['no', 'yes'],
  nominalVoltage: ['24', '36', '48', '52', '60', '72'],
  gaugeMode: ['voltage', 'volts', 'percent', 'ownSteps'],
  powerView: ['watts', 'amps'],
  temperatureUnit: ['celsius', 'fahrenheit'],
};

/** Words that a value of this function can mean; empty where it counts in digits, or in words of its own. */
export const vocabularyOf = (name: string): readonly string[] =>
  Object.hasOwn(VOCABULARY, name) ? (VOCABULARY[name as CodeFunction] ?? []) : [];
