import { isNeverLeftOut, proofWords } from '../../prove/proof.js';
import { checkedLine } from '../../setup/inputs/vehicle-class.js';
import type { Actor } from '../evidence.js';
import { refusal, type Refusal } from '../refusals.js';
import { missingForSeal, secondSignature } from '../proving/missing-for-seal.js';
import { provingTermsOf } from '../proving/proving-of.js';
import { stepTitle } from '../steps.js';
import type { VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';
import { checksMissing } from './checks.js';
import { leftToProve } from './prove.js';
import { advance } from './support.js';

/** A step that Decurio does not lead through yet: done by other means, or left out, in words. */
export const stepByHand: ActOf<'stepByHand'> = {
  refuses: (state, { data: { step, done, words }, by }) => {
    if (state.step !== step) return refusal('wrongStep', stepTitle(state.step ?? step).toLowerCase());
    if (step === 'prove' && provingTermsOf(state.opened)) return refusal('leftToProve', leftToProve(state).join(', '));
    const unchecked = step === 'prove' ? checksMissing(state, 'prove') : null;
    if (unchecked) return unchecked;
    if (done) return words.trim() === '' ? refusal('sayHowDone') : null;
    return step === 'prove' ? provesMissed(state, by, words) : null;
  },
  then: (state, deed) => ({
    ...advance(state, deed.data.step, deed),
    byHand: [...state.byHand.filter((one) => one.step !== deed.data.step), deed.data],
  }),
};

/** What the vehicle has to show before it leaves is not left out by the way: some of it never, the rest by a lead, in writing. */
function provesMissed({ opened }: VisitState, by: Actor, words: string): Refusal | null {
  const { proves = [] } = opened.setup;
  if (opened.bench?.proofsStand !== true || proves.length === 0) return null;
  const never = proves.find(isNeverLeftOut);
  if (never) return refusal('neverLeftOut', proofWords(never).tries);
  if (by.role === 'technician')
    return refusal('provedOrDecided', proves.map((proof) => proofWords(proof).tries).join(' '));
  return words.trim() === '' ? refusal('sayWhyNotProved') : null;
}

export const signedOff: ActOf<'signedOff'> = {
  closed: (state, { by }) => missingForSeal(state, by).map(({ refused }) => refused)[0] ?? null,
  then: (state, deed) => {
    // What stands on papers is the check that was signed under, not the one at the opening.
    const { check, classChecked: said = state.opened.order.classChecked } = deed.data;
    const classChecked = check === undefined ? said : checkedLine(check);
    return advance(
      {
        ...state,
        opened: { ...state.opened, order: { ...state.opened.order, classChecked } },
        countersigned: secondSignature(state),
      },
      'signOff',
      deed,
    );
  },
};

/** A second person signs beside the first: anybody but whoever signs off. */
export const countersigned: ActOf<'countersigned'> = {
  then: (state, { seq, by, at, data: { words } }) => ({ ...state, countersigned: { seq, by, words, at } }),
};
