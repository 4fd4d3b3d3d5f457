import {
  codesWith,
  hasAssist,
  labelsOf,
  standCautions,
  wordFor,
  wordOf,
  YARD_CAUTIONS,
  type ProvingInputs,
} from '../proving-inputs.js';
import type { ProvingTest } from '../proving-test.js';
import { inKmh, speedWords, type Speed } from '../../speed/speed.js';
import { ELECTRONICS, keyAgain, outcomes, repair, testOf } from './test-kit.js';

/** Drive ends within so many seconds of the pedals stopping where a class names no figure. */
const PEDAL_STOP_S = 1;
/** Turns of the cranks within which help begins where no code delays it. */
const TURNS_TO_HELP = 2;
/** Where a class names no speed for it, as slow as people walk. */
const WALKING_PACE: Speed = { value: 6, unit: 'km/h' };

/** Nothing runs by itself; help begins and ends with the pedals; none at level 0; walk assist at its own speed or not at all. */
export const assistTests = (inputs: ProvingInputs): readonly ProvingTest[] => [
  restTest(inputs),
  ...(hasAssist(inputs) ? [beginsTest(inputs), endsTest(inputs)] : []),
  ...levelZeroTest(inputs),
  ...walkTest(inputs),
];

/** Where it would run fastest, in words. */
const fastest = ({ map: { ride } }: ProvingInputs): string =>
  ride?.modes ? ', in the fastest mode' : ride?.levels ? ', at the highest level' : '';

const restTest = (inputs: ProvingInputs): ProvingTest =>
  testOf({
    id: 'rest',
    title: 'Hands off, switched on',
    clauses: ['nothing drives by itself'],
    does: `Switch it on, wheel up${fastest(inputs)}. Touch nothing for five seconds.`,
    watch: outcomes(
      ['still'],
      ['still', 'The wheel stays still'],
      ['creeps', 'It creeps or twitches'],
      ['runs', 'It runs'],
    ),
    cautions: standCautions(inputs),
    isNeverLeftOut: true,
    parts: [...ELECTRONICS, 'throttle', 'pedals', 'motor'],
    cure: repair(
      'controller',
      'Cut power. Something asks for drive by itself: throttle or pedal sensor stuck, or water in a plug. Hold it.',
    ),
  });

function beginsTest(inputs: ProvingInputs): ProvingTest {
  const codes = codesWith(inputs, 'pedalMagnets', 'pedalDelay', 'pedalStartStrength', 'pedalSensitivity');
  const labels = labelsOf(codes);
  const magnets = codesWith(inputs, 'pedalDelay').map((code) =>
    code.encoding.kind === 'line' ? inputs.shows(code) * code.encoding.scale : 0,
  );
  const most = Math.max(TURNS_TO_HELP, Math.ceil(Math.max(0, ...magnets) / (inputs.type.pedalMagnets ?? 1)) + 1);
  return testOf({
    id: 'assist:begins',
    title: 'Turns until help begins',
    labels,
    at: 'yard',
    does: 'From a standstill, middle level: count the turns of the cranks until the push is felt.',
    watch: { kind: 'turns', most },
    cautions: YARD_CAUTIONS,
    sampled: 'sample',
    leansOnLabels: labelsOf(codesWith(inputs, 'driveMode')),
    parts: [...ELECTRONICS, 'pedals', 'motor'],
    cure: keyAgain(labels, 'Help begins late or not at all: magnets counted wrongly, or a sensor that sits askew.'),
  });
}

function endsTest(inputs: ProvingInputs): ProvingTest {
  const { cutOnPedalStop } = inputs.vehicleClass;
  const labels = labelsOf(codesWith(inputs, 'driveMode', 'pedalMagnets', 'pedalSensitivity'));
  return testOf({
    id: 'assist:ends',
    title: 'Seconds until help ends with the pedals',
    clauses: cutOnPedalStop ? ['drive ends when pedalling stops'] : [],
    does: 'Highest level: turn the pedals by hand until the motor pulls, then stop them. Seconds until it no longer pushes.',
    watch: { kind: 'seconds', most: cutOnPedalStop?.withinS ?? PEDAL_STOP_S },
    cautions: standCautions(inputs),
    isNeverLeftOut: true,
    leansOnLabels: labels,
    parts: [...ELECTRONICS, 'pedals', 'motor'],
    cure: repair(
      'pedals',
      'It pushes on after the pedals stop: look at the pedal sensor and its plug, and at the count of magnets.',
    ),
  });
}

