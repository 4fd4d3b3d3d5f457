import { wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { DisplayMap, KeyPlan, Pace, PlanStart, RawValues } from '@decurio/core';
import type { Planner } from './plan-worker.js';

let planner: Remote<Planner> | null = null;

/** The worker that plans, started when first asked. */
export function thePlanner(): Remote<Planner> {
  planner ??= wrap<Planner>(new Worker(new URL('./plan-worker.ts', import.meta.url), { type: 'module' }));
  return planner;
}

/** What a plan is to be made for; the same object is planned once. */
export type PlanJob =
  | {
      readonly kind: 'keys';
      readonly map: DisplayMap;
      readonly targets: RawValues;
      readonly start: PlanStart;
      readonly pace: Pace;
    }
  /** `labels`: only these codes; all that can be read where left out. */
  | {
      readonly kind: 'readout';
      readonly map: DisplayMap;
      readonly start: PlanStart;
      readonly pace: Pace;
      readonly labels?: readonly string[];
    };

/** The plan for a job, made in the worker; null until it is there. Keep the job the same object while it is the same. */
export function usePlan(job: PlanJob | null): KeyPlan | null {
  const [made, setMade] = useState<{ readonly job: PlanJob; readonly plan: KeyPlan } | null>(null);
  useEffect(() => {
    if (!job) return;
    let isWanted = true;
    void planFor(job).then((plan) => {
      if (isWanted) setMade({ job, plan });
    });
    return () => {
      isWanted = false;
    };
  }, [job]);
  return made !== null && made.job === job ? made.plan : null;
}

const planFor = (job: PlanJob): Promise<KeyPlan> =>
  job.kind === 'keys'
    ? thePlanner().planKeys(job.map, job.targets, job.start, job.pace)
    : thePlanner().planReadout(job.map, job.start, job.pace, job.labels);
