import {
  codesWith,
  howDriven,
  labelsOf,
  standCautions,
  wordOf,
  YARD_CAUTIONS,
  type ProvingInputs,
} from '../proving-inputs.js';
import type { ProvingTest } from '../proving-test.js';
import { ELECTRONICS, keyAgain, outcomes, repair, testOf } from './test-kit.js';

const MOTOR_BRAKING = ['regen', 'modeRegen'] as const;
const WHEELS = ['front', 'rear'] as const;

/** Each lever that should end drive, by itself; and what the motor does when nobody asks it to push. */
export function brakeTests(inputs: ProvingInputs): readonly ProvingTest[] {
  return [...WHEELS.flatMap((wheel) => leverTest(inputs, wheel)), ...coastTests(inputs), ...stoppingTest(inputs)];
}

function leverTest(inputs: ProvingInputs, wheel: (typeof WHEELS)[number]): readonly ProvingTest[] {
  const { type, vehicleClass } = inputs;
  if (!type.brakes.some((brake) => brake.wheel === wheel && brake.cutsMotor)) return [];
  return [
    testOf({
      id: `brake:${wheel}`,
      title: `The ${wheel} brake's lever and the motor`,
      clauses: vehicleClass.cutOnBrake ? [`each brake lever ends drive (${wheel})`] : [],
      does: `${howDriven(inputs)}. While it pulls, draw the ${wheel} brake's lever a little, the other one free.`,
      watch: outcomes(
        ['ends'],
        ['dead', 'It never pulls, lever drawn or not'],
        ['ends', 'Drive ends at once'],
        ['late', 'Drive ends late, or only far along'],
        ['goesOn', 'The motor pushes on'],
      ),
      cautions: standCautions(inputs),
      isNeverLeftOut: true,
      parts: [...ELECTRONICS, 'brakes', 'motor'],
      cure: repair(
        'brakes',
        `Look at the switch of the ${wheel} lever: does the lever come back by itself, is its magnet in place, is the connector home? A switch that sticks keeps the motor dead; one that is open lets it push on. No cutting into cables: that is for a qualified person.`,
      ),
    }),
  ];
}

/** Motor braking while nobody pulls a lever: none where it is off, and as much as was set where it is on. */
function coastTests(inputs: ProvingInputs): readonly ProvingTest[] {
  const codes = codesWith(inputs, ...MOTOR_BRAKING);
  if (codes.length === 0 || inputs.type.motors.every(({ freewheels }) => freewheels)) return [];
  const labels = labelsOf(codes);
  const brakes = MOTOR_BRAKING.some((what) =>
    codesWith(inputs, what).some((code) => !['off', 'none'].includes(wordOf(inputs, code, what) ?? '')),
  );
  return [
    testOf({
      id: 'regen',
      title: 'Motor braking',
      labels,
      at: 'yard',
      does: 'Ride at about 15 km/h, let everything go, and then draw the levers lightly.',
      watch: outcomes(
        [brakes ? 'slows' : 'rolls'],
        ['rolls', 'It rolls on; only the brakes themselves slow it'],
        ['slows', 'The motor slows it, smoothly'],
        ['jerks', 'The motor jerks or grabs'],
      ),
      cautions: [...YARD_CAUTIONS, 'A full pack may refuse to take what the motor gives: brake by hand as well.'],
      sampled: inputs.brakesLess ? 'every' : 'sample',
      parts: [...ELECTRONICS, 'motor', 'pack'],
      cure: keyAgain(labels, 'The motor does not brake as it was set.'),
    }),
  ];
}

/** Motor braking was made weaker: it still stops as one that was delivered. */
function stoppingTest(inputs: ProvingInputs): readonly ProvingTest[] {
  if (!inputs.brakesLess) return [];
  const labels = labelsOf(codesWith(inputs, ...MOTOR_BRAKING));
  return [
    testOf({
      id: 'stops',
      title: 'Metres to a standstill',
      clauses: ['brakes as its kind must, with motor braking made weaker'],
      at: 'yard',
      pack: 'full',
      does: 'From 20 km/h on dry level ground: how many metres to a standstill, beside a unit as delivered.',
      watch: { kind: 'metres' },
      cautions: YARD_CAUTIONS,
      leansOnLabels: labels,
      parts: [...ELECTRONICS, 'motor', 'brakes', 'tyre', 'pack'],
      cure: keyAgain(
        labels,
        'It stops in a longer way than one as delivered. Set motor braking back to what was delivered.',
      ),
    }),
  ];
}
