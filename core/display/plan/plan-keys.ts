import { cheapestPath, type Path } from './cheapest-path.js';
import { isKeyed, type Code, type DisplayMap, type KeyedMap } from '../map/display-map.js';
import {
  codeShown,
  displayAtCode,
  displayAtRest,
  glassOf,
  shownValue,
  type DisplayState,
  type RawValues,
} from '../machine/display-state.js';
import type { KeyPlan, PlanStart, PlanStep, Unreachable } from './key-plan.js';
import { DEFAULT_PACE, gestureMs, type Pace } from './pace.js';
import { fulfils, keysOf } from '../map/gesture.js';
import { isNewToLook, moves, runOf, type Move, type Run } from './plan-moves.js';
import { idleLimit, simulateDisplay } from '../machine/simulate-display.js';
import { begin, editBound } from './edit-bound.js';
import { jobOf, standsAt, type Job } from './key-job.js';
import { travelBound } from './travel-bound.js';
import { outOfReach } from './unreachable.js';
import { valuePath } from './value-path.js';

export { DEFAULT_PACE, type Pace } from './pace.js';
export {
  pressCount,
  type KeyPlan,
  type PlanGesture,
  type PlanStart,
  type PlanStep,
  type StepPurpose,
  type Unreachable,
} from './key-plan.js';

/** Share of a time-out that a gap between presses keeps clear of. */
export const IDLE_MARGIN = 0.2;

/**
 * The sequence of presses, cheapest at this pace, that brings every reachable target into store, changes nothing else
 * and leaves the menu. Every step is run through `simulateDisplay`: what a plan says the glass shows is what that
 * machine shows. A gap between two presses keeps `IDLE_MARGIN` clear of the time-out; at a pace that cannot, nothing is
 * planned and every code says so.
 *
 * An action is run only where 1 is its own target; one that restores the maker's values comes before all else.
 *
 * @param targets raw value per code label; codes not named are left as they are
 * @param start   a state of the display, or what is known of it; values missing there are taken as the maker delivers them
 */
export function planKeys(
  map: DisplayMap,
  targets: RawValues,
  start: PlanStart | DisplayState,
  pace: Pace = DEFAULT_PACE,
): KeyPlan {
  const from = 'screen' in start ? start : startState(map, start);
  const restoring = map.codes.find((code) => code.action === 'restoreDefaults' && targets[code.label] === 1);
  if (restoring && isKeyed(map)) return restoredFirst(map, from, restoring, targets, pace);
  const due = map.codes.filter(
    (code) => targets[code.label] !== undefined && targets[code.label] !== from.stored[code.label],
  );
  if (!isKeyed(map))
    return nothing(due.map(({ label }) => ({ label, why: `${label} is set by instruction, not by keys.` })));
  const isBusy = from.screen.kind !== 'riding' && from.screen.kind !== 'off';
  if (due.length === 0 && !isBusy) return nothing([]);
  const barred = outOfReach(map, from, targets);
  const search = bestPath(map, from, without(targets, barred), pace);
  if (search === 'tooMany') return inTurn(map, from, targets, barred, pace);
  const plan = search ? written(map, from, search, pace) : null;
  if (plan && keepsClear(map, from, plan, pace)) return { ...plan, unreachable: barred };
  if (plan) return nothing(due.map(({ label }) => ({ label, why: tooSlow(plan.longestGapMs) })));
  return planWithoutHopeless(map, from, targets, barred, pace);
}

/** The maker's values first, in the same opening of the menu; then the targets, from what the display holds after it. */
function restoredFirst(map: KeyedMap, from: DisplayState, action: Code, targets: RawValues, pace: Pace): KeyPlan {
  const barred = outOfReach(map, from, { [action.label]: 1 });
  const rest = Object.fromEntries(Object.entries(targets).filter(([label]) => label !== action.label));
  const path = barred.length === 0 ? bestPath(map, from, { [action.label]: 1 }, pace, 'inTheMenu') : null;
  if (!path || path === 'tooMany') {
    const plan = planKeys(map, rest, from, pace);
    return {
      ...plan,
      unreachable: [
        ...(barred.length > 0
          ? barred
          : [{ label: action.label, why: `No sequence of keys runs ${action.label} on this display.` }]),
        ...plan.unreachable,
      ],
    };
  }
  const first = written(map, from, path, pace);
  const after = first.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), from);
  const then = planKeys(map, rest, after, pace);
  return {
    steps: [...first.steps, ...then.steps],
    estimatedMs: first.estimatedMs + then.estimatedMs,
    longestGapMs: Math.max(first.longestGapMs, then.longestGapMs),
    unreachable: then.unreachable,
    isShortest: then.isShortest,
  };
}

