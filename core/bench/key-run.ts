import { isKeyed, type DisplayMap } from '../display/map/display-map.js';
import { idleLimit, simulateDisplay, type DisplayState, type RawValues } from '../display/machine/simulate-display.js';
import { startState, type KeyPlan, type PlanStart, type PlanStep } from '../display/plan/plan-keys.js';
import { targetOf, type Setup } from '../setup/setup.js';
import type { EvidenceData } from './evidence.js';
import type { VisitState } from './visit-state.js';

/** How far one is in the plan of a round of key-in: plain JSON, to be kept where the work is. */
export interface KeyRun {
  /** Codes that this plan brings to their targets. */
  readonly labels: readonly string[];
  readonly start: PlanStart;
  /** Steps of the plan that are done. */
  readonly index: number;
}

/** What happens at the display while a plan is worked. */
export type KeyRunEvent =
  /** Every step up to this one is done. */
  | { readonly kind: 'done'; readonly through: number }
  | { readonly kind: 'menuClosed' }
  /** The glass shows this code at this value, and not what the plan expects. */
  | { readonly kind: 'showsElse'; readonly label: string; readonly raw: number }
  /** This code shows this value, and keys do not move it. */
  | { readonly kind: 'doesNotChange'; readonly label: string; readonly raw: number };

/** An entry that the log gains by it. */
export type KeyRunEntry =
  | { readonly kind: 'codeKeyed'; readonly data: EvidenceData['codeKeyed'] }
  | { readonly kind: 'codeSeen'; readonly data: EvidenceData['codeSeen'] }
  | { readonly kind: 'codeStuck'; readonly data: EvidenceData['codeStuck'] };

export interface KeyRunContext {
  readonly map: DisplayMap;
  /** Of `labels`, from `start`. */
  readonly plan: KeyPlan;
  readonly state: Pick<VisitState, 'toKey' | 'opened'>;
  /** One code a plan, out of the menu again: the next unit in turn comes before the next code. */
  readonly oneCode: boolean;
}

export interface KeyRunStep {
  readonly run: KeyRun;
  readonly entries: readonly KeyRunEntry[];
  /** The plan is through with it. */
  readonly isThrough: boolean;
}

/** The run that a round of key-in begins with. */
export const firstRun = ({ toKey, values: known }: Pick<VisitState, 'toKey' | 'values'>, oneCode: boolean): KeyRun => ({
  labels: some(toKey, oneCode),
  start: { values: known, at: null },
  index: 0,
});

/** Raw targets of these codes. */
export const targetsOf = (labels: readonly string[], setup: Setup): RawValues =>
  Object.fromEntries(
    labels.flatMap((label) => {
      const raw = targetOf(setup, label)?.raw;
      return raw === null || raw === undefined ? [] : [[label, raw]];
    }),
  );

/** One step of a round of key-in: pure. What the display holds after it is what `simulateDisplay` says. */
export function stepKeyRun(run: KeyRun, event: KeyRunEvent, context: KeyRunContext): KeyRunStep {
  const { plan, state } = context;
  const { toKey } = state;
  const replanned = (labels: readonly string[], start: PlanStart): KeyRun => ({ labels, start, index: 0 });
  const on: PlanStep['before'] | undefined = plan.steps[run.index]?.before;
  switch (event.kind) {
    case 'done':
      return doneThrough(run, event.through, context);
    case 'menuClosed': {
      const closedAt = on?.kind === 'menu' ? { closedAt: on.label } : {};
      const values = valuesAfter(run, run.index, context, 'menuClosed');
      return { run: replanned(toKey, { values, at: null, ...closedAt }), entries: [], isThrough: false };
    }
    case 'showsElse': {
      const { label, raw } = event;
      const target = targetOf(state.opened.setup, label);
      const others = toKey.filter((other) => other !== label);
      const isDue = target !== undefined && target.raw !== null && target.raw !== raw && !target.locked;
      const before = valuesAfter(run, run.index, context);
      // It may be on the glass alone: what is to stay there is stored all the same.
      const isToBeStored = target?.raw === raw && before[label] !== raw && !target.locked;
      return {
        run: replanned(
          isDue || isToBeStored ? [...others, label] : others,
          isToBeStored ? { values: before, at: label, shown: raw } : { values: { ...before, [label]: raw }, at: label },
        ),
        entries: [{ kind: 'codeSeen', data: { label, raw } }],
        isThrough: false,
      };
    }
    case 'doesNotChange': {
      const { label, raw } = event;
      const values = { ...valuesAfter(run, run.index, context), [label]: raw };
      const at = on?.kind === 'riding' ? null : label;
      return {
        run: replanned(
          toKey.filter((other) => other !== label),
          { values, at },
        ),
        entries: toKey.includes(label) ? [{ kind: 'codeStuck', data: { label, raw } }] : [],
        isThrough: false,
      };
    }
  }
}

function doneThrough(run: KeyRun, through: number, context: KeyRunContext): KeyRunStep {
  const { plan, state, oneCode } = context;
  const last = Math.min(through, plan.steps.length - 1);
  const entries = plan.steps.slice(run.index, last + 1).flatMap(({ stores }, i) =>
    stores
      .filter(({ label, raw }) => state.toKey.includes(label) && raw === targetOf(state.opened.setup, label)?.raw)
      .map(({ label, raw }): KeyRunEntry => ({
        kind: 'codeKeyed',
        data: {
          label,
          fromRaw: run.start.values[label] ?? raw,
          raw,
          presses: pressesFor(label, plan, run.index + i),
        },
      })),
  );
  const isThrough = last + 1 >= plan.steps.length;
  const rest = state.toKey.filter((label) => !run.labels.includes(label));
  const goesOn = isThrough && rest.length > 0 && plan.unreachable.length === 0;
  return {
    run: goesOn
      ? {
          labels: some(rest, oneCode),
          start: { values: valuesAfter(run, plan.steps.length, context), at: null },
          index: 0,
        }
      : { ...run, index: through + 1 },
    entries,
    isThrough,
  };
}

const some = (labels: readonly string[], oneCode: boolean): readonly string[] =>
  oneCode ? labels.slice(0, 1) : labels;

const pressesFor = (label: string, plan: KeyPlan, index: number): number =>
  plan.steps
    .slice(0, index + 1)
    .filter((step) => step.serves === label && step.purpose !== 'move' && step.gesture.kind !== 'wait').length;

/** Values that the display holds after so many steps of the plan, and where the menu then closed by itself. */
function valuesAfter(
  { start }: KeyRun,
  steps: number,
  { map, plan }: KeyRunContext,
  then?: 'menuClosed',
): Readonly<Record<string, number>> {
  const from = startState(map, start);
  const reached = plan.steps.slice(0, steps).reduce((at, { gesture }) => simulateDisplay(map, at, gesture), from);
  const { stored } = then === 'menuClosed' ? closed(map, reached) : reached;
  const moved = Object.entries(stored).filter(([label, raw]) => from.stored[label] !== raw);
  return { ...start.values, ...Object.fromEntries(moved) };
}

function closed(map: DisplayMap, state: DisplayState): DisplayState {
  const ms = isKeyed(map) ? idleLimit(map, state) : Infinity;
  return Number.isFinite(ms) ? simulateDisplay(map, state, { kind: 'wait', ms }) : state;
}
