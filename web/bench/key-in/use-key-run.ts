import { useCallback, useMemo, useState } from 'react';
import {
  targetOf,
  type DisplayMap,
  type KeyPlan,
  type Pace,
  type PlanStart,
  type PlanStep,
  type RawValues,
  type VisitState,
} from '@decurio/core';
import { usePlan, type PlanJob } from '../../workers/planner.js';
import type { Visit } from '../use-visit.js';

/** A plan and how far one is in it; kept on this device, so that leaving the bench loses no press. */
interface Run {
  readonly labels: readonly string[];
  readonly start: PlanStart;
  readonly index: number;
}

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

/** Walks the key plan of one round of key-in, writing each code as it is stored. Null while pace or plan are not there. */
export function useKeyRun(
  map: DisplayMap,
  state: VisitState,
  visit: Visit,
  pace: Pace | null,
  { oneCode, onCode }: RunOptions,
): KeyRun | null {
  const { setup } = state.opened;
  const keptAt = `decurio.run.${state.visitId}.${state.round}.${state.opened.versions.map.id}`;
  const [run, setRun] = useState<Run>(
    () =>
      restored(keptAt) ?? { labels: some(state.toKey, oneCode), start: { values: state.known, at: null }, index: 0 },
  );
  const keep = useCallback(
    (next: Run) => {
      localStorage.setItem(keptAt, JSON.stringify(next));
      setRun(next);
    },
    [keptAt],
  );
  const job = useMemo((): PlanJob | null => {
    if (!pace) return null;
    const targets = Object.fromEntries(
      run.labels.flatMap((label) => {
        const raw = targetOf(setup, label)?.raw;
        return raw === null || raw === undefined ? [] : [[label, raw]];
      }),
    );
    return { kind: 'keys', map, targets, start: run.start, pace };
  }, [map, setup, run.labels, run.start, pace]);
  const plan = usePlan(job);
  if (!plan) return null;

  const due = plan.steps[run.index] ?? null;
  const replan = (labels: readonly string[], start: PlanStart) => keep({ labels, start, index: 0 });
  const shown = shownSoFar(plan, run);

  const doneThrough = (to: number) => {
    for (let index = run.index; index <= to && index < plan.steps.length; index++) {
      for (const { label, raw } of plan.steps[index]?.stores ?? []) {
        if (state.toKey.includes(label) && raw === targetOf(setup, label)?.raw)
          void visit.act('codeKeyed', {
            label,
            fromRaw: run.start.values[label] ?? raw,
            raw,
            presses: pressesFor(label, plan, index),
          });
      }
    }
    const isThrough = to + 1 >= plan.steps.length;
    const rest = state.toKey.filter((label) => !run.labels.includes(label));
    if (isThrough && rest.length > 0 && plan.unreachable.length === 0)
      keep({
        labels: some(rest, oneCode),
        start: { values: shownSoFar(plan, { ...run, index: plan.steps.length }), at: null },
        index: 0,
      });
    else keep({ ...run, index: to + 1 });
    if (isThrough) onCode();
  };

  return {
    plan,
    index: run.index,
    due,
    done: () => doneThrough(run.index),
    doneThrough,
    menuClosed: () => {
      const at = due?.before.kind === 'menu' ? due.before.label : undefined;
      replan(state.toKey, {
        values: closedValues(map, plan, run, shown),
        at: null,
        ...(at === undefined ? {} : { closedAt: at }),
      });
    },
    showsElse: (label, raw) => {
      void visit.act('codeSeen', { label, raw });
      const target = targetOf(setup, label);
      const others = state.toKey.filter((other) => other !== label);
      const isDue = target !== undefined && target.raw !== null && target.raw !== raw && !target.locked;
      replan(isDue ? [...others, label] : others, { values: { ...shown, [label]: raw }, at: label });
    },
    doesNotChange: (label, raw) => {
      if (state.toKey.includes(label)) void visit.act('codeStuck', { label, raw });
      replan(
        state.toKey.filter((other) => other !== label),
        { values: { ...shown, [label]: raw }, at: due?.before.kind === 'riding' ? null : label },
      );
    },
  };
}

const some = (labels: readonly string[], one: boolean): readonly string[] => (one ? labels.slice(0, 1) : labels);

const pressesFor = (label: string, plan: KeyPlan, index: number): number =>
  plan.steps
    .slice(0, index + 1)
    .filter((step) => step.serves === label && step.purpose !== 'move' && step.gesture.kind !== 'wait').length;

/** Values that the display holds after the steps done so far. */
function shownSoFar(plan: KeyPlan, run: Run): RawValues {
  const stored = plan.steps
    .slice(0, run.index)
    .flatMap((step) => step.stores.map(({ label, raw }) => [label, raw] as const));
  return { ...run.start.values, ...Object.fromEntries(stored) };
}

/** The same once the menu has closed by itself: a change not stored is kept or dropped, as the map says. */
function closedValues(map: DisplayMap, plan: KeyPlan, run: Run, shown: RawValues): RawValues {
  if (map.menu?.idle.unstored !== 'keep') return shown;
  const changed = plan.steps
    .slice(0, run.index)
    .flatMap((step) =>
      step.purpose === 'change' && step.after.kind === 'menu' ? [[step.after.label, step.after.raw] as const] : [],
    );
  return { ...shown, ...Object.fromEntries(changed) };
}

function restored(keptAt: string): Run | null {
  try {
    const kept = JSON.parse(localStorage.getItem(keptAt) ?? 'null') as Partial<Run> | null;
    return kept?.labels && kept.start && kept.index !== undefined ? (kept as Run) : null;
  } catch {
    return null;
  }
}
