import type { SessionView } from '@decurio/contract';
import type { OutboxEntry } from './outbox.js';

/** The next entry that this person may send, the oldest first. */
export const nextToSend = (entries: readonly OutboxEntry[], who: SessionView): OutboxEntry | undefined =>
  entries.find(
    ({ status, userId, station }) => status === 'waiting' && userId === who.userId && station === who.station,
  );
