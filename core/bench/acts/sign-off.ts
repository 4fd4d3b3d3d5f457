import { checkedLine } from '../../setup/inputs/rule-pack.js';
import { isOpen } from '../../setup/setup.js';
import { refusal } from '../refusals.js';
import { oddWords } from '../visit-remarks.js';
import { stepTitle } from '../steps.js';
import type { ActOf } from './act.js';
import { advance } from './support.js';

/** A step that Decurio does not lead through yet: done by other means, or left out, in words. */
export const stepByHand: ActOf<'stepByHand'> = {
  refuses: ({ step: here }, { data: { step, done, words } }) => {
    if (here !== step) return refusal('wrongStep', stepTitle(here ?? step).toLowerCase());
    return done && words.trim() === '' ? refusal('sayHowDone') : null;
  },
  then: (state, deed) => ({
    ...advance(state, deed.data.step, deed),
    byHand: [...state.byHand.filter((one) => one.step !== deed.data.step), deed.data],
  }),
};

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
