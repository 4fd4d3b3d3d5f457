import { functionTitle, type CodeFunction } from '../display/map/functions.js';
import { FITTINGS } from '../setup/inputs/vehicle-class.js';
import { speedWords } from '../speed/speed.js';
import { codesWith, hasAssist, throttleDrives, wordFor, type ProvingInputs } from './proving-inputs.js';
import type { NotProved, ProvingTest } from './proving-test.js';

/** Functions that a rider's safety or the law hangs on: each code of one is proved on the vehicle, or named as not. */
export const ANSWERED_FOR: readonly CodeFunction[] = [
  'speedCap',
  'throttleCap',
  'modeSpeedPercent',
  'driveMode',
  'standstillStart',
  'throttleScope',
  'zeroLevel',
  'walk',
  'cruise',
  'modeTurbo',
  'regen',
  'modeRegen',
  'units',
  'gaugeMode',
  'accessPin',
  'startupPin',
  'lowBatteryLimp',
  'autoOff',
];

/** A clause of the class with the tests that show it; or why none does. */
export interface ClauseCovered {
  readonly says: string;
  readonly by: readonly string[];
  /** Empty where a test shows it. */
  readonly because: string;
}

/** What is proved of a unit and what is not, so that nothing a rider's safety or the law hangs on is left unsaid. */
export interface Coverage {
  readonly clauses: readonly ClauseCovered[];
  readonly notProved: readonly NotProved[];
}

export function coverageOf(inputs: ProvingInputs, tests: readonly ProvingTest[]): Coverage {
  const proved = new Set(tests.flatMap(({ proves }) => proves.labels));
  const notProved = codesWith(inputs, ...ANSWERED_FOR)
    .filter(({ label }) => !proved.has(label))
    .map(({ label, function: own, encoding, access }): NotProved => {
      const what = ANSWERED_FOR.includes(own)
        ? own
        : encoding.kind === 'pair' && ANSWERED_FOR.includes(encoding.first.function)
          ? encoding.first.function
          : own;
      return { label, function: what, because: whyNot(inputs, label, what, access === 'tool') };
    });
  return { clauses: clausesOf(inputs, tests), notProved };
}

function whyNot(inputs: ProvingInputs, label: string, what: CodeFunction, isForTool: boolean): string {
  const { type, limit } = inputs;
  const title = functionTitle(what);
  if (inputs.pinLabels.includes(label)) return `${title}: set and tried when it is handed over.`;
  if (isForTool) return `${title}: on no glass; it needs the maker's tool.`;
  switch (what) {
    case 'accessPin':
    case 'startupPin':
      return `${title}: stays as found; whether it asks for digits was seen at the menu.`;
    case 'lowBatteryLimp':
      return `${title}: it would take an empty pack.`;
    case 'autoOff':
      return `${title}: set never to, or not as a time.`;
    case 'throttleCap':
    case 'throttleScope':
    case 'standstillStart':
    case 'cruise':
      return throttleDrives(inputs)
        ? `${title}: it changes nothing with the other codes as they stand.`
        : `${title}: no throttle drives, so there is nothing that it could let through.`;
    case 'regen':
    case 'modeRegen':
      return `${title}: a motor that freewheels cannot brake.`;
    case 'speedCap':
    case 'modeSpeedPercent':
    case 'modeTurbo':
      return limit === null
        ? `${title}: nothing limits its speed.`
        : `${title}: no way to drive is left in which it would end anything.`;
    case 'zeroLevel':
      return type.pedalMagnets === null ? `${title}: there are no pedals.` : `${title}: not on this display's glass.`;
    case 'driveMode':
      return type.throttleFitted
        ? `${title}: not told apart by anything that is fitted.`
        : `${title}: no throttle is fitted, so the pedals alone drive.`;
    default:
      return `${title}: read back on the glass alone.`;
  }
}

const APPROVAL = "the type's approval or the maker's paper answers for it; nothing on a stand does";

