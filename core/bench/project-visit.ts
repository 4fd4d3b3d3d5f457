import { shortened } from '../text.js';
import { HOLD_REASONS } from './evidence.js';
import type { VisitState } from './visit-state.js';
import { isLeftOut, oddWords } from './visit-remarks.js';
import { STEPS, type StepId } from './steps.js';

/** One letter per step, in order: done, left out, now, held here, to do, not part of this visit. */
export type LadderMark = 'd' | 'l' | 'n' | 'h' | 't' | 'x';

/** What lists and counts show of a visit, kept beside it so that no list has to fold a log. */
export interface VisitProjection {
  readonly status: 'open' | 'held' | 'sealed' | 'withdrawn';
  readonly step: StepId | null;
  /** Ten letters of `LadderMark`. */
  readonly ladder: string;
  readonly heldReason: string | null;
  readonly heldWords: string | null;
  readonly worker: string;
  readonly station: string;
  /** Why it looks odd among its family; null where it does not. */
  readonly odd: string | null;
  /** What it stands aside for, and until when, ISO 8601; null where it does not, or nobody knows. */
  readonly waits: string | null;
  readonly waitsUntil: string | null;
}

/** Lists show no more of a reason; the log keeps all of it. */
const MOST_WORDS = 1000;
const MOST_WAIT_WORDS = 200;

export function projectVisit(state: VisitState): VisitProjection {
  return {
    status: state.withdrawn !== null ? 'withdrawn' : state.step === null ? 'sealed' : state.held ? 'held' : 'open',
    step: state.step,
    ladder: STEPS.map((step) => mark(state, step.id)).join(''),
    heldReason: state.held ? HOLD_REASONS[state.held.reason] : null,
    heldWords: state.held && shortened(state.held.words, MOST_WORDS),
    worker: state.lastBy.name,
    station: state.lastStation,
    odd: state.calibration.outOfFamily && oddWords(state.calibration.outOfFamily),
    waits: state.proving.wait && !state.held ? shortened(state.proving.wait.words, MOST_WAIT_WORDS) : null,
    waitsUntil: state.held ? null : (state.proving.wait?.dueAt ?? null),
  };
}

/** The ladder of a unit nobody has begun. */
export const untouchedLadder = (steps: readonly StepId[]): string =>
  STEPS.map((step) => (steps.includes(step.id) ? 't' : 'x')).join('');

function mark(state: VisitState, id: StepId): LadderMark {
  if (!state.opened.steps.includes(id)) return 'x';
  if (state.step === id) return state.held ? 'h' : 'n';
  if (!state.done.some((d) => d.step === id)) return 't';
  return isLeftOut(state, id) ? 'l' : 'd';
}
