import type { OrderOffer, Remedy } from '@decurio/core';
import { HttpProblem } from '../problems.js';
import { makeThreads, type ThreadLimits, type ThreadRefusal } from '../threads.js';
import type { KeyTask, OfferTask, PlanMade, PlanTask, RemedyTask, ScenarioMade, WhatIfTask } from './worker.js';

const LIMITS: ThreadLimits = { atOnce: 1, waitingAtMost: 16, longestMs: 60_000, mostMb: 512 };
const PROBLEMS = {
  busy: 'planBusy',
  tooLong: 'planStopped',
  stopped: 'planStopped',
  tooMuch: 'planStopped',
} as const satisfies Record<ThreadRefusal, string>;

/** Works plans out, in a thread. Every one throws `planBusy` or `planStopped`. */
export interface Planner {
  readonly makePlan: (task: PlanTask, signal?: AbortSignal) => Promise<PlanMade>;
  readonly whatIf: (task: WhatIfTask, signal?: AbortSignal) => Promise<readonly ScenarioMade[]>;
  readonly remedies: (task: RemedyTask, signal?: AbortSignal) => Promise<readonly Remedy[]>;
  readonly offer: (task: OfferTask, signal?: AbortSignal) => Promise<OrderOffer>;
  /** How long keying takes by its shortest key plan, seconds; 0 where nothing is keyed. */
  readonly keySeconds: (task: KeyTask) => Promise<number>;
  readonly close: () => Promise<void>;
}

export function makePlanner(limits: Partial<ThreadLimits> = {}): Planner {
  const { run, close } = makeThreads(
    'planning/worker.js',
    { ...LIMITS, ...limits },
    (why) => new HttpProblem(PROBLEMS[why]),
  );
  return {
    makePlan: (task, signal) => run('makePlan', task, signal),
    whatIf: (task, signal) => run('whatIf', task, signal),
    remedies: (task, signal) => run('remedies', task, signal),
    offer: (task, signal) => run('offer', task, signal),
    keySeconds: (task) => run('keySeconds', task),
    close,
  };
}
