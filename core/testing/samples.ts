import type { Code, Encoding, KeyedMap, MenuRules } from '../display/map/display-map.js';
import { hold, tap } from '../display/map/gesture.js';
import type { HouseRules } from '../setup/inputs/house-rules.js';
import { PLAIN_TERMS } from '../setup/inputs/order-terms.js';
import { STANDARD_CHOICES } from '../setup/inputs/house-choices.js';
import { NO_FACTS, type SetupInputs } from '../setup/inputs/setup-inputs.js';
import type { VehicleClass } from '../setup/inputs/vehicle-class.js';
import type { VehicleType } from '../setup/inputs/vehicle-type.js';

export const words = (...rows: (readonly [number, string])[]): Encoding => ({
  kind: 'table',
  entries: rows.map(([raw, value]) => ({ raw, value, title: value })),
});

export const line = (unit: string, noCapAt?: number): Encoding => ({
  kind: 'line',
  scale: 1,
  unit,
  sentinels: noCapAt === undefined ? [] : [{ raw: noCapAt, means: 'noCap', title: 'no cap at all' }],
});

export const code = (label: string, fn: Code['function'], over: Partial<Code>): Code => ({
  label,
  function: fn,
  range: { min: 0, max: 10, step: 1 },
  decimals: 0,
  factory: 5,
  encoding: line(''),
  access: 'open',
  effect: 'acts',
  actsAfter: 'once',
  source: 'measured',
  ...over,
});

/** Every listed code of a menu on one page. */
const onePage = (codes: readonly Code[]): MenuRules['pages'] => [
  { id: 'main', title: 'Menu', items: codes.map(({ label }) => ({ code: label })) },
];

/** The map with these codes instead, all on one page. */
export const withCodes = (map: KeyedMap, codes: readonly Code[], menu: Partial<MenuRules> = {}): KeyedMap => ({
  ...map,
  codes,
  menu: { ...map.menu, pages: onePage(codes), ...menu },
});

const sampleCodes: readonly Code[] = [
  code('L1', 'units', { range: { min: 11, max: 12, step: 1 }, factory: 12, encoding: words([11, 'kmh'], [12, 'mph']) }),
  code('L2', 'speedCap', { range: { min: 10, max: 32, step: 1 }, factory: 30, encoding: line('km/h', 32) }),
  code('L3', 'driveMode', {
    range: { min: 31, max: 33, step: 1 },
    factory: 33,
    encoding: words([31, 'pedal'], [32, 'throttle'], [33, 'both']),
    actsAfter: 'restart',
  }),
  code('L4', 'cutoffVoltage', {
    range: { min: 29, max: 34, step: 0.1 },
    decimals: 1,
    factory: 31,
    encoding: line('V'),
    access: 'locked',
  }),
  code('L5', 'currentLimit', { range: { min: 5, max: 20, step: 1 }, factory: 15, encoding: line('A') }),
];

/** A live-edit display with four keys whose menu wraps; the cap's top value means no cap. */
export const fourKey: KeyedMap = {
  // Measured, so that a cap is what its limit says; that nobody measured it is tried where that is the point.
  speed: { rounding: 'unknown', decimals: 0, overshootKmh: 0 },
  format: 'decurio-display-map/2',
  id: 'four-key',
  name: 'Sample four-key',
  revision: 'A',
  tellBy: 'Five codes.',
  keys: [
    { id: 'set', label: 'set' },
    { id: 'up', label: '+' },
    { id: 'down', label: '-' },
    { id: 'power', label: 'on/off' },
  ],
  power: { first: 'Pack on.', on: hold(1500, 'power'), off: hold(2000, 'power'), offInMenu: false },
  menu: {
    opens: [{ gesture: hold(2000, 'set', 'up'), from: 'riding', page: 'main' }],
    pin: null,
    close: hold(1500, 'set'),
    pages: onePage(sampleCodes),
    turns: [],
    next: tap('set'),
    previous: null,
    afterLast: 'wrap',
    pick: null,
    edit: { style: 'live', up: tap('up'), down: tap('down') },
    values: 'wrap',
    repeat: null,
    store: { on: 'move' },
    idle: { browseMs: 8000, editMs: 8000, pinMs: 8000, unstored: 'drop', reopensAt: 'first' },
  },
  restart: [{ act: 'Off and on.', waitMs: 0 }],
  dangers: [{ gesture: hold(1500, 'down'), caution: 'Long - starts the motor.' }],
  codes: sampleCodes,
  confirmed: { by: 'Ines M.', on: '2026-10-02', unit: 'S26-0001', firmware: '1' },
};

