import { availableParallelism } from 'node:os';
import { makeThreads, type ThreadLimits } from '../threads.js';
import type { VisitsCheck } from './verify-ledger.js';

const LIMITS: ThreadLimits = {
  atOnce: availableParallelism(),
  waitingAtMost: 2 * availableParallelism(),
  longestMs: 10 * 60_000,
  mostMb: 1024,
};

/** Has visits recomputed by threads, for a walk over a whole ledger; close it after. @param url of the database */
export function checkInThreads(url: string): {
  readonly check: VisitsCheck;
  readonly atOnce: number;
  readonly close: () => Promise<void>;
} {
  const { run, close } = makeThreads(
    'ledger/walk-worker.js',
    LIMITS,
    (why) => new Error(`The walk could not go on (${why}). Run it again; nothing was changed.`),
  );
  return { check: (rows) => run('visits', { url, rows }), atOnce: LIMITS.atOnce + 2, close };
}
