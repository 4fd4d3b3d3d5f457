import type { Actor, Received } from '@decurio/core';

/** Who writes, and where they stand. */
export interface Writer {
  readonly by: Actor;
  readonly station: string;
  /** How far the clock there is ahead of this one, seconds, where it is off. */
  readonly clockOffS?: number;
}

/** What the server says of an entry as it takes it. */
export const receivedBy = ({ clockOffS }: Writer, now: Date): Received => ({
  receivedAt: now.toISOString(),
  ...(clockOffS === undefined ? {} : { clockOffS }),
});
