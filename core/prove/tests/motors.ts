import { howDriven, standCautions, type ProvingInputs } from '../proving-inputs.js';
import type { ProvingTest } from '../proving-test.js';
import { ELECTRONICS, outcomes, repair, testOf } from './test-kit.js';

/** Of a vehicle that two motors drive, each does: one that is dead takes half of the push, and of the braking, with it. */
export function motorTests(inputs: ProvingInputs): readonly ProvingTest[] {
  if (inputs.type.motors.length < 2) return [];
  return [
    testOf({
      id: 'motors',
      title: 'Both motors',
      does: `${howDriven(inputs)}. Look at both wheels. Where a rider can choose one motor, choose each alone, then both.`,
      watch: outcomes(
        ['both'],
        ['none', 'Neither wheel turns'],
        ['one', 'The same wheel alone turns, whatever is chosen'],
        ['other', 'Another wheel turns than was chosen'],
        ['both', 'Both turn, and each as chosen'],
      ),
      cautions: standCautions(inputs),
      parts: [...ELECTRONICS, 'motor'],
      cure: repair(
        'motor',
        'One motor stays dead: look whether its connector is home and dry. No cutting into cables: that is for a qualified person.',
      ),
    }),
  ];
}
