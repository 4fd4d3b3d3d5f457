import type { DisplayMap } from '../display/map/display-map.js';
import { admit } from './decide.js';
import type { Entry, EvidenceKind, EntryOf } from './evidence.js';
import type { Fold } from './fold-visit.js';
import { setupAnew, whyAnew, type SetupGround } from './setup-anew.js';

/** An entry that nobody has numbered yet. */
export type Unnumbered = { [K in EvidenceKind]: Omit<EntryOf<K>, 'seq'> }[EvidenceKind];

/** What a setup is worked out anew from where no server is heard; without a ground none is. */
export interface Bases {
  readonly map: DisplayMap;
  readonly ground: SetupGround | null;
}

/**
 * A visit as it will stand once all that waits at a stand was taken, with what the server will write because of it: the
 * setup that it works out anew is worked out from the same. Where the server's turns out otherwise its own stands, and
 * what was done meanwhile is held against that.
 * @returns null where one of those that wait cannot follow any more
 */
export function visitAhead(known: Fold, waiting: readonly Unnumbered[], bases: Bases): Fold | null {
  let fold: Fold | null = known;
  for (const each of waiting) fold = fold && after(fold, each, bases);
  return fold;
}

/** As a log that stands so numbers it. */
export const numbered = ({ state }: Fold, entry: Unnumbered): Entry => ({ ...entry, seq: state.seq + 1 }) as Entry;

function after(fold: Fold, waiting: Unnumbered, bases: Bases): Fold | null {
  const entry = numbered(fold, waiting);
  const taken = admit(fold, entry);
  if (taken.refused) return null;
  const revision = revisionAhead(taken.fold, entry, bases);
  const next = revision ? admit(taken.fold, revision) : taken;
  return next.refused ? null : next.fold;
}

function revisionAhead({ state }: Fold, cause: Entry, { map, ground }: Bases): EntryOf<'setupRevised'> | null {
  const why = whyAnew(cause);
  if (why === null || ground === null || state.step === null) return null;
  const data = setupAnew(state, map, ground, why, cause.id);
  if (data === null) return null;
  const { visitId, at, by, station } = cause;
  return { id: `after ${cause.id}`, visitId, seq: state.seq + 1, kind: 'setupRevised', at, by, station, data };
}
