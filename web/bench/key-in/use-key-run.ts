import { useCallback, useMemo, useState } from 'react';
import { planKeys, targetOf, type DisplayMap, type KeyPlan, type PlanStep, type RawValues, type VisitState } from '@decurio/core';
import type { Visit } from '../use-visit.js';

/** A plan and how far one is in it; kept on this device, so that leaving the bench loses no press. */
interface Run {
  readonly labels: readonly string[];
  readonly values: RawValues;
  readonly at: string | null;
  readonly index: number;
}

export interface KeyRun {
  readonly plan: KeyPlan;
  readonly index: number;
  /** The press that is due, or null once the plan is through. */
  readonly due: PlanStep | null;
  readonly done: () => void;
  readonly menuClosed: () => void;
  /** The glass shows this code at this value. */
  readonly showsElse: (label: string, raw: number) => void;
  readonly doesNotChange: (label: string, raw: number) => void;
}

/** Walks the key plan of one round of key-in, writing each code as it is stored. */
export function useKeyRun(map: DisplayMap, state: VisitState, visit: Visit): KeyRun {
  const { setup } = state.opened;
  const keptAt = `decurio.run.${state.visitId}.${state.round}`;
  const [run, setRun] = useState<Run>(() => restored(keptAt) ?? { labels: state.toKey, values: state.known, at: null, index: 0 });
  const keep = useCallback(
    (next: Run) => {
      localStorage.setItem(keptAt, JSON.stringify(next));
      setRun(next);
    },
    [keptAt],
  );
  const plan = useMemo(() => {
    const targets = Object.fromEntries(run.labels.flatMap((label) => {
      const raw = targetOf(setup, label)?.raw;
      return raw === null || raw === undefined ? [] : [[label, raw]];
    }));
    return planKeys(map, targets, { values: run.values, at: run.at });
  }, [map, setup, run.labels, run.values, run.at]);

  const due = plan.steps[run.index] ?? null;
  const replan = (at: string | null, labels: readonly string[], values: RawValues) => keep({ labels, values, at, index: 0 });

  return {
    plan,
    index: run.index,
    due,
    done: () => {
      if (!due) return;
      if (due.stores !== null && state.toKey.includes(due.stores)) void visit.act('codeKeyed', keyedData(due.stores, plan, run, setup));
      keep({ ...run, index: run.index + 1 });
    },
    menuClosed: () => replan(null, state.toKey, shownSoFar(map, plan, run)),
    showsElse: (label, raw) => {
      void visit.act('codeSeen', { label, raw });
      const target = targetOf(setup, label);
      const others = state.toKey.filter((other) => other !== label);
      const isDue = target !== undefined && target.raw !== null && target.raw !== raw && !target.locked;
      replan(label, isDue ? [...others, label] : others, { ...shownSoFar(map, plan, run), [label]: raw });
    },
    doesNotChange: (label, raw) => {
      if (state.toKey.includes(label)) void visit.act('codeStuck', { label, raw });
      replan(label, state.toKey.filter((other) => other !== label), { ...shownSoFar(map, plan, run), [label]: raw });
    },
  };
}

function keyedData(label: string, plan: KeyPlan, run: Run, setup: VisitState['opened']['setup']) {
  const raw = targetOf(setup, label)?.raw ?? 0;
  const presses = plan.steps.slice(0, run.index + 1).filter((step) => step.serves === label && step.purpose !== 'move').length;
  return { label, fromRaw: run.values[label] ?? raw, raw, presses };
}

/** Values as the display holds them now, if the menu closed at this moment. */
function shownSoFar(map: DisplayMap, plan: KeyPlan, run: Run): RawValues {
  const values: Record<string, number> = { ...run.values };
  const keepsPending = map.menu.store === 'onChange' || map.menu.onTimeout === 'keep';
  for (const step of plan.steps.slice(0, run.index)) {
    const { before, after, stores } = step;
    if (stores !== null && before.kind === 'menu') values[stores] = before.raw;
    if (keepsPending && step.purpose === 'change' && after.kind === 'menu') values[after.label] = after.raw;
  }
  return values;
}

function restored(keptAt: string): Run | null {
  try {
    return JSON.parse(localStorage.getItem(keptAt) ?? 'null') as Run | null;
  } catch {
    return null;
  }
}