const nothing = (unreachable: readonly Unreachable[]): KeyPlan => ({
  steps: [],
  estimatedMs: 0,
  longestGapMs: 0,
  unreachable,
  isShortest: true,
});

const tooSlow = (gapMs: number): string =>
  `At this pace ${(gapMs / 1000).toFixed(1)} s pass between two presses, too near to the time-out. Practise first, or plan at the usual pace.`;

function without(targets: RawValues, barred: readonly Unreachable[]): RawValues {
  const out = new Set(barred.map(({ label }) => label));
  return Object.fromEntries(Object.entries(targets).filter(([label]) => !out.has(label)));
}

/**
 * Codes that influence one another in too many ways to try them all: first what nothing else moves, then, from what the
 * display holds after it, the rest. A good plan, not proved to be the cheapest.
 */
function inTurn(
  map: KeyedMap,
  from: DisplayState,
  targets: RawValues,
  barred: readonly Unreachable[],
  pace: Pace,
): KeyPlan {
  const moved = new Set(
    map.codes.flatMap((code) => (targets[code.label] === undefined ? [] : (code.influences ?? []).map((i) => i.code))),
  );
  const wanted = without(targets, barred);
  const free = Object.fromEntries(Object.entries(wanted).filter(([label]) => !moved.has(label)));
  const isStuck = Object.entries(free).every(([label, raw]) => from.stored[label] === raw);
  if (isStuck)
    return nothing([
      ...barred,
      ...Object.keys(wanted)
        .filter((label) => wanted[label] !== from.stored[label])
        .map((label) => ({
          label,
          why: `${label} hangs together with other codes in too many ways to be planned: key it by itself.`,
        })),
    ]);
  const first = planKeys(map, free, from, pace);
  const after = first.steps.reduce((state, step) => simulateDisplay(map, state, step.gesture), from);
  const then = planKeys(map, without(wanted, first.unreachable), after, pace);
  return {
    steps: [...first.steps, ...then.steps],
    estimatedMs: first.estimatedMs + then.estimatedMs,
    longestGapMs: Math.max(first.longestGapMs, then.longestGapMs),
    unreachable: [...barred, ...first.unreachable, ...then.unreachable],
    isShortest: false,
  };
}

/** No path to all targets: those that cannot be reached alone are named, and the rest is planned. */
function planWithoutHopeless(
  map: KeyedMap,
  from: DisplayState,
  targets: RawValues,
  barred: readonly Unreachable[],
  pace: Pace,
): KeyPlan {
  const named = [...barred];
  for (const [label, raw] of Object.entries(without(targets, barred))) {
    const alone = Object.fromEntries(Object.keys(targets).map((other) => [other, from.stored[other] ?? 0]));
    if (raw !== from.stored[label] && !bestPath(map, from, { ...alone, [label]: raw }, pace)) {
      named.push({ label, why: `No sequence of keys brings ${label} to ${raw} on this display.` });
    }
  }
  const path = bestPath(map, from, without(targets, named), pace);
  if (path === 'tooMany') return inTurn(map, from, targets, named, pace);
  if (path) return { ...written(map, from, path, pace), unreachable: named };
  const rest = Object.keys(without(targets, named)).filter((label) => targets[label] !== from.stored[label]);
  return nothing([
    ...named,
    ...rest.map((label) => ({ label, why: `${label} cannot be brought to its target together with the others.` })),
  ]);
}

/** The display as the plan's start describes it. */
export function startState(map: DisplayMap, start: PlanStart): DisplayState {
  const rest = displayAtRest(map, start.values);
  const riding = start.mode === undefined ? rest : { ...rest, mode: start.mode };
  if (start.off) return { ...riding, screen: { kind: 'off' } };
  if (!isKeyed(map)) return riding;
  const resumed =
    start.closedAt !== undefined && map.menu.idle.reopensAt === 'same'
      ? displayAtCode(map, riding, start.closedAt)?.screen
      : undefined;
  const closed = resumed?.kind === 'menu' ? { ...riding, resume: { page: resumed.page, item: resumed.item } } : riding;
  return (start.at === null ? null : displayAtCode(map, closed, start.at, start.focus)) ?? closed;
}

/** Nodes looked at before a search for the very cheapest gives up: about a second's work. Maps whose codes leave one another alone need a few hundred. */
const MOST_NODES = 5_000;

