import { mapTitle } from '../../../display/map/display-map.js';
import { inKmh, speedWords } from '../../../speed/speed.js';
import { finding, type Draft } from '../draft.js';
import { hasSlowMode } from './class-asks.js';
import { checkStanding } from '../../inputs/vehicle-class.js';
import type { Finding } from '../../setup.js';
import type { Work } from '../wish.js';

/** What is wrong with class, order and authority before any code is looked at. */
export function ruleFindings(draft: Draft): readonly Finding[] {
  const { work } = draft;
  const { vehicleClass, type, map, unit } = work;
  const findings: Finding[] = [];
  if (vehicleClass.kind !== 'any' && vehicleClass.kind !== type.kind)
    findings.push(
      finding(
        'stop',
        'otherKind',
        null,
        `${type.name} is a ${type.kind}; the class "${vehicleClass.title}" is for a ${vehicleClass.kind}.`,
      ),
    );
  if (!map.confirmed)
    findings.push(
      finding(
        'stop',
        'draftMap',
        null,
        `The map of ${mapTitle(map)} is a draft: a second person confirms it on a real unit before anything leaves under it.`,
      ),
    );
  findings.push(...checkFindings(work), ...privateLandFindings(work), ...conflicts(work));
  if (vehicleClass.walkingMode && !hasSlowMode(draft, inKmh(vehicleClass.walkingMode)))
    findings.push(
      finding(
        'decide',
        'walkingMode',
        null,
        `The class wants a mode of at most ${speedWords(vehicleClass.walkingMode)} where people walk; no mode of this display is that slow.`,
      ),
    );
  if (type.needsSource.length > 0)
    findings.push(
      finding(
        'note',
        'needsSource',
        null,
        `Nobody has a source yet for these facts of ${type.name}: ${type.needsSource.map((fact) => FACTS[fact]).join(', ')}.`,
      ),
    );
  if (unit.override)
    findings.push(
      finding(
        'note',
        'override',
        null,
        `This unit is set otherwise than its order, by ${unit.override.by}: ${unit.override.why}`,
      ),
    );
  return findings;
}

const FACTS = {
  ratedPowerW: 'rated power',
  controllerLimitA: 'controller limit',
  typeLimitA: 'current limit',
  attainableKmh: 'attainable speed',
  pack: 'pack',
  displayStands: 'volts the display stands',
  wheelPulses: 'wheel pulses',
  pedalMagnets: 'pedal magnets',
  controllerCutoffV: "controller's cut-off",
  speedLimit: 'speed limit of the type',
} as const;

function checkFindings({ vehicleClass, today }: Work): readonly Finding[] {
  switch (checkStanding(vehicleClass.checked, today)) {
    case 'checked':
      return [];
    case 'expired':
      return [
        finding(
          'note',
          'classExpired',
          null,
          `The check of this class ran out on ${vehicleClass.checked?.expiresOn}. Nothing is signed off under it until a lead checks it again with the local authority.`,
        ),
      ];
    case 'notChecked':
      return [
        finding(
          'note',
          'classNotChecked',
          null,
          'Nobody here has checked this class with the local authority. Nothing is signed off under it until a lead has.',
        ),
      ];
  }
}

function privateLandFindings({ vehicleClass, terms, choices, limit, today }: Work): readonly Finding[] {
  const { privateLand } = terms;
  if (vehicleClass.regime !== 'privateLand')
    return privateLand
      ? [
          finding(
            'stop',
            'privateConflict',
            null,
            `The order says private land, and the class "${vehicleClass.title}" is for public roads. Take one or the other.`,
          ),
        ]
      : [];
  if (!privateLand)
    return [
      finding(
        'stop',
        'noAuthority',
        null,
        "This class is for private land: it wants a lead's written authority, the customer's acknowledgement and a day on which it ends.",
      ),
    ];
  const findings = [
    finding(
      'note',
      'privateLand',
      null,
      `Private land only, by authority of ${privateLand.authorityBy} until ${privateLand.endsOn}. Never ridden on a public road, tests included; motor and pack wear more.`,
    ),
  ];
  if (privateLand.endsOn < today)
    findings.push(
      finding('stop', 'authorityOver', null, `The authority for private land ended on ${privateLand.endsOn}.`),
    );
  if (privateLand.isUncapped && choices.uncapped === 'never')
    findings.push(
      finding('stop', 'uncappedNever', null, 'The order asks for no cap, and the house rules never uncap.'),
    );
  if (!privateLand.isUncapped && limit === null)
    findings.push(
      finding(
        'stop',
        'noLimit',
        null,
        'No limit is named by type, site or order, and the order is not uncapped. Name one.',
      ),
    );
  return findings;
}

function conflicts({ vehicleClass, choices, limit }: Work): readonly Finding[] {
  const findings: Finding[] = [];
  if (vehicleClass.limit === null && vehicleClass.regime !== 'privateLand')
    findings.push(
      finding(
        'stop',
        'classWithoutLimit',
        null,
        `The class "${vehicleClass.title}" names no speed limit. Mend the rule pack; none is guessed.`,
      ),
    );
  if (limit && !(limit.kmh > 0))
    findings.push(finding('stop', 'absurdLimit', null, 'A speed limit must be above zero.'));
  if (vehicleClass.throttle === 'toSpeed' && vehicleClass.throttleTo === null)
    findings.push(
      finding(
        'stop',
        'rulesConflict',
        null,
        `The class "${vehicleClass.title}" allows a throttle to a speed and does not name it. Mend the rule pack.`,
      ),
    );
  if (vehicleClass.throttleTo && vehicleClass.limit && inKmh(vehicleClass.throttleTo) > inKmh(vehicleClass.limit))
    findings.push(
      finding(
        'stop',
        'rulesConflict',
        null,
        `The class "${vehicleClass.title}" ends the throttle above the speed at which it ends assist. Mend the rule pack.`,
      ),
    );
  if (
    choices.standstillStart === 'live' &&
    (vehicleClass.throttleFrom === 'rolling' || vehicleClass.throttleFrom === 'pedalling')
  )
    findings.push(
      finding(
        'note',
        'houseAgainstClass',
        null,
        'The house rules want the throttle live from standstill; the class forbids it and goes first.',
      ),
    );
  if (vehicleClass.walk === 'forbidden' && choices.walk === 'on')
    findings.push(
      finding(
        'note',
        'houseAgainstClass',
        null,
        'The house rules want walk assist; the class forbids it and goes first.',
      ),
    );
  return findings;
}
