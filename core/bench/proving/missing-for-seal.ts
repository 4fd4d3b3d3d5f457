import { isOpen } from '../../setup/setup.js';
import type { Actor } from '../evidence.js';
import { oddWords } from '../visit-remarks.js';
import { refusal, type Refusal } from '../refusals.js';
import type { VisitState } from '../visit-state.js';
import { isSettled, proofsOf, provingTermsOf } from './proving-of.js';

/** One thing that keeps a unit from being sealed, and where it is put right. */
export interface Missing {
  readonly refused: Refusal;
  /** `order`: a lead chooses on the order's page. `lead`: a lead signs instead. `second`: another person signs here. */
  readonly way: 'order' | 'lead' | 'prove' | 'calibrate' | 'second';
  /** The test it is about. */
  readonly test?: string;
}

/** Everything that the log itself knows to be missing before a unit is sealed, what stops it first. Who checked the class is the library's to know. */
export function missingForSeal(state: VisitState, by: Pick<Actor, 'userId' | 'role'>): readonly Missing[] {
  const { opened, calibration } = state;
  const second = secondSignature(state);
  const { findings } = opened.setup;
  const { outOfFamily, result } = calibration;
  const terms = provingTermsOf(opened);
  const proofs = proofsOf(state);
  const endShown = proofs.some(({ test, judgement }) => test.id.startsWith('end:') && judgement.verdict === 'shows');
  return [
    ...findings
      .filter(({ level }) => level === 'stop')
      .map(({ says }): Missing => ({ refused: refusal('stop', says), way: 'order' })),
    ...findings.filter(isOpen).map(({ says }): Missing => ({ refused: refusal('undecided', says), way: 'order' })),
    ...(outOfFamily && by.role === 'technician'
      ? [{ refused: refusal('oddInFamily', oddWords(outOfFamily)), way: 'lead' } as const]
      : []),
    ...proofs
      .filter((proof) => !isSettled(proof))
      .map(({ test }): Missing => ({
        refused: refusal('leftToProve', test.title.toLowerCase()),
        way: 'prove',
        test: test.id,
      })),
    ...(terms && result?.how === 'runs' && result.provisional !== '' && !endShown
      ? [{ refused: refusal('provisionalCap', result.provisional), way: 'calibrate' } as const]
      : []),
    ...(terms?.signers === 'two' && (second === null || second.by.userId === by.userId)
      ? [{ refused: refusal('secondMissing'), way: 'second' } as const]
      : []),
  ];
}

/** Who signed beside, while nothing was written since: what they did not see, they did not sign. */
export const secondSignature = ({ countersigned, seq }: VisitState): VisitState['countersigned'] =>
  countersigned?.seq === seq ? countersigned : null;
