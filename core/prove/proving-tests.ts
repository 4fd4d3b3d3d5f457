import { orderProofs } from './order-proofs.js';
import type { ProvingInputs } from './proving-inputs.js';
import type { ProvingTest } from './proving-test.js';
import { assistTests } from './tests/assist.js';
import { brakeTests } from './tests/brakes.js';
import { endSpeedTests } from './tests/end-speed.js';
import { fittedTests } from './tests/fitted.js';
import { glassTests } from './tests/glass.js';
import { motorTests } from './tests/motors.js';
import { throttleTests } from './tests/throttle.js';

/**
 * What this very unit has to show, in the order in which it is moved least: from what it will be when it leaves, never a
 * fixed list. Pure; every test is plain data that is kept, and sealed, with the setup it follows from.
 * @see coverageOf for what is read back and not proved, and why
 */
export const provingTests = (inputs: ProvingInputs): readonly ProvingTest[] =>
  orderProofs([
    ...assistTests(inputs),
    ...throttleTests(inputs),
    ...brakeTests(inputs),
    ...motorTests(inputs),
    ...glassTests(inputs),
    ...fittedTests(inputs),
    ...endSpeedTests(inputs),
  ]);
