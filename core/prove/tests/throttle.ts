import {
  codesWith,
  hasAssist,
  labelsOf,
  standCautions,
  throttleDrives,
  wordFor,
  type ProvingInputs,
} from '../proving-inputs.js';
import type { ProvingTest } from '../proving-test.js';
import { ELECTRONICS, keyAgain, outcomes, repair, testOf } from './test-kit.js';

type Moment = 'standing' | 'rolling' | 'pedalling';

const MOMENTS: Readonly<Record<Moment, { readonly title: string; readonly does: string }>> = {
  standing: {
    title: 'Throttle, standing still',
    does: 'Everything still: open the throttle slowly, all the way.',
  },
  rolling: {
    title: 'Throttle, wheel rolling',
    does: 'Spin the driven wheel by hand, pedals still, and open the throttle while it turns.',
  },
  pedalling: {
    title: 'Throttle, while pedalling',
    does: 'Level 0, or the lowest there is: turn the pedals, and open the throttle while they turn.',
  },
};

/** Whether an open throttle drives at each moment, as it was set; cruise, which holds it; and how the level limits it. */
export function throttleTests(inputs: ProvingInputs): readonly ProvingTest[] {
  if (!inputs.type.throttleFitted) return [];
  const labels = labelsOf(codesWith(inputs, 'driveMode', 'standstillStart'));
  const drives = drivesAt(inputs);
  const moments: readonly Moment[] = [
    'standing',
    'rolling',
    ...(hasAssist(inputs) && drives !== null ? (['pedalling'] as const) : []),
  ];
  return [
    ...moments.map((moment) => momentTest(inputs, moment, drives, labels)),
    ...levelZeroTest(inputs, drives),
    ...scopeTest(inputs, drives),
    ...cruiseTests(inputs, drives),
  ];
}

/** From which moment an open throttle drives; null for never. */
function drivesAt(inputs: ProvingInputs): Moment | null {
  if (!throttleDrives(inputs)) return null;
  const start = wordFor(inputs, 'standstillStart');
  return start === 'rolling' ? 'rolling' : start === 'pedalFirst' ? 'pedalling' : 'standing';
}

const ORDER: readonly Moment[] = ['standing', 'rolling', 'pedalling'];

function momentTest(
  inputs: ProvingInputs,
  moment: Moment,
  drives: Moment | null,
  labels: readonly string[],
): ProvingTest {
  const { vehicleClass, throttle } = inputs;
  const runs = drives !== null && ORDER.indexOf(moment) >= ORDER.indexOf(drives);
  const clause =
    drives === null
      ? vehicleClass.throttle === 'none'
        ? 'no throttle drives'
        : null
      : moment === 'standing' && vehicleClass.throttleFrom !== 'standstill'
        ? 'no drive from a standstill'
        : null;
  const { title, does } = MOMENTS[moment];
  return testOf({
    id: `throttle:${moment}`,
    title,
    labels,
    clauses: clause === null ? [] : [clause],
    first: throttle.unplug ? 'Draw the throttle from its connector, and close the connector against water.' : null,
    does: `${does}${drives === null ? ' At the highest level, and at the lowest.' : ''}`,
    watch: outcomes(
      runs ? ['runs'] : ['still'],
      ['still', moment === 'standing' ? 'The wheel stays still' : 'The motor does not push'],
      ['runs', 'The motor pushes, more as it is opened'],
      ['sudden', 'The motor pushes all at once'],
    ),
    cautions: standCautions(inputs),
    isNeverLeftOut: !runs,
    parts: [...ELECTRONICS, 'throttle', 'motor'],
    cure: throttle.unplug
      ? repair('throttle', 'It is dead only once its plug is drawn: draw it, close the connector, and try again.')
      : runs
        ? keyAgain(labels, 'The throttle does not do what was set.')
        : keyAgain(labels, 'The throttle drives where it must not. Hands off it.'),
  });
}

