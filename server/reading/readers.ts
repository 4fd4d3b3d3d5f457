import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import type { IntakeLibrary } from '../intake/check-order-file.js';
import { HttpProblem } from '../problems.js';
import type { DocumentRead, OrderFileRead, RecordRead } from './worker.js';

const AT_ONCE = 2;
const WAITING_AT_MOST = 16;
const LONGEST_MS = 20_000;
const MOST_MB = 384;

/** Reads what comes from outside, in threads. Every one throws `readTooLong`, `readTooMuch` or `readBusy`. */
export interface Readers {
  readonly orderFile: (bytes: Buffer, library: IntakeLibrary, signal?: AbortSignal) => Promise<OrderFileRead>;
  readonly record: (bytes: Buffer, signal?: AbortSignal) => Promise<RecordRead>;
  readonly document: (bytes: Buffer, signal?: AbortSignal) => Promise<DocumentRead>;
  readonly close: () => Promise<void>;
}

export interface ReaderLimits {
  readonly longestMs?: number;
  readonly mostMb?: number;
  /** Hears of threads that ended by themselves. */
  readonly onError?: (error: unknown) => void;
}

/** Threads that begin with the first file and end when idle; each is bounded in time and memory, and can be stopped. */
export function makeReaders({
  longestMs = LONGEST_MS,
  mostMb = MOST_MB,
  onError = () => undefined,
}: ReaderLimits = {}): Readers {
  const pool = new Piscina({
    filename: workerFile(),
    minThreads: 0,
    maxThreads: AT_ONCE,
    idleTimeout: 60_000,
    // What was built resolves as it was built, whatever conditions this process was started under.
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: mostMb },
  });
  // A thread that ends beside any file, as for want of memory while it starts, must not end this process.
  pool.on('error', onError);
  let inHand = 0;
  const run = async <T>(name: string, task: object, signal?: AbortSignal): Promise<T> => {
    if (inHand >= AT_ONCE + WAITING_AT_MOST) throw new HttpProblem('readBusy');
    inHand += 1;
    const tooLong = AbortSignal.timeout(longestMs);
    try {
      return (await pool.run(task, { name, signal: signal ? AbortSignal.any([signal, tooLong]) : tooLong })) as T;
    } catch (error) {
      throw new HttpProblem(problemOf(error, tooLong.aborted));
    } finally {
      inHand -= 1;
    }
  };
  return {
    orderFile: (bytes, library, signal) => run('orderFile', { bytes, library }, signal),
    record: (bytes, signal) => run('record', { bytes }, signal),
    document: (bytes, signal) => run('document', { bytes }, signal),
    close: () => pool.destroy(),
  };
}

function problemOf(error: unknown, isTooLong: boolean): 'readTooLong' | 'readStopped' | 'readTooMuch' {
  if (isTooLong) return 'readTooLong';
  if ((error as Error).name === 'AbortError') return 'readStopped';
  if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY') return 'readTooMuch';
  throw error;
}

/** Threads run what was built, also where the rest runs from its sources. */
function workerFile(): string {
  const beside = fileURLToPath(new URL('./worker.js', import.meta.url));
  return existsSync(beside) ? beside : fileURLToPath(new URL('../dist/reading/worker.js', import.meta.url));
}
