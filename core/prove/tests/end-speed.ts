import { inKmh, speedWords } from '../../speed/speed.js';
import {
  codesWith,
  hasAssist,
  highestLevel,
  labelsOf,
  throttleDrives,
  YARD_CAUTIONS,
  type ProvingInputs,
  type ProvingRide,
} from '../proving-inputs.js';
import type { Cure, ProvingTest } from '../proving-test.js';
import { ELECTRONICS, outcomes, repair, testOf } from './test-kit.js';

interface Combination {
  readonly by: 'assist' | 'throttle';
  readonly ride: ProvingRide;
  readonly limitKmh: number;
  readonly words: string;
}

/** Where drive ends against the ground in every combination a rider can reach, worst first; and where a module keeps it slow. */
export function endSpeedTests(inputs: ProvingInputs): readonly ProvingTest[] {
  // Of those alike the one that comes last: modes are listed from slow to fast.
  const all = combinations(inputs)
    .toReversed()
    .toSorted((a, b) => margin(a) - margin(b));
  return [
    ...all.map((each, i) => endTest(inputs, each, i === 0, all.length === 1)),
    ...walkingModeTest(inputs),
    ...placeTests(inputs),
  ];
}

/** How far under its limit one is expected to end; the least is tried first. */
const margin = ({ ride, limitKmh }: Combination): number => limitKmh - ride.endsKmh;

function combinations(inputs: ProvingInputs): readonly Combination[] {
  const { limit, throttle, rides, vehicleClass } = inputs;
  const byThrottle = throttle.toKmh < (limit?.kmh ?? Infinity);
  const own = byThrottle && vehicleClass.throttleTo ? speedWords(vehicleClass.throttleTo) : (limit?.words ?? '');
  const throttleKmh = Math.min(throttle.toKmh, limit?.kmh ?? Infinity);
  return [
    ...(hasAssist(inputs) && limit
      ? rides.assist.map((ride): Combination => ({ by: 'assist', ride, limitKmh: limit.kmh, words: limit.words }))
      : []),
    ...(throttleDrives(inputs) && throttleKmh !== Infinity
      ? rides.throttle.map((ride): Combination => ({ by: 'throttle', ride, limitKmh: throttleKmh, words: own }))
      : []),
  ];
}

function endTest(
  inputs: ProvingInputs,
  { by, ride, limitKmh, words }: Combination,
  isWorst: boolean,
  isOnly: boolean,
): ProvingTest {
  const { vehicleClass, type } = inputs;
  const { mode, turbo, act, labels, turboLabel, endsKmh, cap } = ride;
  const most = highestLevel(inputs);
  const where = [
    mode ? `mode ${mode.title}` : most > 0 ? `level ${most}` : '',
    act !== null ? `${act} on` : turbo === 'on' ? 'turbo' : '',
    inputs.type.motors.length > 1 ? 'both motors' : '',
  ].filter((part) => part !== '');
  const how =
    by === 'assist'
      ? 'Flat ground, pedals turning steadily. Where the push falls away, take the true speed.'
      : 'Flat ground, throttle fully open. Where the push falls away, take the true speed.';
  return testOf({
    id: `end:${by}${mode ? `:${mode.id}` : ''}${act === null ? '' : ':lifted'}`,
    title: `Where drive ends${where.length > 0 ? `: ${where.join(', ')}` : ''}${by === 'throttle' && hasAssist(inputs) ? ', by throttle' : ''}`,
    labels: [...labels, ...(turboLabel === null ? [] : [turboLabel])],
    clauses: isWorst ? [`drive ends at ${words}`] : [],
    at: 'yard',
    pack: 'full',
    does: `${how}${turbo === 'off' ? ' Try what would give turbo too: it must add nothing.' : ''}`,
    watch: {
      kind: 'speed',
      limitKmh,
      words,
      tolerance: vehicleClass.tolerance,
      least: isWorst ? 2 : 1,
      predictedKmh: Number.isFinite(endsKmh) ? endsKmh : null,
      attainableKmh: type.attainableKmh,
      cap,
    },
    cautions: YARD_CAUTIONS,
    sampled: (isWorst || isOnly) && vehicleClass.endSpeedMeasured ? 'every' : 'sample',
    leansOnLabels: labelsOf(codesWith(inputs, 'wheelSize', 'wheelPulses', 'units')),
    parts: [...ELECTRONICS, 'motor', 'tyre'],
    cure: slower(labels),
  });
}

const slower = (labels: readonly string[]): Cure => ({
  way: 'calibrate',
  labels,
  part: null,
  says: `Drive runs on too far${labels.length > 0 ? ` with ${labels.join(' and ')} as keyed` : ''}. Back to calibrate: say where it fell to zero, and a lower cap follows.`,
});

/** A slow mode that the class wants where people walk. */
function walkingModeTest(inputs: ProvingInputs): readonly ProvingTest[] {
  const { vehicleClass, rides, type } = inputs;
  const all = [...rides.assist, ...rides.throttle].filter(({ mode }) => mode !== null);
  const slowest = all.toSorted((a, b) => a.endsKmh - b.endsKmh)[0];
  if (!vehicleClass.walkingMode || !slowest?.mode) return [];
  const words = speedWords(vehicleClass.walkingMode);
  return [
    testOf({
      id: 'walkingMode',
      title: `Where drive ends in mode ${slowest.mode.title}, for where people walk`,
      labels: slowest.labels,
      clauses: [`a mode to ${words} where people walk`],
      at: 'yard',
      does: `Mode ${slowest.mode.title}, flat ground. Where the push falls away, take the true speed.`,
      watch: {
        kind: 'speed',
        limitKmh: inKmh(vehicleClass.walkingMode),
        words,
        tolerance: 0,
        least: 1,
        predictedKmh: slowest.endsKmh,
        attainableKmh: type.attainableKmh,
        cap: slowest.cap,
      },
      cautions: YARD_CAUTIONS,
      leansOnLabels: labelsOf(codesWith(inputs, 'wheelSize', 'wheelPulses')),
      parts: [...ELECTRONICS, 'motor', 'tyre'],
      cure: slower(slowest.labels),
    }),
  ];
}

/** A module on the vehicle keeps it slow at a place: no code says so. */
const placeTests = (inputs: ProvingInputs): readonly ProvingTest[] =>
  inputs.vehicleClass.places.flatMap(({ where, limit, keptBy }, i) =>
    keptBy === 'module'
      ? [
          testOf({
            id: `place:${i}`,
            title: `Kept slow at ${where}`,
            clauses: [`${where}: to ${speedWords(limit)}, kept by the module`],
            at: 'yard',
            does: `Take it to ${where}, or have the module told that it is there. Drive on.`,
            watch: outcomes(
              ['slow'],
              ['stops', 'It does not drive at all'],
              ['slow', `It drives, no faster than ${speedWords(limit)}`],
              ['fast', 'It drives faster'],
            ),
            cautions: YARD_CAUTIONS,
            sampled: 'sample',
            parts: ['controller', 'firmware'],
            cure: repair('controller', 'The module does not keep it slow there: whoever runs the module looks at it.'),
          }),
        ]
      : [],
  );
