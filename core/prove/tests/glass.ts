import { codesWith, labelsOf, wordFor, type ProvingInputs } from '../proving-inputs.js';
import type { ProvingTest } from '../proving-test.js';
import { keyAgain, outcomes, repair, testOf } from './test-kit.js';

/** Minutes that are waited beyond what is set before it counts as staying on. */
const AUTO_OFF_SLACK_MIN = 2;

/** What the glass shows while riding: units, signs, a gauge that is to be believed, no error; and that it goes dark by itself. */
export const glassTests = (inputs: ProvingInputs): readonly ProvingTest[] => [
  ...unitsTest(inputs),
  ...iconTests(inputs),
  gaugeTest(inputs),
  errorsTest(),
  ...autoOffTest(inputs),
];

function unitsTest(inputs: ProvingInputs): readonly ProvingTest[] {
  const codes = codesWith(inputs, 'units');
  const labels = labelsOf(codes);
  const word = wordFor(inputs, 'units');
  const isAsked = inputs.vehicleClass.fittings.includes('speedometer');
  if (codes.length === 0 && !isAsked && !inputs.type.fittings.includes('speedometer')) return [];
  return [
    testOf({
      id: 'units',
      title: 'Units of the speed shown',
      labels,
      clauses: isAsked ? ['a speedometer'] : [],
      at: 'rest',
      does: 'Look at the glass as a rider sees it: in what is speed shown?',
      watch: outcomes(
        word === 'mph' ? ['mph'] : word === undefined ? ['kmh', 'mph'] : ['kmh'],
        ['none', 'No speed is shown'],
        ['kmh', 'km/h'],
        ['mph', 'mph'],
      ),
      parts: ['display'],
      cure: keyAgain(labels, 'The speed is shown in another unit than was set.'),
    }),
  ];
}

const iconTests = (inputs: ProvingInputs): readonly ProvingTest[] =>
  (inputs.map.icons ?? []).flatMap(({ title, litIf, proves }) => {
    const code = inputs.map.codes.find(({ label }) => label === litIf.code);
    if (!code) return [];
    const isLit = litIf.in.includes(inputs.shows(code));
    return [
      testOf({
        id: `icon:${title}`,
        title: `The sign "${title}"`,
        labels: [code.label],
        at: 'rest',
        does: `Look at the glass as a rider sees it, in every mode: the sign "${title}". ${proves}`,
        watch: outcomes([isLit ? 'lit' : 'dark'], ['dark', 'It is dark'], ['lit', 'It is lit']),
        sampled: 'sample',
        parts: ['display'],
        cure: keyAgain([code.label], `The sign "${title}" tells another value than was set.`),
      }),
    ];
  });

function gaugeTest(inputs: ProvingInputs): ProvingTest {
  const labels = labelsOf(
    codesWith(inputs, 'gaugeMode', 'nominalVoltage', 'packProfile', 'gaugeEmptyV', 'gaugeFullV', 'gaugeStep'),
  );
  return testOf({
    id: 'gauge',
    title: 'Battery shown, beside the meter',
    labels,
    at: 'rest',
    does: 'Standing still, a minute after the last pull: the volts by meter, and what the glass shows.',
    watch: { kind: 'gauge', as: wordFor(inputs, 'gaugeMode') === 'volts' ? 'volts' : 'percent' },
    cautions: ['Meter set to volts before its tips touch; between the terminals only.'],
    sampled: 'sample',
    parts: ['display', 'pack'],
    cure: keyAgain(labels, 'The gauge is not to be believed.'),
  });
}

const errorsTest = (): ProvingTest =>
  testOf({
    id: 'errors',
    title: 'The list of errors',
    clauses: ['no error stands'],
    at: 'rest',
    does: 'Look at the errors that the glass shows or keeps. Type each as it stands, or say that there is none.',
    watch: { kind: 'errors' },
    parts: ['display', 'controller', 'firmware', 'motor'],
    cure: repair(
      'controller',
      'An error stands. Look it up in the paper of this display, mend its cause, and look again; hold it where that is not a plug.',
    ),
  });

function autoOffTest(inputs: ProvingInputs): readonly ProvingTest[] {
  const codes = codesWith(inputs, 'autoOff').filter(({ encoding }) => encoding.kind === 'line');
  const [code] = codes;
  if (code?.encoding.kind !== 'line') return [];
  const raw = inputs.shows(code);
  const { encoding } = code;
  const minutes = encoding.sentinels.some((s) => s.raw === raw && s.means === 'off') ? 0 : raw * encoding.scale;
  if (minutes <= 0) return [];
  const labels = labelsOf(codes);
  return [
    testOf({
      id: 'autoOff',
      title: `Switches itself off after ${minutes} min`,
      labels,
      at: 'rest',
      does: `Leave it on, untouched, for ${minutes} minutes; then look at the glass. It may stand aside meanwhile.`,
      watch: outcomes(
        ['dark'],
        ['early', 'It went dark long before'],
        ['dark', `It went dark by about ${minutes} min`],
        ['on', `It is still on after ${minutes + AUTO_OFF_SLACK_MIN} min`],
      ),
      sampled: 'sample',
      waitsMin: minutes,
      parts: ['display'],
      cure: keyAgain(labels, 'It does not switch itself off as it was set.'),
    }),
  ];
}
