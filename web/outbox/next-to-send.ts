import { factsOf } from '@decurio/core';
import { MOST_ENTRIES, type SessionView } from '@decurio/contract';
import type { OutboxEntry } from './outbox.js';

/** Characters of one request at most, well below what the server reads. */
const MOST_LENGTH = 100_000;

/**
 * What this person sends next, the oldest first: one entry, with those of the same visit that wait behind it and go in
 * the same request. Empty where nothing waits.
 */
export function nextToSend(entries: readonly OutboxEntry[], who: SessionView): readonly OutboxEntry[] {
  const own = entries.filter(
    ({ status, userId, station }) => status === 'waiting' && userId === who.userId && station === who.station,
  );
  const [first] = own;
  if (!first || !goesWithOthers(first)) return first ? [first] : [];
  const together: OutboxEntry[] = [];
  let length = 0;
  for (const each of own) {
    length += JSON.stringify(each.entry).length;
    const isNext = each.visitId === first.visitId && each.entry.seq === first.entry.seq + together.length;
    if (!isNext || !goesWithOthers(each) || together.length === MOST_ENTRIES || length > MOST_LENGTH) break;
    together.push(each);
  }
  return together.length > 0 ? together : [first];
}

/** A photograph goes first; what is only a lead's, or is waited for, goes alone. */
const goesWithOthers = ({ entry: { kind } }: OutboxEntry): boolean =>
  kind !== 'photographed' && kind !== 'released' && factsOf(kind).isAwaited === false;