/** A display whose select key moves between name and value; values stop at their ends, the menu leaves after the last. */
export const threeKey: KeyedMap = {
  ...fourKey,
  id: 'three-key',
  keys: [
    { id: 'mid', label: 'o' },
    { id: 'up', label: 'u' },
    { id: 'down', label: 'd' },
  ],
  power: { first: 'Key on.', on: hold(1000, 'mid'), off: hold(3000, 'mid'), offInMenu: false },
  menu: {
    ...fourKey.menu,
    opens: [{ gesture: hold(2500, 'up', 'down'), from: 'riding', page: 'main' }],
    close: hold(2000, 'mid'),
    next: tap('up'),
    previous: tap('down'),
    afterLast: 'leave',
    edit: { style: 'focus', select: tap('mid'), up: tap('up'), down: tap('down') },
    values: 'stop',
    store: { on: 'endOfEdit' },
    idle: { browseMs: 12000, editMs: 12000, pinMs: 12000, unstored: 'keep', reopensAt: 'first' },
  },
  speed: { rounding: 'unknown', decimals: 0, overshootKmh: 0 },
  dangers: [],
};

export const stepThrough: VehicleType = {
  format: 'decurio-vehicle-type/3',
  id: 'step-through',
  name: 'Sample 26',
  title: 'Sample 26 step-through',
  kind: 'bike',
  motors: [{ place: 'rear', drive: 'gearedHub', freewheels: true }],
  ratedPowerW: 250,
  controllerLimitA: 15,
  typeLimitA: 12,
  controllerCutoffV: null,
  attainableKmh: 31,
  speedLimit: null,
  pack: { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13, protectionTripsV: null, profile: null },
  displayStandsV: null,
  tyre: { marking: '47-559', wheelInch: 26, rolledMm: null, barFrom: null, barTo: null },
  wheelPulses: 6,
  pedalMagnets: 12,
  throttleFitted: false,
  brakes: [
    { wheel: 'front', how: 'disc', cutsMotor: true },
    { wheel: 'rear', how: 'disc', cutsMotor: true },
  ],
  fittings: ['frontLight', 'rearLight', 'reflectors', 'bell', 'speedometer'],
  massKg: null,
  certificates: [],
  numbers: [],
  checkList: null,
  keySwitch: false,
  heavyCargo: false,
  whPerKm: null,
  maps: ['four-key'],
  approved: [],
  needsSource: [],
  cautions: [],
  cutPower: 'Pack key off.',
};

export const pedelec: VehicleClass = {
  id: 'pedelec-25',
  title: 'pedal assist to 25 km/h',
  kind: 'bike',
  regime: 'set',
  limit: { value: 25, unit: 'km/h' },
  limitIs: 'atMost',
  power: [{ watts: 250, basis: 'rated', is: 'atMost' }],
  throttle: 'none',
  throttleTo: null,
  throttleFrom: 'standstill',
  startAid: { value: 6, unit: 'km/h' },
  walk: 'allowed',
  walkTo: null,
  cruise: 'forbidden',
  walkingMode: null,
  assistFactor: null,
  taper: false,
  cutOnBrake: false,
  cutOnPedalStop: null,
  settingsOutOfReach: false,
  mayChange: '',
  changeMakesMaker: false,
  brakes: 0,
  fittings: [],
  greatestMassKg: null,
  leastAge: null,
  helmet: 'no',
  licence: 'no',
  plate: 'no',
  insurance: 'no',
  riderNote: '',
  certificates: [],
  places: [],
  labelFields: [],
  labelLetterMm: null,
  endSpeedMeasured: false,
  tolerance: 0,
  doubts: [],
  ask: 'the harbour office',
  source: 'sample',
  note: '',
  checked: {
    by: 'Ines M.',
    authority: 'Harbour office',
    source: 'Letter 12',
    on: '2026-10-01',
    expiresOn: '2027-10-01',
  },
};

export const hire: HouseRules = {
  format: 'decurio-house-rules/4',
  id: 'hire',
  name: 'Hire',
  customer: null,
  choices: STANDARD_CHOICES,
};

/** What the samples come to, with whatever is to be otherwise. */
export const inputs = (over: Partial<SetupInputs> = {}): SetupInputs => ({
  type: stepThrough,
  map: fourKey,
  vehicleClass: pedelec,
  houseRules: hire,
  terms: PLAIN_TERMS,
  unit: NO_FACTS,
  today: '2026-11-25',
  ...over,
});
