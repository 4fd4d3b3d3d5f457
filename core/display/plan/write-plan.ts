import type { Path } from './cheapest-path.js';
import type { KeyedMap } from '../map/display-map.js';
import { glassOf, type DisplayState } from '../machine/display-state.js';
import { idleLimit, simulateDisplay } from '../machine/simulate-display.js';
import { fulfils, keysOf } from '../map/gesture.js';
import type { KeyPlan, PlanStep } from './key-plan.js';
import { gestureMs, type Pace } from './pace.js';
import { isNewToLook, type Move } from './plan-moves.js';

/** Share of a time-out that a gap between presses keeps clear of. */
export const IDLE_MARGIN = 0.2;

/** The plan as it is told: each step with the glass before and after, the code it serves, and what to beware of. */
export function written(map: KeyedMap, from: DisplayState, path: Path<Move>, pace: Pace): KeyPlan {
  let state = from;
  let seen = from;
  let longestGapMs = 0;
  const steps = path.steps.map(({ gesture, purpose }): PlanStep => {
    const before = glassOf(map, state);
    const held = state.stored;
    if (Number.isFinite(idleLimit(map, state)) && gesture.kind !== 'wait')
      longestGapMs = Math.max(longestGapMs, gapMs(gesture, pace));
    state = simulateDisplay(map, state, gesture);
    const stores =
      held === state.stored
        ? []
        : map.codes.flatMap(({ label }) =>
            state.stored[label] === held[label] ? [] : [{ label, raw: state.stored[label] ?? 0 }],
          );
    const after = glassOf(map, state);
    const caution =
      gesture.kind === 'wait'
        ? null
        : (map.dangers.find((danger) => before.kind === 'riding' && nearly(gesture, danger.gesture))?.caution ?? null);
    const ms =
      (gesture.kind === 'wait' ? gesture.ms : gestureMs(pace, gesture)) + (isNewToLook(seen, state) ? pace.lookMs : 0);
    if (after.kind !== 'message') seen = state;
    return { gesture, purpose, serves: null, stores, before, after, caution, ms };
  });
  return {
    steps: served(steps),
    estimatedMs: path.ms,
    longestGapMs,
    unreachable: [],
    isShortest: true,
    atLeastMs: path.ms,
  };
}

const gapMs = (gesture: Exclude<PlanStep['gesture'], { kind: 'wait' }>, pace: Pace): number =>
  pace.lookMs + (gesture.kind === 'hold' ? pace.holdExtraMs : gestureMs(pace, gesture));

/** A press that a slip of one key or of a second turns into the gesture. */
const nearly = (pressed: Exclude<PlanStep['gesture'], { kind: 'wait' }>, danger: PlanStep['gesture']): boolean =>
  danger.kind !== 'wait' &&
  (fulfils(pressed, danger) ||
    (pressed.kind === 'hold' && keysOf(danger).every((key) => keysOf(pressed).includes(key))));

/** Steps up to a change serve the code that is changed next; what comes after the last one leaves. */
function served(steps: readonly PlanStep[]): PlanStep[] {
  let serves: string | null = null;
  const codeAt = (step: PlanStep): string | null => (step.before.kind === 'menu' ? step.before.label : null);
  return [...steps]
    .reverse()
    .map((step) => {
      if (step.purpose === 'change') serves = codeAt(step) ?? serves;
      if (step.purpose === 'store') return { ...step, serves: codeAt(step) };
      return { ...step, serves: step.purpose === 'close' ? null : serves };
    })
    .reverse();
}

/** Whether no gap between two presses comes near the time-out. */
export function keepsClear(map: KeyedMap, from: DisplayState, plan: KeyPlan, pace: Pace): boolean {
  let state = from;
  return plan.steps.every(({ gesture }) => {
    const limit = idleLimit(map, state);
    const isClear = gesture.kind === 'wait' || gapMs(gesture, pace) <= limit * (1 - IDLE_MARGIN);
    state = simulateDisplay(map, state, gesture);
    return isClear;
  });
}
