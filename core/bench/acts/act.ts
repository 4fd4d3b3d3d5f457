import type { Actor, EntryOf, EvidenceKind } from '../evidence.js';
import type { Refusal } from '../refusals.js';
import type { VisitState } from '../visit-state.js';

/** A person at a stand. */
export interface Who {
  readonly by: Pick<Actor, 'userId' | 'role'>;
  readonly station: string;
}

/** What one kind of entry means for a visit. */
export interface ActOf<K extends EvidenceKind> {
  /** Why nothing of this kind may happen now, whatever it would say; null where it may be offered. */
  readonly closed?: (state: VisitState, who: Who) => Refusal | null;
  /** Why this very act may not happen; null where it may. */
  readonly refuses?: (state: VisitState, deed: EntryOf<K>) => Refusal | null;
  /** The state after it happened. It does not judge, and never throws, whatever came before. */
  readonly then: (state: VisitState, deed: EntryOf<K>) => VisitState;
}
