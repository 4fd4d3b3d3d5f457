import { describe, expect, it } from 'vitest';
import { compileSetup } from '../setup/compile/compile-setup.js';
import type { Proof } from '../prove/proof.js';
import type { Setup } from '../setup/setup.js';
import { inputs, pedelec } from '../testing/samples.js';
import { allRead, benchOpening, INES, refusalOf, stateAfter, upToReadBack, type Act } from '../testing/visit-script.js';
import type { EvidenceData } from './evidence.js';

/** As it was before these were asked. */
const without = <T extends object, K extends keyof T>(whole: T, ...keys: readonly K[]): Omit<T, K> =>
  Object.fromEntries(Object.entries(whole).filter(([key]) => !keys.includes(key as K))) as Omit<T, K>;

/** As setups were before a unit was led through its proofs: what it has to show, in words. */
const setupOf = (proves: readonly Proof[]): Setup => {
  const rest = without(compileSetup(inputs({ vehicleClass: pedelec })), 'tests', 'notProved');
  return { ...rest, ...(proves.length > 0 ? { proves } : {}) };
};
const END: Proof = { kind: 'endSpeed', limitKmh: 25, tolerance: 0 };
const LEVERS: Proof = { kind: 'brakeCuts', levers: ['front', 'rear'] };
const PEDALS: Proof = { kind: 'pedalStop', withinS: null };
const earlierTerms = without(benchOpening.bench!, 'proving');

/** Up to Prove, of a visit that was opened before a unit was led through its proofs. */
function upToProve(proves: readonly Proof[], bench: EvidenceData['opened']['bench'] = earlierTerms): readonly Act[] {
  const opening: EvidenceData['opened'] = {
    ...benchOpening,
    ...(bench ? { bench } : {}),
    setup: setupOf(proves),
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

describe('what a class wanted shown, said in words', () => {
  it('is not left out by a technician, and by a lead in writing alone', () => {
    const before = upToProve([END]);
    expect(refusalOf([...before, leftOut()])).toBe('provedOrDecided');
    expect(refusalOf([...before, leftOut('no time')])).toBe('provedOrDecided');
    expect(refusalOf([...before, leftOutBy()])).toBe('sayWhyNotProved');
    expect(refusalOf([...before, leftOutBy('Sampled: unit 4 of 40 was run.')])).toBeNull();
    expect(refusalOf([...before, shown])).toBeNull();
  });

  it.each([LEVERS, PEDALS])('and takes a minute on the stand is left out by nobody (%#)', (asks) => {
    const before = upToProve([asks]);
    expect(refusalOf([...before, leftOut()])).toBe('neverLeftOut');
    expect(refusalOf([...before, leftOutBy('no time')])).toBe('neverLeftOut');
    expect(refusalOf([...before, shown])).toBeNull();
  });

  it('is nothing where the class asks for nothing, and was not asked of earlier visits', () => {
    expect(refusalOf([...upToProve([]), leftOut()])).toBeNull();
    const earliest = without(earlierTerms, 'proofsStand');
    const before = upToProve([END], earliest);
    expect(refusalOf([...before, leftOut()])).toBeNull();
  });

  it('is shown again where another promise asks for something else', () => {
    const proved: readonly Act[] = [...upToProve([END]), shown];
    const revised = (proves: readonly Proof[]): Act => {
      const { order, versions, pack } = benchOpening;
      return ['setupRevised', { why: 'amended', order, versions, pack, setup: setupOf(proves) }];
    };
    expect(stateAfter([...proved, revised([END])]).step).toBe('signOff');
    const again = stateAfter([...proved, revised([END, LEVERS])]);
    expect(again).toMatchObject({ step: 'prove', toKey: [] });
    expect(again.byHand.map(({ step }) => step)).toEqual(['calibrate']);
  });
});
