import { formatRaw } from '../../../display/map/raw-value.js';
import { inKmh, speedWords } from '../../../speed/speed.js';
import { FITTINGS } from '../../inputs/vehicle-class.js';
import { brakesByMotor, cutsMotor } from '../../inputs/vehicle-type.js';
import type { Finding } from '../../setup.js';
import { canMove, finding, willShow, withFunction, type Draft } from '../draft.js';
import { DRIVING } from '../function-groups.js';
import type { Work } from '../wish.js';
import { kmhPerRaw } from '../wishes/speed.js';

/** What the class asks beside speed, power and throttle: who may change what, brakes, fittings, mass, papers, places. */
export function classAsks(draft: Draft): readonly Finding[] {
  const { work } = draft;
  return [
    ...settingsInReach(work),
    ...makesMaker(draft),
    ...brakesAsked(work),
    ...fittingsAsked(work),
    ...massAsked(work),
    ...papersAsked(work),
    ...slowPlaces(draft),
    ...assistAsked(work),
  ];
}

/** Codes that decide about drive and that a rider's own keys move. */
function settingsInReach({ vehicleClass, map }: Work): readonly Finding[] {
  if (!vehicleClass.settingsOutOfReach) return [];
  const moved = map.codes.filter((code) => DRIVING.has(code.function) && canMove(map, code));
  const open = moved.filter(({ access }) => access === 'open').map(({ label }) => label);
  const behindPin = moved.filter(({ access }) => access === 'pin').map(({ label }) => label);
  if (open.length + behindPin.length === 0) return [];
  const where = [
    ...(open.length > 0 ? [`${few(open)} ${open.length === 1 ? 'is' : 'are'} open to anybody`] : []),
    ...(behindPin.length > 0
      ? [`${few(behindPin)} ${behindPin.length === 1 ? 'is' : 'are'} behind a PIN only, which does not cure it`]
      : []),
  ].join('; ');
  return [
    finding(
      'decide',
      'settingsInReach',
      null,
      `A rider who can reach speed or power settings takes the vehicle out of this class: ${where}. Ask ${vehicleClass.ask || 'the authority'} whether it may leave so, and how the menu is closed for good.`,
    ),
  ];
}

const SHOWN = 6;
const few = (labels: readonly string[]): string =>
  labels.length <= SHOWN ? labels.join(', ') : `${labels.slice(0, SHOWN).join(', ')} and ${labels.length - SHOWN} more`;

/** Whoever alters what is approved may count as its maker: asked as soon as anything about drive is altered. */
function makesMaker(draft: Draft): readonly Finding[] {
  const { vehicleClass, map, found } = draft.work;
  const findings: Finding[] = [];
  if (vehicleClass.mayChange !== '')
    findings.push(
      finding('note', 'mayChange', null, `Under this class settings are changed by: ${vehicleClass.mayChange}.`),
    );
  if (!vehicleClass.changeMakesMaker) return findings;
  const altered = draft.codes.filter(
    ({ code, wish }) =>
      DRIVING.has(code.function) && canMove(map, code) && wish.raw !== null && wish.raw !== found(code),
  );
  if (altered.length === 0) return findings;
  const words = altered.map(({ code, wish }) => `${code.label} to ${formatRaw(code, wish.raw ?? 0)}`);
  return [
    ...findings,
    finding(
      'decide',
      'makesMaker',
      null,
      `Whoever alters what is approved may count as its maker, and ${few(words)} ${altered.length === 1 ? 'is' : 'are'} altered here. Ask ${vehicleClass.ask || 'the authority'}: does this make us the maker, and what follows?`,
    ),
  ];
}

