import { FITTINGS, powerWords, riderRules, speedWords, type Leave, type Speed, type VehicleClass } from '@decurio/core';

export const REGIME_TITLES = {
  set: 'set within the limits',
  lowerOnly: 'lowered or restored as made, never raised',
  checkOnly: 'check, never change',
  privateLand: 'private land, in writing',
} as const;

export const BASIS_TITLES = {
  rated: "the motor's rated label",
  nominal: 'label volts times amperes',
  full: 'full-pack volts times amperes',
  peak: 'what the motor gives at most',
} as const;

export const BOUND_TITLES = { atMost: 'up to it', under: 'less than it' } as const;
export const LEAVE_TITLES = { allowed: 'allowed', decide: 'a lead decides', forbidden: 'forbidden' } as const;
export const ASKED_TITLES = { no: 'not asked', yes: 'asked', decide: 'not sure: ask' } as const;
export const FROM_TITLES = {
  standstill: 'from standstill',
  decide: 'from standstill: a lead decides',
  rolling: 'only once rolling',
  pedalling: 'only while pedalling',
} as const;
export const KEPT_TITLES = {
  rider: 'the rider',
  code: 'a mode of the display',
  module: 'a module on the vehicle',
} as const;
export const PAPER_TITLES = { battery: 'battery', electrical: 'electrical system', vehicle: 'vehicle' } as const;

export const THROTTLE_TITLES = {
  none: 'none',
  toCap: 'to where assist ends',
  toSpeed: 'to a speed of its own',
  asOrdered: 'as ordered',
  asApproved: 'as approved',
} as const;

export const KIND_TITLES = { bike: 'bikes', scooter: 'scooters', any: 'bikes and scooters' } as const;

const throttleWords = (c: VehicleClass): string =>
  [
    c.throttle === 'toSpeed' && c.throttleTo ? `to ${speedWords(c.throttleTo)}` : THROTTLE_TITLES[c.throttle],
    c.startAid ? `start-up aid to ${speedWords(c.startAid)}` : null,
  ]
    .filter((words) => words !== null)
    .join('; ');

const listed = (...words: readonly (string | null | false)[]): string | null =>
  words.filter((word) => typeof word === 'string' && word !== '').join('; ') || null;

const leave = (word: Leave, to: Speed | null = null): string => {
  if (word === 'forbidden') return 'forbidden';
  return `${to ? `to ${speedWords(to)}` : 'allowed'}${word === 'decide' ? '; a lead decides' : ''}`;
};

const limitWords = ({ limit, limitIs }: VehicleClass): string =>
  limit ? `${limitIs === 'under' ? 'less than ' : ''}${speedWords(limit)}` : "the type's or the site's limit";

const powerLine = ({ power }: VehicleClass): string =>
  power.length === 0
    ? 'no limit named'
    : power.map((each) => `${powerWords(each)}, counted as ${BASIS_TITLES[each.basis]}`).join('; ');

const settingsWords = (c: VehicleClass): string | null =>
  listed(
    c.settingsOutOfReach && "out of a rider's reach, or it is another class; a PIN does not cure it",
    c.mayChange !== '' && `changed by ${c.mayChange}`,
    c.changeMakesMaker && 'whoever alters what is approved may count as its maker',
  );

const drivesOff = (c: VehicleClass): string | null =>
  listed(
    c.cutOnBrake && 'by each brake lever',
    c.cutOnPedalStop &&
      `when the pedals stop${c.cutOnPedalStop.withinS === null ? '' : ` within ${c.cutOnPedalStop.withinS} s`}`,
  );

const assistWords = (c: VehicleClass): string | null =>
  listed(
    c.assistFactor !== null && `at most ${c.assistFactor} times the rider's power`,
    c.taper && 'grows less towards its end',
  );

const vehicleWords = (c: VehicleClass): string | null =>
  listed(
    c.brakes > 0 && `${c.brakes} brakes that work without one another`,
    ...c.fittings.map((each) => FITTINGS[each]),
    c.greatestMassKg !== null && `at most ${c.greatestMassKg} kg`,
  );

const FIELD_TITLES: Readonly<Partial<Record<keyof VehicleClass, string>>> = {
  limit: 'end of assist',
  limitIs: 'whether the limit itself is allowed',
  throttleTo: 'end of throttle',
  throttleFrom: 'from which motion',
  startAid: 'start-up aid',
  walkTo: 'speed of walk assist',
  walkingMode: 'slow mode',
  assistFactor: 'factor of assist',
  cutOnBrake: 'drive ends by brake',
  cutOnPedalStop: 'drive ends with the pedals',
  settingsOutOfReach: 'settings out of reach',
  mayChange: 'who may change settings',
  changeMakesMaker: 'altering makes a maker',
  greatestMassKg: 'greatest mass',
  leastAge: 'least age',
  riderNote: 'what a rider must know',
  certificates: 'papers to be seen',
  labelFields: 'label',
  labelLetterMm: 'letters of the label',
  endSpeedMeasured: 'end speed is measured',
  ask: 'whom to ask',
  doubts: 'open questions',
};

/** What a field of a class is called where it is named alone. */
export const fieldTitle = (field: string): string => FIELD_TITLES[field as keyof VehicleClass] ?? field;

/** A class line by line, as a person reads it; what it does not say is left out. */
export function classRows(c: VehicleClass): readonly (readonly [string, string])[] {
  const rows: (readonly [string, string | null])[] = [
    ['Id in order files', c.id],
    ['For', KIND_TITLES[c.kind]],
    ['What may be done', REGIME_TITLES[c.regime]],
    ['Assist ends', limitWords(c)],
    ['Power', powerLine(c)],
    ['Assist', assistWords(c)],
    ['Throttle', throttleWords(c)],
    ['Throttle drives', c.throttle === 'none' ? null : FROM_TITLES[c.throttleFrom]],
    ['Walk assist', leave(c.walk, c.walkTo)],
    ['Cruise', c.throttle === 'none' ? null : leave(c.cruise)],
    ['Slow mode', c.walkingMode ? `wanted, at most ${speedWords(c.walkingMode)}` : null],
    ['Drive ends', drivesOff(c)],
    ['Settings', settingsWords(c)],
    ['On the vehicle', vehicleWords(c)],
    ['Rider', listed(...riderRules(c))],
    ['Papers to be seen', listed(...c.certificates.map(({ of, standard }) => `${PAPER_TITLES[of]}: ${standard}`))],
    [
      'By place and hour',
      listed(...c.places.map((p) => `${p.where}: ${speedWords(p.limit)}, kept by ${KEPT_TITLES[p.keptBy]}`)),
    ],
    [
      'Label',
      listed(c.labelFields.join(', '), c.labelLetterMm !== null && `letters of at least ${c.labelLetterMm} mm`),
    ],
    [
      'Also',
      listed(
        c.endSpeedMeasured && 'end speed is measured',
        c.tolerance > 0 && `tolerance ${Number((c.tolerance * 100).toFixed(2))} %`,
      ),
    ],
    ['Note', c.note || null],
    ['Whom to ask', c.ask || null],
    ['Source', c.source],
  ];
  return rows.flatMap(([name, says]) => (says === null ? [] : [[name, says] as const]));
}
