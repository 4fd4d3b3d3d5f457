import { HttpProblem } from '../problems.js';
import { makeThreads, type ThreadLimits } from '../threads.js';
import type { DeliveryNote } from './delivery-note.js';
import type { DrawTask, SheetTask } from './draw.js';

const LIMITS: ThreadLimits = { atOnce: 2, waitingAtMost: 24, longestMs: 30_000, mostMb: 512 };

/** Draws papers in threads: the server goes on answering meanwhile. Throws `printBusy` or `printStopped`. */
export interface Printer {
  readonly unit: (task: DrawTask, signal?: AbortSignal) => Promise<Buffer>;
  readonly deliveryNote: (note: DeliveryNote, signal?: AbortSignal) => Promise<Buffer>;
  readonly labelSheet: (task: SheetTask, signal?: AbortSignal) => Promise<Buffer>;
  readonly close: () => Promise<void>;
}

export function makePrinter(limits: Partial<ThreadLimits> = {}): Printer {
  const { run, close } = makeThreads(
    'papers/draw.js',
    { ...LIMITS, ...limits },
    (why) => new HttpProblem(why === 'busy' ? 'printBusy' : 'printStopped'),
  );
  return {
    unit: async (task, signal) => Buffer.from(await run<Uint8Array>('unitPapers', task, signal)),
    deliveryNote: async (note, signal) => Buffer.from(await run<Uint8Array>('deliveryNote', note, signal)),
    labelSheet: async (task, signal) => Buffer.from(await run<Uint8Array>('labelSheetPaper', task, signal)),
    close,
  };
}
