import { useCallback, useMemo, useState } from 'react';
import {
  firstRun,
  stepKeyRun,
  targetsOf,
  type DisplayMap,
  type KeyPlan,
  type KeyRun as Run,
  type KeyRunEvent,
  type Pace,
  type PlanStep,
  type VisitState,
} from '@decurio/core';
import { usePlan, type PlanJob } from '../../workers/planner.js';
import type { Visit } from '../use-visit.js';

export interface KeyRun {
  readonly plan: KeyPlan;
  readonly index: number;
  /** The press that is due, or null once the plan is through. */
  readonly due: PlanStep | null;
  readonly done: () => void;
  /** All presses up to this one are done. */
  readonly doneThrough: (to: number) => void;
  readonly menuClosed: () => void;
  /** The glass shows this code at this value. */
  readonly showsElse: (label: string, raw: number) => void;
  readonly doesNotChange: (label: string, raw: number) => void;
}

export interface RunOptions {
  /** Plans one code alone, out of the menu again: the next unit in turn comes before the next code. */
  readonly oneCode: boolean;
  /** A plan is through. */
  readonly onCode: () => void;
}

/**
 * Walks the key plan of one round of key-in, writing each code as it is stored; kept on this device, so that leaving the
 * bench loses no press. Null while pace or plan are not there.
 */
export function useKeyRun(
  map: DisplayMap,
  state: VisitState,
  visit: Visit,
  pace: Pace | null,
  { oneCode, onCode }: RunOptions,
): KeyRun | null {
  const keptAt = `decurio.run.${state.visitId}.${state.round}.${state.opened.versions.map.id}`;
  const [run, setRun] = useState<Run>(() => restored(keptAt) ?? firstRun(state, oneCode));
  const keep = useCallback(
    (next: Run) => {
      localStorage.setItem(keptAt, JSON.stringify(next));
      setRun(next);
    },
    [keptAt],
  );
  const { setup } = state.opened;
  const { labels, start } = run;
  const job = useMemo(
    (): PlanJob | null => (pace ? { kind: 'keys', map, targets: targetsOf(labels, setup), start, pace } : null),
    [map, setup, labels, start, pace],
  );
  const plan = usePlan(job);
  if (!plan) return null;

  const on = (event: KeyRunEvent) => {
    const step = stepKeyRun(run, event, { map, plan, state, oneCode });
    for (const { kind, data } of step.entries) void visit.act(kind, data);
    keep(step.run);
    if (step.isThrough) onCode();
  };

  return {
    plan,
    index: run.index,
    due: plan.steps[run.index] ?? null,
    done: () => on({ kind: 'done', through: run.index }),
    doneThrough: (through) => on({ kind: 'done', through }),
    menuClosed: () => on({ kind: 'menuClosed' }),
    showsElse: (label, raw) => on({ kind: 'showsElse', label, raw }),
    doesNotChange: (label, raw) => on({ kind: 'doesNotChange', label, raw }),
  };
}

function restored(keptAt: string): Run | null {
  try {
    const kept = JSON.parse(localStorage.getItem(keptAt) ?? 'null') as Partial<Run> | null;
    return kept?.labels && kept.start && kept.index !== undefined ? (kept as Run) : null;
  } catch {
    return null;
  }
}
