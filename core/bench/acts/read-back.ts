import { ok, refuse } from '../../result.js';
import { targetOf } from '../../setup/setup.js';
import type { DeedOf } from '../evidence.js';
import { isAgainst, isFinal, type CodeVerdict } from '../judge-readback.js';
import type { StepId } from '../steps.js';
import { judged, type VisitState } from '../visit-state.js';
import { missingPhotos, photosAsked } from './check-in.js';
import { advance, targetFor, type Outcome } from './support.js';

export function readCode(state: VisitState, { data, by }: DeedOf<'codeRead'>): Outcome {
  const target = targetFor(state, data.label);
  if (!target.ok) return target;
  if (state.opened.bench?.otherReader === true && state.keyedBy.has(by.userId))
    return refuse(
      'sameReader',
      'House rules ask for another pair of eyes: whoever keyed this unit does not read it back.',
    );
  const own = state.readings[data.label] ?? [];
  if (!state.toRead.includes(data.label) || isFinal(target.value.raw, own))
    return refuse('notDue', `${data.label} is not waiting to be read.`);
  return ok(judged({ ...state, readings: { ...state.readings, [data.label]: [...own, data.raw] } }));
}

export function closeReadBack(state: VisitState, deed: DeedOf<'readBackClosed'>): Outcome {
  const open = state.verdicts
    .filter((v) => v.verdict === 'notRead' && state.toRead.includes(v.label))
    .map((v) => v.label);
  if (open.length > 0) return refuse('codesLeft', `Still to be read: ${open.join(', ')}.`);
  const against = state.verdicts.filter(isAgainst);
  const missing = missingPhotos(state, 'readBack');
  if (against.length === 0)
    return missing.length > 0 ? refuse('photosMissing', photosAsked(missing)) : ok(advance(state, deed));
  if (state.opened.bench === undefined)
    return ok(holdWhereHopeless(sendBack(advance(state, deed), against), against, deed));
  // Keys cannot help: it stays here with its verdicts until a lead has decided.
  return ok(against.some(isHopeless) ? holdWhereHopeless(state, against, deed) : sendBack(state, against));
}

const isHopeless = ({ verdict }: CodeVerdict): boolean => verdict !== 'differs';

function holdWhereHopeless(
  state: VisitState,
  against: readonly CodeVerdict[],
  { at, by }: DeedOf<'readBackClosed'>,
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
  const lastRead = against.flatMap(({ label, readings: own }) => {
    const last = own.at(-1);
    return last === undefined || last === null ? [] : [[label, last] as const];
  });
  const known = { ...state.known, ...Object.fromEntries(lastRead) };
  return judged({
    ...state,
    step: 'keyIn',
    done: state.done.filter((d) => !DONE_AGAIN.has(d.step)),
    round: state.round + 1,
    known,
    atRoundStart: known,
    readings: Object.fromEntries(Object.entries(state.readings).filter(([label]) => !labels.includes(label))),
    toKey: labels.filter((label) => targetOf(state.opened.setup, label)?.locked !== true),
    toRead: labels,
    keyedThisRound: [],
    keyedBy: new Set(),
    stuck: new Set(),
    held: null,
  });
}
