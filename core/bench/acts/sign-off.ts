import { isNeverLeftOut, proofWords } from '../../prove/proof.js';
import { checkedLine } from '../../setup/inputs/vehicle-class.js';
import { isOpen } from '../../setup/setup.js';
import type { Actor } from '../evidence.js';
import { refusal, type Refusal } from '../refusals.js';
import { oddWords } from '../visit-remarks.js';
import { stepTitle } from '../steps.js';
import type { VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';
import { checksMissing } from './checks.js';
import { advance } from './support.js';

/** A step that Decurio does not lead through yet: done by other means, or left out, in words. */
export const stepByHand: ActOf<'stepByHand'> = {
  refuses: (state, { data: { step, done, words }, by }) => {
    if (state.step !== step) return refusal('wrongStep', stepTitle(state.step ?? step).toLowerCase());
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
  closed: ({ opened: { setup }, calibration }, { by }) => {
    const stop = setup.findings.find((finding) => finding.level === 'stop');
    if (stop) return refusal('stop', stop.says);
    const open = setup.findings.find(isOpen);
    if (open) return refusal('undecided', open.says);
    const { outOfFamily } = calibration;
    return outOfFamily && by.role === 'technician' ? refusal('oddInFamily', oddWords(outOfFamily)) : null;
  },
  then: (state, deed) => {
    // What stands on papers is the check that was signed under, not the one at the opening.
    const { check, classChecked: said = state.opened.order.classChecked } = deed.data;
    const classChecked = check === undefined ? said : checkedLine(check);
    return advance(
      { ...state, opened: { ...state.opened, order: { ...state.opened.order, classChecked } } },
      'signOff',
      deed,
    );
  },
};
