import { ok, refuse } from '../../result.js';
import type { DeedOf } from '../evidence.js';
import { isAgainst } from '../judge-readback.js';
import { isAfter, stepTitle, type StepId } from '../steps.js';
import { judged, type VisitState } from '../visit-state.js';
import { toFindFirst } from './as-found.js';
import { sendBack } from './read-back.js';
import { goBack, readable, type Outcome } from './support.js';

/** A lead decides on a held unit, in writing. It went aside meanwhile: its cautions are asked again. */
export function release(state: VisitState, deed: DeedOf<'released'>): Outcome {
  if (!state.held) return refuse('notHeld', 'This unit is not held.');
  if (deed.by.role === 'technician') return refuse('needsLead', 'A lead releases a held unit.');
  const { decision = { way: 'goOn' } } = deed.data;
  const free = { ...state, held: stoppedAfter(state, deed), isSafe: false };
  switch (decision.way) {
    case 'goOn':
      if (state.opened.bench && state.checkedIn?.packCondition === 'unsafe')
        return refuse(
          'packUnsafe',
          'A swollen, wet or damaged pack is not powered, whoever signs. Record the new pack under Part replaced, or withdraw the unit.',
        );
      return ok(readAgain(free));
    case 'accept':
      return accept(free, decision.labels, deed);
    case 'sendBack':
      return backTo(free, decision.to);
  }
}

/** What the setup stops holds the unit once another hold is decided; a lead who decides on the stop itself has seen it. */
function stoppedAfter({ held, opened }: VisitState, { at, by }: DeedOf<'released'>): VisitState['held'] {
  const stop =
    opened.bench && held?.reason !== 'setup'
      ? opened.setup.findings.find((finding) => finding.level === 'stop')
      : undefined;
  return stop ? { reason: 'setup', words: stop.says, at, by } : null;
}

/** Where the read-back held it, what disagreed is read once more. */
function readAgain(state: VisitState): VisitState {
  const against = state.step === 'readBack' ? state.verdicts.filter(isAgainst).map((v) => v.label) : [];
  if (against.length === 0) return state;
  return judged({
    ...state,
    toRead: against,
    readings: Object.fromEntries(Object.entries(state.readings).filter(([label]) => !against.includes(label))),
  });
}

function accept(state: VisitState, labels: readonly string[], { at, by, data }: DeedOf<'released'>): Outcome {
  const against = state.verdicts.filter(isAgainst);
  const other = labels.find((label) => !against.some((v) => v.label === label));
  if (other !== undefined)
    return refuse('notAgainst', `${other} is not against its target: there is nothing to accept.`);
  if (labels.length === 0) return refuse('nothingAccepted', 'Say which codes are accepted as they show.');
  const accepted = Object.fromEntries(
    against
      .filter((v) => labels.includes(v.label))
      .map((v) => [v.label, { raw: v.readings.at(-1) ?? null, words: data.words, by: by.name, on: at.slice(0, 10) }]),
  );
  return ok(judged({ ...state, accepted: { ...state.accepted, ...accepted } }));
}

/** Steps a lead can send a unit back to. */
export const SENT_BACK_TO: readonly StepId[] = ['checkIn', 'asFound', 'keyIn', 'readBack'];

function backTo(state: VisitState, to: StepId): Outcome {
  const { opened, step, verdicts } = state;
  if (!SENT_BACK_TO.includes(to) || !opened.steps.includes(to) || (step !== null && isAfter(to, step)))
    return refuse('notBack', `It cannot be sent back to ${stepTitle(to).toLowerCase()}.`);
  if (to === 'keyIn') {
    const against = verdicts.filter(isAgainst);
    return ok(against.length > 0 ? sendBack(state, against) : { ...goBack(state, 'keyIn') });
  }
  const back = goBack(state, to);
  if (to === 'readBack') return ok(judged({ ...back, toRead: readable(opened.setup), readings: {} }));
  const again = judged({
    ...back,
    found: {},
    toFind: toFindFirst(opened),
    surprises: [],
    toRead: readable(opened.setup),
    readings: {},
    stuck: new Set(),
  });
  return ok(to === 'checkIn' ? { ...again, checkedIn: null } : again);
}