function bestPath(
  map: KeyedMap,
  from: DisplayState,
  targets: RawValues,
  pace: Pace,
  end: 'outOfTheMenu' | 'inTheMenu' = 'outOfTheMenu',
): Path<Move> | null | 'tooMany' {
  const job = jobOf(map, from, targets);
  const editMs = editBound(map, job, pace);
  const travelMs = travelBound(map, pace);
  const standing = standings(job);
  return cheapestPath<DisplayState, Move>({
    start: { ...from, ran: [] },
    isGoal: (state) =>
      state.screen.kind === (end === 'inTheMenu' ? 'menu' : 'riding') &&
      job.tracked.every((code) => held(state, code) === job.wanted(code)),
    edges: (state) => edges(map, job, state, pace),
    atLeast: (state) => {
      // The bounds count leaving in.
      if (end === 'inTheMenu') return 0;
      const { open, away } = standing(state);
      return editMs(state, open) + travelMs(state, away);
    },
    key: (state) => `${whereKey(state)}|${standing(state).key}`,
    mostNodes: MOST_NODES,
  });
}

/** The value in store; of an action 1 once it was run. */
const held = ({ ran, stored }: DisplayState, code: Code): number =>
  code.action !== undefined && ran.includes(code.label) ? 1 : (stored[code.label] ?? code.factory);

/** What is still open with the values a display holds. */
interface Standing {
  readonly open: readonly Code[];
  /** Those that must be gone to: one that another may bring to its target need not be. */
  readonly away: readonly Code[];
  readonly key: string;
}

/** Values change far less often than places: what follows from them is worked out once for each. */
function standings({ tracked, wanted, isDragged }: Job): (state: DisplayState) => Standing {
  const known = new WeakMap<RawValues, WeakMap<RawValues, Standing>>();
  return (state) => {
    const { stored, unstored } = state;
    const byUnstored = known.get(stored) ?? new WeakMap<RawValues, Standing>();
    known.set(stored, byUnstored);
    const before = byUnstored.get(unstored);
    if (before) return before;
    const open = tracked.filter((code) => standsAt(state, code) !== wanted(code));
    const key =
      state.ran.join() +
      tracked
        .map(({ label }) => (label in unstored ? `${stored[label]}~${unstored[label]}` : `${stored[label]}`))
        .join();
    const standing = { open, away: open.some(isDragged) ? open.filter((code) => !isDragged(code)) : open, key };
    byUnstored.set(unstored, standing);
    return standing;
  };
}

function whereKey({ screen, mode, resume }: DisplayState): string {
  const rest = `${mode ?? ''}${resume ? `@${resume.page}/${resume.item}` : ''}`;
  switch (screen.kind) {
    case 'menu':
      return `${screen.page}/${screen.item}/${screen.focus}${screen.digit}${screen.digits?.join('') ?? ''}${rest}`;
    case 'pin':
      return `pin${screen.digits.join('')}${screen.at}${screen.page}${rest}`;
    case 'message':
      return `message${screen.then.kind}${rest}`;
    default:
      return screen.kind + rest;
  }
}

function edges(map: KeyedMap, job: Job, state: DisplayState, pace: Pace): readonly Run[] {
  const code = codeShown(map, state);
  const edits = code && job.isTracked(code) && job.mayEdit(state, code) ? editRuns(map, job, state, code, pace) : [];
  if (code && edits.length > 0 && job.isDueOnArrival(state, code)) return edits;
  const stops = (at: DisplayState): boolean => {
    const here = codeShown(map, at);
    return (
      here !== null &&
      job.isTracked(here) &&
      job.mayEdit(at, here) &&
      job.useful(at, here).some((raw) => raw !== standsAt(at, here))
    );
  };
  return [...edits, ...moves(map, state, stops, pace)];
}

function editRuns(map: KeyedMap, job: Job, state: DisplayState, code: Code, pace: Pace): Run[] {
  return job.useful(state, code).flatMap((raw) => {
    if (raw === standsAt(state, code)) return [];
    const run = editRun(map, state, code, raw, pace);
    return run && shownValue(run.to, code) === raw ? [run] : [];
  });
}

/** Begins the edit where it must be begun, and brings the shown value to `raw`. */
function editRun(map: KeyedMap, state: DisplayState, code: Code, raw: number, pace: Pace): Run | null {
  const begun = begin(map, state, pace);
  const path = valuePath(map, begun.to, code, raw, pace);
  if (!path || path.gestures.length === 0) return null;
  const rest = runOf(map, begun.to, path.gestures, 'change', pace);
  return { to: rest.to, ms: begun.ms + rest.ms, steps: [...begun.steps, ...rest.steps] };
}

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
  return { steps: served(steps), estimatedMs: path.ms, longestGapMs, unreachable: [], isShortest: true };
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

function keepsClear(map: KeyedMap, from: DisplayState, plan: KeyPlan, pace: Pace): boolean {
  let state = from;
  return plan.steps.every(({ gesture }) => {
    const limit = idleLimit(map, state);
    const isClear = gesture.kind === 'wait' || gapMs(gesture, pace) <= limit * (1 - IDLE_MARGIN);
    state = simulateDisplay(map, state, gesture);
    return isClear;
  });
}