function clausesOf(inputs: ProvingInputs, tests: readonly ProvingTest[]): readonly ClauseCovered[] {
  const { vehicleClass: asks, type, limit } = inputs;
  const by = (...ids: readonly string[]): readonly string[] =>
    tests.filter(({ id }) => ids.some((each) => id === each || id.startsWith(`${each}:`))).map(({ id }) => id);
  const shown = (says: string, ids: readonly string[], otherwise: string): ClauseCovered => ({
    says,
    by: ids,
    because: ids.length > 0 ? '' : otherwise,
  });
  const told = (says: string, because: string): ClauseCovered => ({ says, by: [], because });
  return [
    ...(limit ? [shown(`drive ends at ${limit.words}`, by('end'), 'nothing drives it')] : []),
    ...(asks.throttle === 'none'
      ? [shown('no throttle', by('throttle'), 'none is fitted')]
      : asks.throttle === 'toSpeed' && asks.throttleTo
        ? [shown(`throttle to ${speedWords(asks.throttleTo)}`, by('end:throttle'), 'no throttle drives')]
        : []),
    ...(asks.throttleFrom === 'standstill'
      ? []
      : [shown('no throttle from a standstill', by('throttle:standing'), 'no throttle is fitted')]),
    ...(asks.startAid
      ? [
          shown(
            `start-up aid to ${speedWords(asks.startAid)} at most`,
            by('walk', 'throttle'),
            'no key and no throttle starts it',
          ),
        ]
      : []),
    ...(asks.walk === 'forbidden'
      ? [shown('no walk assist', by('walk'), 'no key of this display starts it')]
      : asks.walkTo
        ? [shown(`walk assist to ${speedWords(asks.walkTo)}`, by('walk'), 'no key of this display starts it')]
        : []),
    ...(asks.cruise === 'forbidden'
      ? [
          shown(
            'no cruise',
            by('cruise'),
            throttleDrives(inputs) ? 'this display has none' : 'no throttle drives that it could hold',
          ),
        ]
      : []),
    ...(asks.walkingMode
      ? [
          shown(
            `a mode to ${speedWords(asks.walkingMode)} where people walk`,
            by('walkingMode'),
            'this display has no modes',
          ),
        ]
      : []),
    ...(asks.cutOnBrake
      ? [shown('each brake lever ends drive', by('brake'), 'no lever of this type has a switch')]
      : []),
    ...(asks.cutOnPedalStop
      ? [
          shown(
            'drive ends with the pedals',
            by('assist:ends'),
            hasAssist(inputs) ? 'not tried' : 'the pedals do not drive it',
          ),
        ]
      : []),
    ...asks.fittings.map((fitting) =>
      shown(
        FITTINGS[fitting],
        by(fitting === 'speedometer' ? 'units' : `fitted:${fitting}`),
        `the type says that none is fitted: ${type.name}`,
      ),
    ),
    ...asks.places.map(({ where, limit: most, keptBy }, i) =>
      shown(
        `${where}: to ${speedWords(most)}`,
        by(`place:${i}`),
        keptBy === 'rider' ? 'the rider keeps to it, and is told' : 'a code keeps to it, and is read back',
      ),
    ),
    ...(asks.power.length > 0 ? [told('power', `read back, and by the label of the motor; ${APPROVAL}`)] : []),
    ...(asks.assistFactor === null
      ? []
      : [told(`assist at most ${asks.assistFactor} times the rider's own`, APPROVAL)]),
    ...(asks.taper ? [told('help grows less towards the limit', APPROVAL)] : []),
    ...(asks.settingsOutOfReach
      ? [
          told(
            'settings out of reach of whoever rides',
            inputs.pinLabels.length > 0 || wordFor(inputs, 'accessPin') !== undefined
              ? 'by the menu PIN, set when it is handed over'
              : 'this display has no PIN: said at the order',
          ),
        ]
      : []),
    ...(asks.brakes > 0
      ? [told(`${asks.brakes} brakes that work without one another`, 'looked at with the checks before delivery')]
      : []),
    ...(asks.labelFields.length > 0 ? [told('a label', 'fixed when it is handed over')] : []),
  ];
}
