import { useState } from 'react';
import {
  gestureWords,
  DEFAULT_PACE,
  findCode,
  glassLabel,
  isKeyed,
  type DisplayMap,
  type KeyPlan,
  type PlanStep,
  type RawValues,
} from '@decurio/core';
import { capital } from './capital.js';
import { usePlan, type PlanJob } from '../workers/planner.js';

export interface ReadRoute {
  /** Codes in the order in which the menu shows them. */
  readonly order: readonly string[];
  /** The presses that bring a code on the glass, as a sentence. */
  readonly wayTo: (label: string) => string;
}

/**
 * The quickest way through the codes that are to be read; null while it is being planned. It is planned once for these
 * codes: readings do not change the way, and a form that vanished for a moment would lose a digit.
 */
export function useReadRoute(map: DisplayMap, toRead: readonly string[], known: RawValues): ReadRoute | null {
  const [job] = useState((): PlanJob => ({
    kind: 'readout',
    map,
    start: { values: known, at: null },
    pace: DEFAULT_PACE,
    labels: toRead,
  }));
  const plan = usePlan(isKeyed(map) ? job : null);
  if (!isKeyed(map))
    return {
      order: toRead,
      wayTo: (label) => `Read ${label} again through ${map.instructions?.via ?? 'the connection'}.`,
    };
  return plan && { order: firstShown(plan), wayTo: (label) => wayTo(map, plan, label) };
}

export function firstShown(plan: KeyPlan): readonly string[] {
  return [...new Set(plan.steps.flatMap(({ after }) => (after.kind === 'menu' ? [after.label] : [])))];
}

/** `Hold set and + for 2 s.` or `Tap set 3 times, until the glass shows L4.1.` */
export function wayTo(map: DisplayMap, plan: KeyPlan, label: string): string {
  const steps = plan.steps.filter((step) => step.serves === label);
  const code = findCode(map, label);
  const shows = code ? glassLabel(code) : label;
  if (steps.length === 0) return `Go to ${shows}.`;
  const words = grouped(steps)
    .map(({ step, times }) => stepWords(map, step, times))
    .filter((one, i, all) => one !== '' && one !== all[i - 1]);
  return `${capital(words.join(', then '))}, until the glass shows ${shows}.`;
}

function grouped(steps: readonly PlanStep[]): { readonly step: PlanStep; readonly times: number }[] {
  const groups: { step: PlanStep; times: number }[] = [];
  for (const step of steps) {
    const last = groups.at(-1);
    if (
      last &&
      last.step.purpose === step.purpose &&
      JSON.stringify(last.step.gesture) === JSON.stringify(step.gesture)
    )
      last.times++;
    else groups.push({ step, times: 1 });
  }
  return groups;
}

function stepWords(map: DisplayMap, { gesture, purpose }: PlanStep, times: number): string {
  if (purpose === 'pin') return 'give the PIN';
  if (gesture.kind === 'wait') return 'wait until the message has passed';
  const words = gestureWords(map, gesture);
  return times === 1 ? words : `${words} ${times} times`;
}
