import { targetOf, type CodeTarget } from '../../setup/setup.js';
import type { Entry } from '../evidence.js';
import { refusal, type Refusal } from '../refusals.js';
import type { StepId } from '../steps.js';
import type { VisitState } from '../visit-state.js';

/** The step is done; the next one of this visit is due. Unmoved where the unit is at another step. */
export function advance(state: VisitState, step: StepId, deed: Pick<Entry, 'at' | 'by'>): VisitState {
  if (state.step !== step) return state;
  const { steps } = state.opened;
  const done = [...state.done.filter((d) => d.step !== step), { step, at: deed.at, by: deed.by }];
  return { ...state, done, step: steps[steps.indexOf(step) + 1] ?? null };
}

/** Back to a step: it and all after it are to be done again, and no pack is full any more. Stays where the unit has not come that far. */
export function goBack(state: VisitState, to: StepId): VisitState {
  const { steps } = state.opened;
  const here = state.step === null ? steps.length : steps.indexOf(state.step);
  const first = steps.findIndex((step) => step === to);
  if (first < 0 || first >= here) return state;
  return {
    ...state,
    step: to,
    done: state.done.filter((d) => steps.indexOf(d.step) < first),
    proving: { ...state.proving, full: null },
  };
}

export const targetFor = (state: VisitState, label: string): CodeTarget | undefined =>
  targetOf(state.opened.setup, label);

/** Refuses what is said of a code that this display does not have. */
export const unknownCode = (state: VisitState, label: string): Refusal | null =>
  targetFor(state, label) ? null : refusal('unknownCode', label);

export const inMenuOrder = (state: VisitState, labels: ReadonlySet<string>): readonly string[] =>
  state.opened.setup.targets.map((target) => target.label).filter((label) => labels.has(label));

/** A list with one more, once. */
export const withOne = (list: readonly string[], one: string): readonly string[] =>
  list.includes(one) ? list : [...list, one];

/** A value seen on the glass: no presumption any more. */
export const witness = (state: VisitState, label: string, raw: number): VisitState => ({
  ...state,
  values: { ...state.values, [label]: raw },
  witnessed: withOne(state.witnessed, label),
});

/** Witnesses a value, and whether its code is to be keyed follows from it. */
export function see(state: VisitState, { label, raw: target, locked }: CodeTarget, raw: number): VisitState {
  const toKey = new Set(state.toKey);
  if (target === null || target === raw) toKey.delete(label);
  else if (!locked && !state.stuck.includes(label)) toKey.add(label);
  return { ...witness(state, label, raw), toKey: inMenuOrder(state, toKey) };
}

/** What was read of a code does not hold: presumed again to show what it is delivered with. */
export function unsee(state: VisitState, target: CodeTarget): VisitState {
  const { label } = target;
  const presumed = state.opened.factory[label];
  const next = presumed === undefined ? state : see(state, target, presumed);
  return { ...next, witnessed: state.witnessed.filter((each) => each !== label) };
}

/** Codes to be keyed if the unit shows these values. */
export const keyedFrom = (
  setup: VisitState['opened']['setup'],
  known: Readonly<Record<string, number>>,
): readonly string[] =>
  setup.targets.filter((t) => t.raw !== null && !t.locked && t.raw !== known[t.label]).map((t) => t.label);

/** Codes on the glass in the course of the work. */
export const readable = (setup: VisitState['opened']['setup']): readonly string[] =>
  setup.targets.filter((target) => target.offGlass !== true).map((target) => target.label);
