import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';

/** What threads may take at most. */
export interface ThreadLimits {
  readonly atOnce: number;
  readonly waitingAtMost: number;
  readonly longestMs: number;
  readonly mostMb: number;
  /** Hears of threads that ended by themselves. */
  readonly onError?: (error: unknown) => void;
}

/** Why a task was not done: too many wait, it was stopped, it took too long or too much memory. */
export type ThreadRefusal = 'busy' | 'tooLong' | 'stopped' | 'tooMuch';

export interface Threads {
  /** Runs a function of the worker file. @throws what `refuse` makes of a refusal; what the task itself threw goes through */
  readonly run: <T>(name: string, task: object, signal?: AbortSignal) => Promise<T>;
  readonly close: () => Promise<void>;
}

/**
 * Threads that begin with the first task and end when idle; each is bounded in time and memory, and can be stopped.
 * @param worker the file beside which it runs, as built: `reading/worker.js`
 */
export function makeThreads(
  worker: string,
  { atOnce, waitingAtMost, longestMs, mostMb, onError = () => undefined }: ThreadLimits,
  refuse: (why: ThreadRefusal) => Error,
): Threads {
  const pool = new Piscina({
    filename: workerFile(worker),
    minThreads: 0,
    maxThreads: atOnce,
    idleTimeout: 60_000,
    // What was built resolves as it was built, whatever conditions this process was started under.
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: mostMb },
  });
  // A thread that ends beside any task, as for want of memory while it starts, must not end this process.
  pool.on('error', onError);
  let inHand = 0;
  return {
    run: async <T>(name: string, task: object, signal?: AbortSignal): Promise<T> => {
      if (inHand >= atOnce + waitingAtMost) throw refuse('busy');
      inHand += 1;
      const tooLong = AbortSignal.timeout(longestMs);
      try {
        return (await pool.run(task, { name, signal: signal ? AbortSignal.any([signal, tooLong]) : tooLong })) as T;
      } catch (error) {
        const why = whyOf(error, tooLong.aborted);
        throw why === null ? error : refuse(why);
      } finally {
        inHand -= 1;
      }
    },
    close: () => pool.destroy(),
  };
}

function whyOf(error: unknown, isTooLong: boolean): ThreadRefusal | null {
  if (isTooLong) return 'tooLong';
  if ((error as Error).name === 'AbortError') return 'stopped';
  return (error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY' ? 'tooMuch' : null;
}

/** Threads run what was built, also where the rest runs from its sources. */
function workerFile(worker: string): string {
  const beside = fileURLToPath(new URL(`./${worker}`, import.meta.url));
  return existsSync(beside) ? beside : fileURLToPath(new URL(`./dist/${worker}`, import.meta.url));
}
