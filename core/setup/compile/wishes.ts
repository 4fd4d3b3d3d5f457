import type { CodeFunction } from '../../display/map/functions.js';
import type { WishFor } from './wish.js';
import * as battery from './wishes/battery.js';
import * as display from './wishes/display.js';
import * as power from './wishes/power.js';
import * as riding from './wishes/riding.js';
import * as speed from './wishes/speed.js';
import * as throttle from './wishes/throttle.js';
import * as wheel from './wishes/wheel.js';

/** How each function that a setup decides gets its target. Functions not named here stay as found. */
export const WISHES: Partial<Record<CodeFunction, WishFor>> = {
  speedCap: speed.speedCap,
  throttleCap: speed.throttleCap,
  modeSpeedPercent: speed.modeSpeedPercent,
  modeTurbo: speed.modeTurbo,
  driveMode: throttle.driveMode,
  standstillStart: throttle.standstillStart,
  throttleScope: throttle.throttleScope,
  throttleStrength: throttle.throttleStrength,
  currentLimit: power.currentLimit,
  modeCurrentPercent: power.modeCurrentPercent,
  maxOutputPercent: power.maxOutputPercent,
  nominalVoltage: battery.nominalVoltage,
  batteryKind: battery.batteryKind,
  packProfile: battery.packProfile,
  packCapacity: battery.packCapacity,
  cutoffVoltage: battery.cutoffVoltage,
  taperVoltage: battery.taperVoltage,
  gaugeMode: battery.gaugeMode,
  gaugeEmptyV: battery.gaugeEmptyV,
  gaugeFullV: battery.gaugeFullV,
  gaugeStep: battery.gaugeStep,
  lowBatteryLimp: battery.lowBatteryLimp,
  wheelSize: wheel.wheelSize,
  wheelPulses: wheel.wheelPulses,
  pedalMagnets: riding.pedalMagnets,
  pedalStartStrength: riding.assistStart,
  pedalSensitivity: riding.assistStart,
  pedalDelay: riding.assistStart,
  modeAccel: riding.startRamp,
  startRamp: riding.startRamp,
  assistLevels: riding.assistLevels,
  zeroLevel: riding.zeroLevel,
  walk: riding.walk,
  cruise: riding.cruise,
  regen: riding.regen,
  modeRegen: riding.regen,
  units: display.units,
  brightness: display.brightness,
  lightSensitivity: display.lightSensitivity,
  autoOff: display.autoOff,
  accessPin: display.menuPin,
  startupPin: display.startPin,
  odometer: display.odometer,
  serviceMode: display.serviceMode,
};
