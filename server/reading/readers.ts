import type { IntakeLibrary } from '../intake/check-order-file.js';
import { HttpProblem } from '../problems.js';
import { makeThreads, type ThreadLimits, type ThreadRefusal } from '../threads.js';
import type { DocumentRead, OrderFileRead, RecordRead } from './worker.js';

const LIMITS: ThreadLimits = { atOnce: 2, waitingAtMost: 16, longestMs: 20_000, mostMb: 384 };
const PROBLEMS = {
  busy: 'readBusy',
  tooLong: 'readTooLong',
  stopped: 'readStopped',
  tooMuch: 'readTooMuch',
} as const satisfies Record<ThreadRefusal, string>;

/** Reads what comes from outside, in threads. Every one throws `readTooLong`, `readTooMuch` or `readBusy`. */
export interface Readers {
  readonly orderFile: (bytes: Buffer, library: IntakeLibrary, signal?: AbortSignal) => Promise<OrderFileRead>;
  readonly record: (bytes: Buffer, signal?: AbortSignal) => Promise<RecordRead>;
  readonly document: (bytes: Buffer, signal?: AbortSignal) => Promise<DocumentRead>;
  readonly close: () => Promise<void>;
}

export function makeReaders(limits: Partial<ThreadLimits> = {}): Readers {
  const { run, close } = makeThreads(
    'reading/worker.js',
    { ...LIMITS, ...limits },
    (why) => new HttpProblem(PROBLEMS[why]),
  );
  return {
    orderFile: (bytes, library, signal) => run('orderFile', { bytes, library }, signal),
    record: (bytes, signal) => run('record', { bytes }, signal),
    document: (bytes, signal) => run('document', { bytes }, signal),
    close,
  };
}
