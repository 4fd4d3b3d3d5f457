/**
 * The one vocabulary of what a code controls, whatever a display calls it.
 * `title` is what a technician reads.
 */
export const FUNCTIONS = {
  units: { title: 'Units' },
  speedCap: { title: 'Speed cap' },
  throttleCap: { title: 'Throttle cap' },
  wheelSize: { title: 'Wheel size' },
  wheelPulses: { title: 'Wheel pulses' },
  driveMode: { title: 'Drive mode' },
  standstillStart: { title: 'Standstill throttle' },
  throttleScope: { title: 'Throttle scope' },
  assistLevels: { title: 'Assist levels' },
  zeroLevel: { title: 'Level 0' },
  powerUpLevel: { title: 'Level at power-up' },
  pedalMagnets: { title: 'Pedal magnets' },
  pedalDelay: { title: 'Pedal delay' },
  pedalStartStrength: { title: 'Assist start' },
  pedalSensitivity: { title: 'Pedal sensitivity' },
  currentLimit: { title: 'Current limit' },
  nominalVoltage: { title: 'Voltage class' },
  cutoffVoltage: { title: 'Cut-off voltage' },
  gaugeMode: { title: 'Battery indication' },
  cruise: { title: 'Cruise' },
  walk: { title: 'Walk assist' },
  startRamp: { title: 'Start ramp' },
  regen: { title: 'Motor braking' },
  lowBatteryLimp: { title: 'Low-battery limp' },
  autoOff: { title: 'Switches itself off' },
  brightness: { title: 'Brightness' },
  clock: { title: 'Clock' },
  accessPin: { title: 'Menu PIN' },
  tripReset: { title: 'Trip reset' },
  odometer: { title: 'Odometer' },
  restoreDefaults: { title: 'Restore defaults' },
  info: { title: 'Information' },
  makersOnly: { title: 'Maker only' },
  unknown: { title: 'Meaning unknown' },
} as const;

export type CodeFunction = keyof typeof FUNCTIONS;

/** What a technician reads for a function, e.g. `Speed cap`. */
export const functionTitle = (name: CodeFunction): string => FUNCTIONS[name].title;
