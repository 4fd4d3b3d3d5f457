import { admit } from './decide.js';
import type { Entry, EntryOf, EvidenceData, EvidenceKind } from './evidence.js';
import type { Fold } from './fold-visit.js';
import { whyAnew } from './kinds.js';
import type { VisitState } from './visit-state.js';

/** An entry that nobody has numbered yet. */
export type Unnumbered = { [K in EvidenceKind]: Omit<EntryOf<K>, 'seq'> }[EvidenceKind];

/** Works the setup of a visit out anew, as `setupAnew` does; null where it stays as it is. */
export type ReviseSetup = (state: VisitState, why: string, cause: string) => EvidenceData['setupRevised'] | null;

/**
 * A visit as it will stand once all that waits at a stand was taken, with what the server will write because of it: the
 * setup that it works out anew is worked out from the same. Where the server's turns out otherwise its own stands, and
 * what was done meanwhile is held against that.
 * @param revise null where nothing is known here to work a setup out from
 * @returns null where one of those that wait cannot follow any more
 */
export function visitAhead(known: Fold, waiting: readonly Unnumbered[], revise: ReviseSetup | null): Fold | null {
  let fold: Fold | null = known;
  for (const each of waiting) fold = fold && after(fold, each, revise);
  return fold;
}

/** As a log that stands so numbers it. */
export const numbered = ({ state }: Fold, entry: Unnumbered): Entry => ({ ...entry, seq: state.seq + 1 }) as Entry;

function after(fold: Fold, waiting: Unnumbered, revise: ReviseSetup | null): Fold | null {
  const entry = numbered(fold, waiting);
  const taken = admit(fold, entry);
  if (taken.refused) return null;
  const revision = revisionAhead(taken.fold, entry, revise);
  const next = revision ? admit(taken.fold, revision) : taken;
  return next.refused ? null : next.fold;
}

function revisionAhead({ state }: Fold, cause: Entry, revise: ReviseSetup | null): EntryOf<'setupRevised'> | null {
  const why = whyAnew(cause);
  const data = why === null || state.step === null ? null : (revise?.(state, why, cause.id) ?? null);
  if (data === null) return null;
  const { visitId, at, by, station } = cause;
  return { id: `after ${cause.id}`, visitId, seq: state.seq + 1, kind: 'setupRevised', at, by, station, data };
}
