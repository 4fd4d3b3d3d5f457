import { targetOf } from '../../setup/setup.js';
import type { EntryOf } from '../evidence.js';
import { isAgainst, type CodeVerdict } from '../judge-readback.js';
import { readAnew } from '../last-shown.js';
import { refusal } from '../refusals.js';
import type { StepId } from '../steps.js';
import { judged, type VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';
import { photosMissing } from './check-in.js';
import { advance, targetFor } from './support.js';

export const codeRead: ActOf<'codeRead'> = {
  closed: ({ opened, keyedBy }, { by }) =>
    opened.bench?.otherReader === true && keyedBy.includes(by.userId) ? refusal('sameReader') : null,
  refuses: (state, { data: { label } }) => {
    const target = targetFor(state, label);
    if (!target) return refusal('unknownCode', label);
    const isDue =
      state.toRead.includes(label) && state.verdicts.some((v) => v.label === label && v.verdict === 'notRead');
    return isDue ? null : refusal('notToRead', label);
  },
  then: (state, { data: { label, raw } }) =>
    judged({ ...state, readings: { ...state.readings, [label]: [...(state.readings[label] ?? []), raw] } }),
};

export const readBackClosed: ActOf<'readBackClosed'> = {
  refuses: (state) => {
    const open = state.verdicts
      .filter((v) => v.verdict === 'notRead' && state.toRead.includes(v.label))
      .map((v) => v.label);
    if (open.length > 0) return refusal('leftToRead', open.join(', '));
    return state.verdicts.some(isAgainst) ? null : photosMissing(state, 'readBack');
  },
  then: (state, deed) => {
    const against = state.verdicts.filter(isAgainst);
    if (against.length === 0) return advance(state, 'readBack', deed);
    if (state.opened.bench === undefined)
      return holdWhereHopeless(sendBack(advance(state, 'readBack', deed), against), against, deed);
    // Keys cannot help: it stays here with its verdicts until a lead has decided.
    return against.some(isHopeless) ? holdWhereHopeless(state, against, deed) : sendBack(state, against);
  },
};

const isHopeless = ({ verdict }: CodeVerdict): boolean => verdict !== 'differs';

function holdWhereHopeless(
  state: VisitState,
  against: readonly CodeVerdict[],
  { at, by }: EntryOf<'readBackClosed'>,
): VisitState {
  const words = against.filter(isHopeless).map(hopelessWords).join(' ');
  return words === '' ? state : { ...state, held: { reason: 'code', words, at, by } };
}

const hopelessWords = ({ label, verdict, readings, target }: CodeVerdict): string =>
  verdict === 'notShown'
    ? `${label} is not shown.`
    : `${label} shows ${readings.at(-1)}, must be ${target}, and does not change.`;

const DONE_AGAIN = new Set<StepId>(['keyIn', 'restart', 'readBack']);

/** Back to key-in with only the codes that disagree. */
export function sendBack(state: VisitState, against: readonly CodeVerdict[]): VisitState {
  const labels = against.map((v) => v.label);
  const anew = readAnew(state, labels);
  return judged({
    ...state,
    ...anew,
    step: 'keyIn',
    done: state.done.filter((d) => !DONE_AGAIN.has(d.step)),
    round: state.round + 1,
    atRoundStart: anew.values,
    toKey: labels.filter((label) => targetOf(state.opened.setup, label)?.locked !== true),
    keyedThisRound: [],
    keyedBy: [],
    stuck: [],
    held: null,
  });
}
