import { ok, refuse, type Result } from '../../result.js';
import { targetOf, type CodeTarget } from '../../setup/setup.js';
import type { Deed } from '../evidence.js';
import { STEPS, type StepId } from '../steps.js';
import type { VisitState } from '../visit-state.js';

/** The state after an entry, or why it cannot follow. */
export type Outcome = Result<VisitState>;

/** Does it only while the unit is at this step. */
export function at(state: VisitState, step: StepId, then: () => Outcome): Outcome {
  if (state.step === step) return then();
  const name = STEPS.find((s) => s.id === state.step)?.title ?? '';
  return refuse('wrongStep', `This unit is at ${name.toLowerCase()} now.`);
}

/** The step is done; the next one of this visit is due. */
export function advance(state: VisitState, deed: Pick<Deed, 'at' | 'by'>): VisitState {
  const { steps } = state.opened;
  const here = steps.findIndex((step) => step === state.step);
  const step = state.step;
  if (step === null) return state;
  const done = [...state.done.filter((d) => d.step !== step), { step, at: deed.at, by: deed.by }];
  return { ...state, done, step: steps[here + 1] ?? null };
}

/** Back to a step: it and all after it are to be done again. Stays where the unit has not come that far. */
export function goBack(state: VisitState, to: StepId): VisitState {
  const { steps } = state.opened;
  const here = state.step === null ? steps.length : steps.indexOf(state.step);
  const first = steps.findIndex((step) => step === to);
  if (first < 0 || first >= here) return state;
  return { ...state, step: to, done: state.done.filter((d) => steps.indexOf(d.step) < first) };
}

export function targetFor(state: VisitState, label: string): Result<CodeTarget> {
  const target = targetOf(state.opened.setup, label);
  return target ? ok(target) : refuse('unknownCode', `${label} is not on this display's map.`);
}

export const inMenuOrder = (state: VisitState, labels: ReadonlySet<string>): readonly string[] =>
  state.opened.setup.targets.map((target) => target.label).filter((label) => labels.has(label));

/** A value seen on the glass: no presumption any more. */
export const witness = (state: VisitState, label: string, raw: number): VisitState => ({
  ...state,
  known: { ...state.known, [label]: raw },
  witnessed: new Set([...state.witnessed, label]),
});

/** Witnesses a value, and whether its code is to be keyed follows from it. */
export function see(state: VisitState, { label, raw: target, locked }: CodeTarget, raw: number): VisitState {
  const toKey = new Set(state.toKey);
  if (target === null || target === raw) toKey.delete(label);
  else if (!locked && !state.stuck.has(label)) toKey.add(label);
  return { ...witness(state, label, raw), toKey: inMenuOrder(state, toKey) };
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