function levelZeroTest(inputs: ProvingInputs): readonly ProvingTest[] {
  const codes = codesWith(inputs, 'zeroLevel');
  if (codes.length === 0 || inputs.type.pedalMagnets === null) return [];
  const labels = labelsOf(codes);
  const offered = wordFor(inputs, 'zeroLevel') === 'on';
  return [
    testOf({
      id: 'level:zero',
      title: 'The lowest level',
      labels,
      does: 'Go down as far as the levels go, and turn the pedals by hand.',
      watch: outcomes(
        [offered ? 'none' : 'noZero'],
        ['none', 'It goes down to 0, and there is no help'],
        ['helps', 'It goes down to 0, and it helps'],
        ['noZero', 'It goes no lower than 1'],
      ),
      cautions: standCautions(inputs),
      sampled: 'sample',
      parts: ELECTRONICS,
      cure: keyAgain(labels, 'Level 0 is not as it was set.'),
    }),
  ];
}

/** Walk assist: nothing where it is off; on, no faster than the class lets it. A key that starts the motor is tried although no code answers for it. */
function walkTest(inputs: ProvingInputs): readonly ProvingTest[] {
  const { map, vehicleClass, type } = inputs;
  const codes = codesWith(inputs, 'walk');
  const [danger] = map.dangers;
  if (codes.length === 0 && danger === undefined) return [];
  const labels = labelsOf(codes);
  const isOff =
    vehicleClass.walk === 'forbidden' ||
    (codes.length > 0 && codes.every((code) => wordOf(inputs, code, 'walk') === 'off'));
  const keys =
    danger?.gesture.kind === 'hold'
      ? `Hold ${danger.gesture.keys.map((key) => map.keys.find(({ id }) => id === key)?.label ?? key).join(' and ')}`
      : 'Hold the key that walk assist is on';
  const clauses =
    vehicleClass.walk === 'forbidden'
      ? ['no walk assist']
      : vehicleClass.walkTo
        ? [`walk assist to ${speedWords(vehicleClass.walkTo)}`]
        : [];
  const shared = {
    labels,
    clauses,
    parts: [...ELECTRONICS, 'motor'] as const,
    leansOnLabels: labelsOf(codesWith(inputs, 'wheelSize')),
  };
  if (isOff)
    return [
      testOf({
        ...shared,
        id: 'walk',
        title: `${keys}: walk assist`,
        does: `${keys} for five seconds, wheel up.`,
        watch: outcomes(
          ['still'],
          ['still', 'The wheel stays still'],
          ['runs', 'It runs, slowly'],
          ['fast', 'It runs, fast'],
        ),
        cautions: standCautions(inputs),
        cure: keyAgain(labels, 'Walk assist is not off.'),
      }),
    ];
  const limit = vehicleClass.walkTo ?? WALKING_PACE;
  return [
    testOf({
      ...shared,
      id: 'walk',
      title: labels.length > 0 ? 'Speed of walk assist' : `${keys}: the speed it pushes at`,
      at: 'yard',
      does: `${keys} and walk beside it on the level. True speed once it is steady.`,
      watch: {
        kind: 'speed',
        limitKmh: inKmh(limit),
        words: speedWords(limit),
        tolerance: 0,
        least: 1,
        predictedKmh: null,
        attainableKmh: type.attainableKmh,
        cap: null,
      },
      cautions: ['Walk beside it, both hands on the bar, feet clear of the pedals.'],
      cure: keyAgain(labels, 'Walk assist pushes too fast. Switch it off or set it slower.'),
    }),
  ];
}
