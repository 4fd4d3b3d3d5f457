import type { Code, DisplayMap, Gesture } from './display-map.js';
import { displayAtRest, glassOf, simulateDisplay, valuesInOrder, type DisplayState, type Glass, type RawValues } from './simulate-display.js';

/** How long a person takes for a tap, over and above a hold, and for looking at a new item. */
export interface Pace {
  readonly tapMs: number;
  readonly holdExtraMs: number;
  readonly lookMs: number;
}

export const DEFAULT_PACE: Pace = { tapMs: 350, holdExtraMs: 250, lookMs: 700 };

/** One gesture of a plan, with what the glass shows before and after it, and the code it serves. */
export interface PlanStep {
  readonly gesture: Gesture;
  readonly purpose: 'open' | 'move' | 'change' | 'store' | 'close';
  /** The code that this gesture brings nearer to its target; null for opening and leaving. */
  readonly serves: string | null;
  /** The code whose new value this gesture puts into store, if any. */
  readonly stores: string | null;
  readonly before: Glass;
  readonly after: Glass;
}

export interface KeyPlan {
  readonly steps: readonly PlanStep[];
  readonly estimatedMs: number;
  /** Codes that no key sequence of this map can bring to their target, each with the reason. */
  readonly unreachable: readonly { readonly label: string; readonly why: string }[];
}

/** What is known when the plan begins: values as last seen, and where the glass stands. */
export interface PlanStart {
  readonly values: RawValues;
  /** The code on the glass, or null while the menu is closed. */
  readonly at: string | null;
}

/**
 * Gestures that bring every target into store in menu order and leave the menu: each code is passed once,
 * its value taken the shorter way round where the map lets values wrap. Every step is run through
 * `simulateDisplay`, so a plan says what that machine would show.
 *
 * @param targets raw value per code label; codes not named are passed over unchanged
 * @param start   what is known of the display; values missing there are taken as the maker delivers them
 */
export function planKeys(map: DisplayMap, targets: RawValues, start: PlanStart, pace: Pace = DEFAULT_PACE): KeyPlan {
  const unreachable = map.codes.flatMap((code) => unreachableReason(code, targets, start.values));
  const blocked = new Set(unreachable.map((entry) => entry.label));
  const wanted = map.codes.filter((code) => {
    const target = targets[code.label];
    return target !== undefined && !blocked.has(code.label) && target !== knownValue(code, start.values);
  });
  const run: Run = { map, pace, state: startState(map, start), steps: [], ms: 0 };
  if (wanted.length > 0 || start.at !== null) {
    openIfClosed(run);
    for (const code of inPassingOrder(map, wanted, run.state.item)) {
      goTo(run, code);
      change(run, code, targets[code.label] ?? 0);
    }
    close(run);
  }
  return { steps: run.steps, estimatedMs: run.ms, unreachable };
}

/** A display being keyed while the plan is made: what was pressed, seen and spent so far. */
interface Run {
  readonly map: DisplayMap;
  readonly pace: Pace;
  readonly steps: PlanStep[];
  state: DisplayState;
  ms: number;
}

const knownValue = (code: Code, values: RawValues): number => values[code.label] ?? code.factory;

function unreachableReason(code: Code, targets: RawValues, values: RawValues): { label: string; why: string }[] {
  const target = targets[code.label];
  if (target === undefined || target === knownValue(code, values)) return [];
  if (code.access === 'locked') return [{ label: code.label, why: `${code.label} is locked on this display.` }];
  if (!valuesInOrder(code).includes(target)) return [{ label: code.label, why: `${code.label} cannot be set to ${target}.` }];
  return [];
}

function startState(map: DisplayMap, start: PlanStart): DisplayState {
  const rest = displayAtRest(map, start.values);
  const item = start.at === null ? -1 : map.codes.findIndex((code) => code.label === start.at);
  return item === -1 ? rest : { ...rest, mode: 'menu', item };
}

/** Codes from the present item on, then, round the wrap, those before it. */
function inPassingOrder(map: DisplayMap, wanted: readonly Code[], item: number): Code[] {
  const place = (code: Code) => map.codes.indexOf(code);
  return [...wanted.filter((code) => place(code) >= item), ...wanted.filter((code) => place(code) < item)];
}

function press(run: Run, gesture: Gesture, purpose: PlanStep['purpose'], serves: string | null): void {
  const before = glassOf(run.map, run.state);
  const held = run.state.stored;
  run.state = simulateDisplay(run.map, run.state, gesture);
  const after = glassOf(run.map, run.state);
  const stored = run.state.stored;
  const stores = stored === held ? null : (run.map.codes.find((code) => stored[code.label] !== held[code.label])?.label ?? null);
  run.steps.push({ gesture, purpose, serves, stores, before, after });
  run.ms += gesture.kind === 'tap' ? run.pace.tapMs : gesture.ms + run.pace.holdExtraMs;
  if (after.kind === 'menu' && (before.kind !== 'menu' || before.label !== after.label)) run.ms += run.pace.lookMs;
}

function openIfClosed(run: Run): void {
  if (run.state.mode === 'riding') press(run, run.map.menu.open, 'open', null);
}

function close(run: Run): void {
  if (run.state.mode === 'menu') press(run, run.map.menu.close, 'close', null);
}

function goTo(run: Run, code: Code): void {
  const { menu, codes } = run.map;
  const target = codes.indexOf(code);
  const ahead = (target - run.state.item + codes.length) % codes.length;
  const nextWouldLeave = target < run.state.item && menu.afterLast === 'leave';
  if (nextWouldLeave && menu.previous === null) {
    close(run);
    openIfClosed(run);
  }
  const goBack = nextWouldLeave || (menu.afterLast === 'wrap' && codes.length - ahead < ahead);
  const key = goBack && menu.previous !== null ? menu.previous : menu.next;
  while (run.state.item !== target) press(run, { kind: 'tap', key }, 'move', code.label);
}

function change(run: Run, code: Code, target: number): void {
  const { edit, valuesWrap } = run.map.menu;
  const values = valuesInOrder(code);
  const shown = glassOf(run.map, run.state);
  if (shown.kind === 'riding') throw new Error('the menu closed while planning');
  if (edit.style === 'focus') press(run, { kind: 'tap', key: edit.select }, 'change', code.label);
  const from = values.indexOf(shown.raw);
  const to = values.indexOf(target);
  const up = from === -1 ? to + 1 : (to - from + values.length) % values.length;
  const down = from === -1 ? values.length - to : (from - to + values.length) % values.length;
  const goUp = valuesWrap || from === -1 ? up <= down : to > from;
  const key = goUp ? edit.up : edit.down;
  for (let i = 0; i < (goUp ? up : down); i++) press(run, { kind: 'tap', key }, 'change', code.label);
  if (edit.style === 'focus') press(run, { kind: 'tap', key: edit.select }, 'store', code.label);
}
