import type { CodeFunction } from '../../display/map/functions.js';

const set = (...names: CodeFunction[]): ReadonlySet<CodeFunction> => new Set(names);

/** Codes that end assist or throttle at a speed. */
export const CAPS = set('speedCap', 'throttleCap', 'modeSpeedPercent');
/** More of it is more speed or power: never raised where a class may only be lowered. */
export const RAISING = set(
  'speedCap',
  'throttleCap',
  'modeSpeedPercent',
  'currentLimit',
  'modeCurrentPercent',
  'maxOutputPercent',
  'levelPercent',
);
/** Comfort: a rider would notice, nobody would be hurt or out of class. */
export const COMFORT = set(
  'units',
  'brightness',
  'lightSensitivity',
  'autoOff',
  'powerView',
  'powerGraphic',
  'powerScale',
  'temperatureUnit',
  'gaugeMode',
  'clock',
  'powerUpLevel',
  'serviceReminder',
  'zeroLevel',
  'assistLevels',
);
/** Approved together with the vehicle: compared and restored where a class says "check, never change". */
export const DRIVING = set(
  'speedCap',
  'throttleCap',
  'wheelSize',
  'wheelPulses',
  'driveMode',
  'standstillStart',
  'throttleScope',
  'throttleStrength',
  'levelPercent',
  'pedalMagnets',
  'pedalDelay',
  'pedalStartStrength',
  'pedalSensitivity',
  'currentLimit',
  'nominalVoltage',
  'packProfile',
  'cutoffVoltage',
  'taperVoltage',
  'batteryKind',
  'motorKind',
  'cruise',
  'walk',
  'startRamp',
  'maxOutputPercent',
  'regen',
  'lowBatteryLimp',
  'motorTempLimit',
  'modeSpeedPercent',
  'modeCurrentPercent',
  'modeAccel',
  'modeRegen',
  'modeTurbo',
);
