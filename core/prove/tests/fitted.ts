import type { Fitting } from '../../setup/inputs/vehicle-class.js';
import { FITTINGS } from '../../setup/inputs/vehicle-class.js';
import type { ProvingInputs } from '../proving-inputs.js';
import type { ProvingTest } from '../proving-test.js';
import { outcomes, repair, testOf } from './test-kit.js';

interface Looked {
  readonly does: string;
  readonly right: string;
  readonly all: readonly (readonly [id: string, says: string])[];
}

const LOOKED: Readonly<Partial<Record<Fitting, Looked>>> = {
  frontLight: {
    does: 'Switch the lights on and look at the front light.',
    right: 'steady',
    all: [
      ['dark', 'It stays dark'],
      ['flickers', 'It flickers, or points at the sky'],
      ['steady', 'It is steady and points at the road'],
    ],
  },
  rearLight: {
    does: 'Switch the lights on and look at the rear light.',
    right: 'steady',
    all: [
      ['dark', 'It stays dark'],
      ['flickers', 'It flickers or hangs loose'],
      ['steady', 'It is steady and is seen from behind'],
    ],
  },
  brakeLight: {
    does: 'Draw one brake lever, then the other, and look at the rear.',
    right: 'each',
    all: [
      ['never', 'It never brightens'],
      ['one', 'With one lever alone'],
      ['each', 'With each lever'],
      ['always', 'It is always bright'],
    ],
  },
  indicators: {
    does: 'Work the turn signals to both sides, and walk around it.',
    right: 'both',
    all: [
      ['none', 'None flashes'],
      ['one', 'One side, or one end, stays dark'],
      ['both', 'Front and rear flash on the side chosen'],
    ],
  },
  bell: {
    does: 'Ring the bell, or sound the horn.',
    right: 'loud',
    all: [
      ['silent', 'It is silent'],
      ['faint', 'It is faint'],
      ['loud', 'It is heard across the shop'],
    ],
  },
  reflectors: {
    does: 'Walk around it with a torch: front, rear, wheels and pedals.',
    right: 'all',
    all: [
      ['some', 'One is missing, loose or covered'],
      ['all', 'Each of them throws light back'],
    ],
  },
  mirror: {
    does: 'Sit as a rider and look into the mirror; shake it.',
    right: 'tight',
    all: [
      ['loose', 'It turns by itself'],
      ['tight', 'It stays and shows the road behind'],
    ],
  },
};

/** Everything fitted that a rider relies on, or that the class asks for. The speedometer is looked at with the glass. */
export const fittedTests = ({ type, vehicleClass }: ProvingInputs): readonly ProvingTest[] =>
  type.fittings.flatMap((fitting) => {
    const looked = LOOKED[fitting];
    if (!looked) return [];
    const name = FITTINGS[fitting];
    return [
      testOf({
        id: `fitted:${fitting}`,
        title: name.charAt(0).toUpperCase() + name.slice(1),
        clauses: vehicleClass.fittings.includes(fitting) ? ['the class asks for it'] : [],
        at: 'rest',
        does: looked.does,
        watch: outcomes([looked.right], ...looked.all),
        parts: ['lights', 'display', 'brakes'],
        cure: repair(
          'lights',
          `Mend the ${name}: bulb, plug or bracket. What is wired into the vehicle goes to a qualified person.`,
        ),
      }),
    ];
  });
