import { ACTS } from './acts/all-acts.js';
import type { ActOf, Who } from './acts/act.js';
import type { Entry, EvidenceKind } from './evidence.js';
import { resume, type Fold } from './fold-visit.js';
import { factsOf } from './kinds.js';
import { refusal, type Refusal } from './refusals.js';
import { stepTitle } from './steps.js';
import { needsSafety, type VisitState } from './visit-state.js';

/**
 * Whether an act may follow what was done so far: null where it may, else why not. What a server accepts; whatever it
 * refuses, `offers` may still have offered, because that does not know what the act will say.
 */
export function decide(state: VisitState, deed: Entry): Refusal | null {
  if (deed.visitId !== state.visitId) return refusal('otherVisit');
  if (deed.seq !== state.seq + 1) return refusal('outOfSequence', deed.seq, state.seq + 1);
  const act = ACTS[deed.kind] as ActOf<EvidenceKind>;
  if (deed.kind === 'undone')
    return elsewhere(state, deed) ?? (state.mayUndo === deed.data.voids ? null : refusal('notUndoable'));
  return closedNow(state, deed.kind, deed) ?? act.refuses?.(state, deed) ?? null;
}

/** Why no act of this kind is offered to this person at this stand now, whatever it would say; null where one is. */
export function offers(state: VisitState, kind: EvidenceKind, who: Who): Refusal | null {
  if (kind === 'undone')
    return elsewhere(state, { kind, station: who.station }) ?? (state.mayUndo === null ? refusal('notUndoable') : null);
  return closedNow(state, kind, who);
}

/** Decides on an act and takes it into the fold. */
export function admit(
  fold: Fold,
  deed: Entry,
): { readonly refused: Refusal } | { readonly refused: null; readonly fold: Fold } {
  const refused = decide(fold.state, deed);
  return refused ? { refused } : { refused: null, fold: resume(fold, deed) };
}

function closedNow(state: VisitState, kind: EvidenceKind, who: Who): Refusal | null {
  const { step, passesHold, handsOn } = factsOf(kind);
  if (state.withdrawn !== null) return refusal('withdrawn');
  if (state.step === null) return refusal('sealed');
  if (state.held && !passesHold) return refusal('held', state.held.words);
  const away = elsewhere(state, { kind, station: who.station });
  if (away) return away;
  if (handsOn && needsSafety(state)) return refusal('notSafe');
  if (step !== null && state.step !== step) return refusal('wrongStep', stepTitle(state.step).toLowerCase());
  return ACTS[kind].closed?.(state, who) ?? null;
}

/** Refuses hands from another stand than the one the unit is on; visits of the first releases know no stands. */
function elsewhere(
  { stand, opened }: VisitState,
  { kind, station }: { readonly kind: EvidenceKind; readonly station: string },
): Refusal | null {
  if (opened.bench === undefined || factsOf(kind).from === 'anywhere' || station === stand.station) return null;
  return refusal('otherStand', stand.station, stand.by.name);
}