/** At level 0 a throttle that the level limits gives nothing. */
function levelZeroTest(inputs: ProvingInputs, drives: Moment | null): readonly ProvingTest[] {
  const scope = codesWith(inputs, 'throttleScope');
  const zero = codesWith(inputs, 'zeroLevel');
  if (drives === null || scope.length === 0 || zero.length === 0 || wordFor(inputs, 'zeroLevel') !== 'on') return [];
  const limited = wordFor(inputs, 'throttleScope') !== 'full';
  const labels = labelsOf([...scope, ...zero]);
  return [
    testOf({
      id: 'throttle:zero',
      title: 'Throttle at level 0',
      labels,
      does: 'Level 0, wheel spun by hand: open the throttle.',
      watch: outcomes([limited ? 'still' : 'runs'], ['still', 'The motor does not push'], ['runs', 'The motor pushes']),
      cautions: standCautions(inputs),
      parts: [...ELECTRONICS, 'throttle'],
      cure: keyAgain(labels, 'At level 0 the throttle does not do what was set.'),
    }),
  ];
}

function scopeTest(inputs: ProvingInputs, drives: Moment | null): readonly ProvingTest[] {
  const codes = codesWith(inputs, 'throttleScope');
  if (drives === null || codes.length === 0) return [];
  const labels = labelsOf(codes);
  const full = wordFor(inputs, 'throttleScope') === 'full';
  return [
    testOf({
      id: 'throttle:scope',
      title: 'Throttle at the lowest and the highest level',
      labels,
      does: 'Wheel spun by hand: open the throttle fully at level 1, then at the highest. Watch the speed that the wheel comes to.',
      watch: outcomes(
        [full ? 'same' : 'less'],
        ['less', 'At level 1 it comes to less'],
        ['same', 'It comes to the same at both'],
        ['none', 'It pushes at neither'],
      ),
      cautions: standCautions(inputs),
      sampled: 'sample',
      parts: [...ELECTRONICS, 'throttle'],
      cure: keyAgain(labels, 'The level does not limit the throttle as it was set.'),
    }),
  ];
}

/** Cruise does not hold; or where it is ordered it does, and each way of ending it works. */
function cruiseTests(inputs: ProvingInputs, drives: Moment | null): readonly ProvingTest[] {
  const codes = codesWith(inputs, 'cruise');
  if (codes.length === 0 || drives === null) return [];
  const labels = labelsOf(codes);
  const on = wordFor(inputs, 'cruise') === 'on';
  const clauses = inputs.vehicleClass.cruise === 'forbidden' ? ['no cruise'] : [];
  const hold = testOf({
    id: 'cruise',
    title: 'Cruise',
    labels,
    clauses,
    does: 'Hold the throttle still, half open, for 15 seconds with the wheel turning; then let it go.',
    watch: outcomes(
      [on ? 'holds' : 'ends'],
      ['ends', 'Drive ends with the throttle'],
      ['holds', 'It runs on by itself'],
    ),
    cautions: standCautions(inputs),
    isNeverLeftOut: !on,
    parts: [...ELECTRONICS, 'throttle'],
    cure: keyAgain(
      labels,
      on ? 'Cruise does not hold as ordered.' : 'Cruise holds drive without anybody asking. Brake.',
    ),
  });
  if (!on) return [hold];
  const levers = [...new Set(inputs.type.brakes.filter(({ cutsMotor }) => cutsMotor).map(({ wheel }) => wheel))];
  const ways = [
    ...levers.map((wheel) => ({ id: wheel, does: `draw the ${wheel} brake's lever` })),
    { id: 'throttle', does: 'open the throttle again' },
  ];
  return [
    hold,
    ...ways.map(({ id, does }) =>
      testOf({
        id: `cruise:${id}`,
        title: `Out of cruise: ${does}`,
        labels,
        does: `Let cruise take hold, then ${does}.`,
        watch: outcomes(['ends'], ['ends', 'It lets go at once'], ['holds', 'It runs on']),
        cautions: standCautions(inputs),
        isNeverLeftOut: true,
        parts: [...ELECTRONICS, 'throttle', 'brakes'],
        cure: keyAgain(labels, 'Cruise is not let go. Cut power. Switch cruise off.'),
      }),
    ),
  ];
}
