import { dueTests, fullPackAsked, fullPackV, isSettled, proofOf, provingTermsOf } from '../bench/proving/proving-of.js';
import type { EvidenceData } from '../bench/evidence.js';
import type { VisitState } from '../bench/visit-state.js';
import type { Observation, ProvingTest } from '../prove/proving-test.js';
import { shownInOrder } from '../vehicle/in-order.js';

/** What one shows that is not in order. */
export function asItMustNot(test: ProvingTest): Observation {
  const { watch } = test;
  switch (watch.kind) {
    case 'outcome':
      return { kind: 'outcome', outcome: watch.outcomes.find(({ id }) => !watch.right.includes(id))?.id ?? '' };
    case 'speed':
      return {
        kind: 'speed',
        trueKmh: Math.min(watch.attainableKmh * 1.1, watch.limitKmh * 1.1),
        uKmh: 0.05,
        uCommon: 0.002,
        reference: 'roller',
      };
    case 'seconds':
    case 'turns':
      return { kind: watch.kind, figure: watch.most + 3 };
    case 'metres':
      return { kind: 'metres', metres: 6, besideMetres: 4.5 };
    case 'gauge':
      return { kind: 'gauge', meterV: 40, shown: 5 };
    case 'errors':
      return { kind: 'errors', shown: ['E21'] };
  }
}

export type ProvingAct =
  | readonly ['fullRead', EvidenceData['fullRead']]
  | readonly ['proofSeen', EvidenceData['proofSeen']]
  | readonly ['proofAgain', EvidenceData['proofAgain']]
  | readonly ['proved', EvidenceData['proved']];

/** The next act of whoever proves a vehicle in order; null where the unit is not at Prove. */
export function nextProof(state: VisitState): ProvingAct | null {
  if (state.step !== 'prove' || !provingTermsOf(state.opened)) return null;
  const test = dueTests(state).find((each) => !isSettled(proofOf(state, each)));
  if (!test) return ['proved', {}];
  if (proofOf(state, test).judgement.verdict === 'doesNot')
    return ['proofAgain', { test: test.id, mended: null, words: '' }];
  if (test.pack === 'full' && fullPackAsked(state) !== null)
    return ['fullRead', { packV: fullPackV(state.opened) + 0.3, isCharged: true }];
  return ['proofSeen', { test: test.id, seen: shownInOrder(test, state.opened.pack) }];
}

/** Of a 36 V pack. */
export const asItShould = (test: Pick<ProvingTest, 'watch'>): Observation =>
  shownInOrder(test, { chemistry: 'liIon', cellsInSeries: 10, labelV: 36, capacityAh: 13 });
