import type { EntryOf, HoldDecision } from '../evidence.js';
import { isAgainst } from '../judge-readback.js';
import { refusal, type Refusal } from '../refusals.js';
import { isAfter, stepTitle, type StepId } from '../steps.js';
import { judged, type VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';
import { packStops } from './check-in.js';
import { withoutBad } from './checks.js';
import { noticeDecided, noticeWords } from './notice.js';
import { toFindFirst } from './as-found.js';
import { sendBack } from './read-back.js';
import { goBack, readable } from './support.js';

export const held: ActOf<'held'> = {
  then: (state, { data, at, by }) => ({ ...state, held: { ...data, at, by } }),
};

/** A lead decides on a held unit, in writing. It went aside meanwhile: its cautions are asked again. */
export const released: ActOf<'released'> = {
  closed: (state, { by }) => {
    if (!state.held) return refusal('notHeld');
    return by.role === 'technician' ? refusal('needsLead') : null;
  },
  refuses: (state, { data: { decision = GO_ON } }) => {
    switch (decision.way) {
      case 'goOn':
        return packStillStops(state);
      case 'accept':
        return notAccepted(state, decision.labels);
      case 'sendBack':
        return notBack(state, decision.to);
    }
  },
  then: (state, deed) => {
    const { decision = GO_ON } = deed.data;
    const notices = noticeDecided(state);
    const free = { ...state, notices, held: stoppedAfter({ ...state, notices }, deed), isSafe: false };
    switch (decision.way) {
      case 'goOn':
        return readAgain({ ...free, checks: withoutBad(free) });
      case 'accept':
        return accept(free, decision.labels, deed);
      case 'sendBack':
        return backTo(free, decision.to);
    }
  },
};

/** A pack that must not be powered is not, whatever anybody writes; too many volts alone were a lead's to decide before. */
function packStillStops(state: VisitState): Refusal | null {
  const { opened, checkedIn } = state;
  if (!opened.bench || !checkedIn) return null;
  const words = packStops(state, checkedIn);
  const isAsked = opened.bench.packRule === 'perCell' || checkedIn.packCondition === 'unsafe';
  return words !== null && isAsked ? refusal('packStops', words) : null;
}

const GO_ON: HoldDecision = { way: 'goOn' };

/** What the setup stops, or a notice that is still open, holds the unit once another hold is decided; a lead who decides on the stop itself has seen it. */
function stoppedAfter({ held, opened, notices }: VisitState, { at, by }: EntryOf<'released'>): VisitState['held'] {
  const stop =
    opened.bench && held?.reason !== 'setup'
      ? opened.setup.findings.find((finding) => finding.level === 'stop')
      : undefined;
  if (stop) return { reason: 'setup', words: stop.says, at, by };
  const notice = notices.find(({ isDecided }) => !isDecided);
  return notice ? { reason: 'notice', words: noticeWords(notice), at, by } : null;
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

function notAccepted({ verdicts }: VisitState, labels: readonly string[]): Refusal | null {
  const other = labels.find((label) => !verdicts.some((v) => v.label === label && isAgainst(v)));
  if (other !== undefined) return refusal('notAgainst', other);
  return labels.length === 0 ? refusal('nothingAccepted') : null;
}

function accept(state: VisitState, labels: readonly string[], { at, by, data }: EntryOf<'released'>): VisitState {
  const accepted = Object.fromEntries(
    state.verdicts
      .filter((v) => isAgainst(v) && labels.includes(v.label))
      .map((v) => [v.label, { raw: v.readings.at(-1) ?? null, words: data.words, by: by.name, on: at.slice(0, 10) }]),
  );
  return judged({ ...state, accepted: { ...state.accepted, ...accepted } });
}

/** Steps a lead can send a unit back to. */
export const SENT_BACK_TO: readonly StepId[] = ['checkIn', 'asFound', 'keyIn', 'readBack'];

function notBack({ opened, step }: VisitState, to: StepId): Refusal | null {
  const isAhead = step !== null && isAfter(to, step);
  const may = SENT_BACK_TO.includes(to) && opened.steps.includes(to) && !isAhead;
  return may ? null : refusal('notBack', stepTitle(to).toLowerCase());
}

function backTo(state: VisitState, to: StepId): VisitState {
  const { opened, verdicts } = state;
  if (to === 'keyIn') {
    const against = verdicts.filter(isAgainst);
    return against.length > 0 ? sendBack(state, against) : goBack(state, 'keyIn');
  }
  const back = goBack(state, to);
  if (to === 'readBack') return judged({ ...back, toRead: readable(opened.setup), readings: {} });
  const again = judged({
    ...back,
    found: {},
    toFind: toFindFirst(opened),
    surprises: [],
    toRead: readable(opened.setup),
    readings: {},
    stuck: [],
  });
  return to === 'checkIn' ? { ...again, checkedIn: null, checks: {} } : again;
}
