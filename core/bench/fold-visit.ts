import { ok, type Result } from '../result.js';
import { ACTS } from './acts/all-acts.js';
import type { ActOf } from './acts/act.js';
import { openVisit } from './acts/open-visit.js';
import type { Entry, EvidenceKind } from './evidence.js';
import { factsOf } from './kinds.js';
import { refusal, type Refusal } from './refusals.js';
import type { VisitState } from './visit-state.js';

/** A visit while it is folded. */
export interface Fold {
  readonly state: VisitState;
  /** The newest entry that counts. */
  readonly newest: Entry;
  /** As it stood before that entry: what an undo goes back to; null at the opening. */
  readonly before: Fold | null;
}

/**
 * Folds a visit's evidence, oldest first, into its state. It takes what happened and does not judge whether it might:
 * that is `decide`, so that a rule made stricter leaves every old log readable. Refuses only what is no visit: no
 * entries, no opening, a gap, an entry of another visit, a kind that is not known.
 */
export function foldVisit(deeds: readonly Entry[]): Result<VisitState, Refusal> {
  const fold = foldAll(deeds);
  return fold.ok ? ok(fold.value.state) : fold;
}

/** The same, with what an undo needs. */
export function foldAll(deeds: readonly Entry[]): Result<Fold, Refusal> {
  const [first] = deeds;
  if (first === undefined) return { ok: false, problem: refusal('empty') };
  if (first.kind !== 'opened') return { ok: false, problem: refusal('notOpened') };
  let fold: Fold | null = null;
  for (const [index, deed] of deeds.entries()) {
    const problem = noEntryHere(deed, first.visitId, index + 1);
    if (problem) return { ok: false, problem };
    fold = fold === null ? begin(first) : resume(fold, deed);
  }
  return fold ? ok(fold) : { ok: false, problem: refusal('empty') };
}

function noEntryHere(deed: Entry, visitId: string, due: number): Refusal | null {
  if (deed.seq !== due) return refusal('outOfSequence', deed.seq, due);
  if (deed.visitId !== visitId) return refusal('otherVisit');
  return Object.hasOwn(ACTS, deed.kind) ? null : refusal('unknownKind', String(deed.kind));
}

const begin = (deed: Extract<Entry, { kind: 'opened' }>): Fold => ({
  state: written(openVisit(deed), deed, null),
  newest: deed,
  before: null,
});

/** One step of the fold: the visit with one more entry. */
export function resume(fold: Fold, deed: Entry): Fold {
  if (deed.kind === 'undone') {
    const last = lastUndoable(fold);
    const back = last?.newest.id === deed.data.voids && last.before ? last.before : fold;
    return { ...back, state: written(back.state, deed, back) };
  }
  const next = (ACTS[deed.kind] as ActOf<EvidenceKind>).then(fold.state, deed);
  const after = { state: next, newest: deed, before: fold };
  return { ...after, state: written(next, deed, after) };
}

/** What every entry leaves: its number, who wrote it where and when, and what may be taken back. */
const written = (state: VisitState, deed: Entry, fold: Fold | null): VisitState => ({
  ...state,
  stand: standAfter(state, deed),
  seq: deed.seq,
  lastAt: deed.at,
  lastBy: deed.by,
  lastStation: deed.station,
  mayUndo: fold ? (lastUndoable(fold)?.newest.id ?? null) : null,
});

/** The visit with the newest entry that may be taken back, what the server made of that entry left out. */
function lastUndoable(fold: Fold): Fold | null {
  const { mayBeUndone } = factsOf(fold.newest.kind);
  if (mayBeUndone === 'withItsCause') return fold.before && lastUndoable(fold.before);
  return mayBeUndone ? fold : null;
}

/** Its stand, with whoever worked on it last there. */
const standAfter = ({ stand }: VisitState, { kind, station, by }: Entry): VisitState['stand'] =>
  factsOf(kind).from === 'anywhere' || station !== stand.station ? stand : { station, by };