function brakesAsked({ vehicleClass, type }: Work): readonly Finding[] {
  const findings: Finding[] = [];
  if (type.brakes.length < vehicleClass.brakes)
    findings.push(
      finding(
        'stop',
        'tooFewBrakes',
        null,
        `The class asks for ${vehicleClass.brakes} brakes that work without one another; ${type.brakes.length === 1 ? 'one is' : `${type.brakes.length} are`} noted at ${type.name}.`,
      ),
    );
  else if (vehicleClass.brakes > 0 && brakesByMotor(type))
    findings.push(
      finding(
        'note',
        'motorIsBrake',
        null,
        `One of the brakes that the class asks for is the motor of ${type.name}: a full pack may refuse it, and its strength is not lowered.`,
      ),
    );
  const idle = (['front', 'rear'] as const).filter(
    (wheel) => type.brakes.some((brake) => brake.wheel === wheel) && !cutsMotor(type, wheel),
  );
  if (vehicleClass.cutOnBrake && idle.length > 0)
    findings.push(
      finding(
        'stop',
        'brakeDoesNotCut',
        null,
        `The class asks that each brake lever ends drive; at ${type.name} the ${idle.join(' and the ')} one does not.`,
      ),
    );
  return findings;
}

function fittingsAsked({ vehicleClass, type }: Work): readonly Finding[] {
  const missing = vehicleClass.fittings.filter((each) => !type.fittings.includes(each)).map((each) => FITTINGS[each]);
  return missing.length === 0
    ? []
    : [
        finding(
          'decide',
          'notFitted',
          null,
          `The class asks for ${missing.join(', ')}, not noted at ${type.name}. Fit it and say so, or mend the type.`,
        ),
      ];
}

function massAsked({ vehicleClass: { greatestMassKg }, type }: Work): readonly Finding[] {
  if (greatestMassKg === null) return [];
  if (type.massKg === null)
    return [
      finding(
        'note',
        'massUnknown',
        null,
        `The class allows ${greatestMassKg} kg, and nobody has weighed ${type.name} as it leaves, with pack and all that is on it.`,
      ),
    ];
  return type.massKg > greatestMassKg
    ? [
        finding(
          'stop',
          'tooHeavy',
          null,
          `${type.name} weighs ${type.massKg} kg; the class allows ${greatestMassKg} kg.`,
        ),
      ]
    : [];
}

const ON = { battery: 'the battery', electrical: 'the electrical system', vehicle: 'the vehicle' } as const;

function papersAsked({ vehicleClass, type }: Work): readonly Finding[] {
  return vehicleClass.certificates
    .filter((asked) => !type.certificates.some((seen) => seen.of === asked.of && seen.standard === asked.standard))
    .map((asked) =>
      finding(
        'decide',
        `paper-${asked.of}`,
        null,
        `The class asks for a paper on ${ON[asked.of]} (${asked.standard}), and none is noted at ${type.name}. See it, and write its number here or into the type.`,
      ),
    );
}

/** Places and hours with a speed of their own. */
function slowPlaces(draft: Draft): readonly Finding[] {
  return draft.work.vehicleClass.places.flatMap(({ where, limit, keptBy }, i) => {
    const says = `${where}: at most ${speedWords(limit)}`;
    if (keptBy === 'rider') return [];
    if (keptBy === 'module')
      return [
        finding(
          'note',
          `place-${i}`,
          null,
          `${says}, kept by a module on the vehicle, not by a code: read the display after the module's last word, and prove it there.`,
        ),
      ];
    return hasSlowMode(draft, inKmh(limit))
      ? []
      : [finding('decide', `place-${i}`, null, `${says}, by a mode of its own; no mode of this display is that slow.`)];
  });
}

/** Whether some mode ends as slow as this, km/h as the display counts. */
export function hasSlowMode(draft: Draft, atMostKmh: number): boolean {
  return withFunction(draft, 'modeSpeedPercent').some(
    (drafted) => (kmhPerRaw(drafted.code, draft.work) ?? Infinity) * willShow(draft, drafted) <= atMostKmh * (1 + 1e-9),
  );
}

/** What no code says and no stand shows: to be known, and to be read in the maker's papers. */
function assistAsked({ vehicleClass: { assistFactor, taper }, type }: Work): readonly Finding[] {
  if (type.pedalMagnets === null || (assistFactor === null && !taper)) return [];
  const asks = [
    ...(assistFactor === null ? [] : [`assist of at most ${assistFactor} times the rider's own power`]),
    ...(taper ? ['assist that grows less towards its end'] : []),
  ].join(', and ');
  return [
    finding(
      'note',
      'assistShape',
      null,
      `The class asks for ${asks}: no code of this display says so; the maker's papers do.`,
    ),
  ];
}
