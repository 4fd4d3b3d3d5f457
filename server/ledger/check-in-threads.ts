import { availableParallelism } from 'node:os';
import type { DataSource } from 'typeorm';
import { Visits } from '../store/entities.js';
import { makeThreads, type ThreadLimits } from '../threads.js';
import type { CheckedBy } from './verify-ledger.js';

const LIMITS: ThreadLimits = {
  atOnce: availableParallelism(),
  waitingAtMost: 2 * availableParallelism(),
  longestMs: 10 * 60_000,
  mostMb: 1024,
};

/** Fewer visits are through before a thread has begun. */
const WORTH_THREADS = 2_000;

export interface Checkers extends CheckedBy {
  readonly close: () => Promise<void>;
}

/** Has visits recomputed by threads, for a walk over a whole ledger; close it after. @param url of the database */
export function checkInThreads(url: string): Checkers {
  const { run, close } = makeThreads(
    'ledger/walk-worker.js',
    LIMITS,
    (why) => new Error(`The walk could not go on (${why}). Run it again; nothing was changed.`),
  );
  return { check: (ids) => run('visits', { url, ids }), atOnce: LIMITS.atOnce + 2, close };
}

/** By threads where the ledger is large enough for them, else by this one. */
export async function checkersFor({ manager }: DataSource, url: string): Promise<Checkers> {
  const visits = await manager.count(Visits);
  return visits < WORTH_THREADS ? { close: () => Promise.resolve() } : checkInThreads(url);
}
