import { ok, refuse } from '../../result.js';
import { isOpen } from '../../setup/setup.js';
import type { DeedOf } from '../evidence.js';
import type { VisitState } from '../visit-state.js';
import { advance, at, type Outcome } from './support.js';

/** A step that Decurio does not lead through yet: done by other means, or left out, in words. */
export function stepByHand(state: VisitState, deed: DeedOf<'stepByHand'>): Outcome {
  const { step, done, words } = deed.data;
  return at(state, step, () => {
    if (done && words.trim() === '') return refuse('wordsMissing', 'Say how it was done and what came out.');
    return ok({ ...advance(state, deed), byHand: [...state.byHand.filter((one) => one.step !== step), deed.data] });
  });
}

export function signOff(state: VisitState, deed: DeedOf<'signedOff'>): Outcome {
  const stop = state.opened.setup.findings.find((finding) => finding.level === 'stop');
  if (stop) return refuse('stop', `Cannot be signed off: ${stop.says}`);
  const open = state.opened.setup.findings.find(isOpen);
  if (open) return refuse('undecided', `A lead has to choose first, on the page of the order: ${open.says}`);
  // What stands on papers is the check that was signed under, not the one at the opening.
  const order = { ...state.opened.order, classChecked: deed.data.classChecked ?? state.opened.order.classChecked };
  return ok(advance({ ...state, opened: { ...state.opened, order } }, deed));
}
