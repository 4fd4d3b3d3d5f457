/**
 * The one vocabulary of what a code controls, whatever a display calls it.
 * `title` is what a technician reads; `also` what papers call it otherwise, to find it by.
 */
export const FUNCTIONS = {
  units: { title: 'Units' },
  speedCap: { title: 'Speed cap', also: 'speed limit, maximum speed' },
  throttleCap: { title: 'Throttle cap', also: 'throttle speed' },
  wheelSize: { title: 'Wheel size', also: 'wheel diameter, circumference, tyre' },
  wheelPulses: { title: 'Wheel pulses', also: 'speed magnets, motor magnets, pulses per turn' },
  driveMode: { title: 'Drive mode', also: 'pedal or throttle' },
  standstillStart: { title: 'Standstill throttle', also: 'start from standstill, zero start, kick' },
  throttleScope: { title: 'Throttle scope' },
  throttleStrength: { title: 'Throttle strength' },
  assistLevels: { title: 'Assist levels', also: 'number of levels, gears' },
  zeroLevel: { title: 'Level 0' },
  powerUpLevel: { title: 'Level at power-up', also: 'start level' },
  levelPercent: { title: 'Strength of a level', also: 'assist ratio, power of a level' },
  pedalMagnets: { title: 'Pedal magnets', also: 'assist sensor, magnets of the pedals' },
  pedalDelay: { title: 'Pedal delay', also: 'start delay' },
  pedalStartStrength: { title: 'Assist start', also: 'soft start, start strength' },
  pedalSensitivity: { title: 'Pedal sensitivity' },
  currentLimit: { title: 'Current limit', also: 'amperes, controller current' },
  nominalVoltage: { title: 'Voltage class', also: 'battery voltage, pack voltage, system voltage' },
  packProfile: { title: 'Pack profile' },
  cutoffVoltage: { title: 'Cut-off voltage', also: 'low voltage, undervoltage' },
  taperVoltage: { title: 'Taper voltage' },
  gaugeMode: { title: 'Battery indication', also: 'battery gauge' },
  gaugeEmptyV: { title: 'Gauge empty' },
  gaugeFullV: { title: 'Gauge full' },
  gaugeStep: { title: 'Gauge step' },
  energyCounterReset: { title: 'Energy counter reset' },
  packCapacity: { title: 'Pack capacity', also: 'battery capacity, amp hours' },
  batteryKind: { title: 'Battery kind' },
  motorKind: { title: 'Motor kind' },
  cruise: { title: 'Cruise', also: 'cruise control' },
  walk: { title: 'Walk assist', also: 'push assist, walking' },
  startRamp: { title: 'Start ramp', also: 'acceleration, ramp' },
  maxOutputPercent: { title: 'Greatest output', also: 'power limit' },
  regen: { title: 'Motor braking', also: 'regeneration, brake energy' },
  lowBatteryLimp: { title: 'Low-battery limp' },
  motorTempLimit: { title: 'Motor heat limit', also: 'temperature limit' },
  motorTempShown: { title: 'Motor heat shown' },
  modeSpeedPercent: { title: 'Speed of a mode' },
  modeCurrentPercent: { title: 'Current of a mode' },
  modeAccel: { title: 'Acceleration of a mode' },
  modeRegen: { title: 'Motor braking of a mode' },
  modeTurbo: { title: 'Turbo' },
  autoOff: { title: 'Switches itself off', also: 'auto off, sleep, shut-down, standby' },
  brightness: { title: 'Brightness', also: 'backlight, screen light' },
  lightSensitivity: { title: 'Light sensitivity' },
  lightOutput: { title: 'Light output', also: 'headlight' },
  temperatureUnit: { title: 'Temperature unit' },
  powerView: { title: 'Power view' },
  powerGraphic: { title: 'Power graphic' },
  powerScale: { title: 'Scale of the power graphic' },
  clock: { title: 'Clock', also: 'time of day' },
  accessPin: { title: 'Menu PIN', also: 'password, code of the menu' },
  startupPin: { title: 'Start PIN', also: 'password, start code, power-on PIN' },
  tripReset: { title: 'Trip reset', also: 'trip clear' },
  odometer: { title: 'Odometer', also: 'total distance, kilometres' },
  restoreDefaults: { title: 'Restore defaults', also: 'factory reset' },
  serviceReminder: { title: 'Service reminder' },
  serviceMode: { title: 'Service mode' },
  info: { title: 'Information', also: 'version, firmware, serial' },
  makersOnly: { title: 'Maker only', also: 'never touch' },
  unknown: { title: 'Meaning unknown', also: 'reserved' },
} as const satisfies Readonly<Record<string, { readonly title: string; readonly also?: string }>>;

export type CodeFunction = keyof typeof FUNCTIONS;

/** What a technician reads for a function, e.g. `Speed cap`. */
export const functionTitle = (name: CodeFunction): string => FUNCTIONS[name].title;

/** Functions whose title, or another word for it, has this in it, in any case; all of them for an empty text. */
export function functionsCalled(text: string): readonly CodeFunction[] {
  const asked = text.trim().toLowerCase();
  const named: Readonly<Record<CodeFunction, { readonly title: string; readonly also?: string }>> = FUNCTIONS;
  return (Object.keys(FUNCTIONS) as CodeFunction[]).filter((name) =>
    `${named[name].title}, ${named[name].also ?? ''}`.toLowerCase().includes(asked),
  );
}
