import { speedWords, type VehicleClass } from '@decurio/core';

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
} as const;

export const THROTTLE_TITLES = {
  none: 'none',
  toCap: 'to where assist ends',
  toSpeed: 'to a speed of its own',
  asOrdered: 'as ordered',
  asApproved: 'as approved',
} as const;

export const KIND_TITLES = { bike: 'bikes', scooter: 'scooters', any: 'bikes and scooters' } as const;
export const LIVE_TITLES = { allowed: 'allowed', decide: 'a lead decides', forbidden: 'forbidden' } as const;

const throttleWords = (c: VehicleClass): string =>
  [
    c.throttle === 'toSpeed' && c.throttleTo ? `to ${speedWords(c.throttleTo)}` : THROTTLE_TITLES[c.throttle],
    c.startAid ? `start-up aid to ${speedWords(c.startAid)}` : null,
  ]
    .filter((words) => words !== null)
    .join('; ');

/** A class line by line, as a person reads it; what it does not say is left out. */
export function classRows(c: VehicleClass): readonly (readonly [string, string])[] {
  const rows: (readonly [string, string | null])[] = [
    ['Id in order files', c.id],
    ['For', KIND_TITLES[c.kind]],
    ['What may be done', REGIME_TITLES[c.regime]],
    ['Assist ends', c.limit ? speedWords(c.limit) : "the type's or the site's limit"],
    [
      'Power',
      c.ratedPowerW === null ? 'no limit named' : `${c.ratedPowerW} W, counted as ${BASIS_TITLES[c.powerBasis]}`,
    ],
    ['Throttle', throttleWords(c)],
    ['Drive from standstill', c.throttle === 'none' ? null : LIVE_TITLES[c.liveStart]],
    ['Walk assist', c.walk === 'forbidden' ? 'forbidden' : c.walkTo ? `to ${speedWords(c.walkTo)}` : 'allowed'],
    ['Slow mode', c.walkingMode ? `wanted, at most ${speedWords(c.walkingMode)}` : null],
    [
      'Settings',
      c.settingsOutOfReach ? "out of a rider's reach, or it is another class; a PIN does not cure it" : null,
    ],
    ['Label', c.labelFields.length > 0 ? c.labelFields.join(', ') : null],
    [
      'Also',
      [
        c.needsSpeedometer ? 'speedometer' : null,
        c.endSpeedMeasured ? 'end speed is measured' : null,
        c.ageNote || null,
        c.tolerance > 0 ? `tolerance ${c.tolerance * 100} %` : null,
      ]
        .filter((words) => words !== null)
        .join('; ') || null,
    ],
    ['Note', c.note || null],
    ['Source', c.source],
  ];
  return rows.flatMap(([name, says]) => (says === null ? [] : [[name, says] as const]));
}
