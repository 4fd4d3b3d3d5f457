import { describe, expect, it } from 'vitest';
import { compileSetup } from '../setup/compile/compile-setup.js';
import type { VehicleClass } from '../setup/inputs/vehicle-class.js';
import { inputs, pedelec } from '../testing/samples.js';
import { allRead, benchOpening, INES, refusalOf, stateAfter, upToReadBack, type Act } from '../testing/visit-script.js';
import type { EvidenceData } from './evidence.js';

const setupOf = (over: Partial<VehicleClass>) => compileSetup(inputs({ vehicleClass: { ...pedelec, ...over } }));

/** Up to Prove, under a class that asks for something. */
function upToProve(over: Partial<VehicleClass>, bench = benchOpening.bench): readonly Act[] {
  const opening: EvidenceData['opened'] = {
    ...benchOpening,
    ...(bench ? { bench } : {}),
    setup: setupOf(over),
  };
  return [
    ['opened', opening],
    ...upToReadBack.slice(1),
    ...allRead,
    ['readBackClosed', {}],
    ['stepByHand', { step: 'calibrate', done: false, words: '' }],
  ];
}

const leftOut = (words = ''): Act => ['stepByHand', { step: 'prove', done: false, words }];
const leftOutBy = (words = ''): Act => ['stepByHand', { step: 'prove', done: false, words }, INES];
const shown: Act = ['stepByHand', { step: 'prove', done: true, words: 'Ends at 24.6 by roller.' }];

describe('what the class wants shown', () => {
  it('is not left out by a technician, and by a lead in writing alone', () => {
    const before = upToProve({ endSpeedMeasured: true });
    expect(refusalOf([...before, leftOut()])).toBe('provedOrDecided');
    expect(refusalOf([...before, leftOut('no time')])).toBe('provedOrDecided');
    expect(refusalOf([...before, leftOutBy()])).toBe('sayWhyNotProved');
    expect(refusalOf([...before, leftOutBy('Sampled: unit 4 of 40 was run.')])).toBeNull();
    expect(refusalOf([...before, shown])).toBeNull();
  });

  it.each([{ cutOnBrake: true }, { cutOnPedalStop: { withinS: null } }])(
    'and takes a minute on the stand is left out by nobody (%#)',
    (asks) => {
      const before = upToProve(asks);
      expect(refusalOf([...before, leftOut()])).toBe('neverLeftOut');
      expect(refusalOf([...before, leftOutBy('no time')])).toBe('neverLeftOut');
      expect(refusalOf([...before, shown])).toBeNull();
    },
  );

  it('is nothing where the class asks for nothing, and was not asked of earlier visits', () => {
    expect(refusalOf([...upToProve({}), leftOut()])).toBeNull();
    const earlier = Object.fromEntries(Object.entries(benchOpening.bench!).filter(([term]) => term !== 'proofsStand'));
    const before = upToProve({ endSpeedMeasured: true }, earlier as typeof benchOpening.bench);
    expect(refusalOf([...before, leftOut()])).toBeNull();
  });

  it('is shown again where another promise asks for something else', () => {
    const proved: readonly Act[] = [...upToProve({ endSpeedMeasured: true }), shown];
    const revised = (over: Partial<VehicleClass>): Act => {
      const { order, versions, pack } = benchOpening;
      return ['setupRevised', { why: 'amended', order, versions, pack, setup: setupOf(over) }];
    };
    expect(stateAfter([...proved, revised({ endSpeedMeasured: true })]).step).toBe('signOff');
    const again = stateAfter([...proved, revised({ endSpeedMeasured: true, cutOnBrake: true })]);
    expect(again).toMatchObject({ step: 'prove', toKey: [] });
    expect(again.byHand.map(({ step }) => step)).toEqual(['calibrate']);
  });
});
