import type { Code, KeyedMap } from '../map/display-map.js';
import { codeShown, displayAtCode, shownValue, type DisplayState } from '../machine/display-state.js';
import { gestureMs, type Pace } from './pace.js';
import { runOf, type Run } from './plan-moves.js';
import { digitsOf } from '../map/raw-value.js';
import { valuePath } from './value-path.js';

/** What of a job the bound needs to know: the value each code is to have, and which codes others may bring there. */
export interface Wanted {
  readonly wanted: (code: Code) => number;
  readonly isDragged: (code: Code) => boolean;
  readonly mayStandAt: (state: DisplayState, code: Code) => readonly number[];
}

/** Begins the edit of the code on the glass, where an edit has to be begun and is not yet. */
export function begin(map: KeyedMap, state: DisplayState, pace: Pace): Run {
  const { edit } = map.menu;
  if (edit.style === 'live' || (state.screen.kind === 'menu' && state.screen.focus === 'value'))
    return { to: state, ms: 0, steps: [] };
  return runOf(map, state, [edit.style === 'focus' ? edit.select : edit.begin], 'change', pace);
}

/**
 * A bound from below on the time that beginning, making, ending and storing the open changes still takes, ms. Codes that
 * others influence may come to their target by themselves and count nothing; where leaving stores what is being edited,
 * one end of an edit is saved.
 */
export function editBound(
  map: KeyedMap,
  job: Wanted,
  pace: Pace,
): (state: DisplayState, open: readonly Code[]) => number {
  const known = new Map<string, number>();
  const sums = new WeakMap<readonly Code[], number>();
  const finish = finishing(map, pace);
  const costOf = (state: DisplayState, code: Code): number => {
    const costs = job.mayStandAt(state, code).map((raw) => {
      const key = `${code.label} ${raw}`;
      const cost =
        known.get(key) ??
        editMs(
          map,
          { ...state, stored: { ...state.stored, [code.label]: raw }, unstored: {} },
          code,
          job.wanted(code),
          pace,
        ) + finish.ms;
      known.set(key, cost);
      return cost;
    });
    return Math.min(...costs);
  };
  /** The same list of open codes stands for the same values. */
  const sumOf = (state: DisplayState, open: readonly Code[]): number => {
    const before = sums.get(open);
    if (before !== undefined) return before;
    const counted = open.filter((code) => !job.isDragged(code));
    const sum = counted.reduce((ms, code) => ms + costOf(state, code), counted.length === 0 ? 0 : -finish.savedOnceMs);
    sums.set(open, sum);
    return sum;
  };
  return (state, open) => {
    const here = codeShown(map, state);
    const inValue = state.screen.kind === 'menu' && state.screen.focus === 'value';
    let ms = sumOf(state, open);
    if (inValue && here && open.includes(here) && !job.isDragged(here)) {
      ms += (valuePath(map, state, here, job.wanted(here), pace)?.ms ?? 0) + finish.ms - costOf(state, here);
    }
    if (here && !open.includes(here) && here.label in state.unstored)
      ms += inValue ? finish.whenMadeMs : finish.whenEndedMs;
    return Math.max(0, ms);
  };
}

/**
 * What waiting for the menu to close saves at most, ms: a menu that keeps what is not stored then needs nothing of what
 * follows the last change.
 */
export function savedByWaiting(map: KeyedMap, pace: Pace): number {
  const { edit, idle } = map.menu;
  if (idle.unstored === 'drop') return 0;
  const walksMs = edit.style === 'digits' ? MOST_DIGITS * gestureMs(pace, edit.walk) : 0;
  return finishing(map, pace).ms + walksMs;
}

const MOST_DIGITS = 8;

/** What follows a change until it is stored: the end of the edit, the gesture that stores, the message. */
function finishing({ menu }: KeyedMap, pace: Pace) {
  const { edit, store } = menu;
  const messageMs = store.message && store.on !== 'leave' && store.on !== 'change' ? store.message.ms : 0;
  const endMs =
    edit.style === 'focus' ? gestureMs(pace, edit.select) : edit.style === 'enter' ? gestureMs(pace, edit.end) : 0;
  const byMs = store.by ? gestureMs(pace, store.by) : 0;
  // The gesture that stores also ends the edit.
  const isEndNeeded = store.on !== 'gesture';
  const ms = messageMs + byMs + (isEndNeeded ? endMs : 0);
  const savedOnceMs = store.on === 'endOfEdit' || !isEndNeeded ? 0 : endMs;
  return {
    ms,
    savedOnceMs,
    whenMadeMs: messageMs + byMs + (store.on === 'endOfEdit' ? endMs : 0),
    whenEndedMs: messageMs + byMs,
  };
}

function editMs(map: KeyedMap, state: DisplayState, code: Code, raw: number, pace: Pace): number {
  const there = displayAtCode(map, state, code.label);
  if (!there) return 0;
  const { edit, store } = map.menu;
  const { to, ms } = begin(map, there, pace);
  const path = valuePath(map, to, code, raw, pace);
  const restMs =
    edit.style === 'digits' && store.on === 'endOfEdit'
      ? walksLeft(code, shownValue(to, code), raw) * gestureMs(pace, edit.walk)
      : 0;
  return ms + (path?.ms ?? 0) + restMs;
}

/** Walks from the last digit that changes past the last one there is. */
function walksLeft(code: Code, from: number, to: number): number {
  const [a, b] = [digitsOf(code, from), digitsOf(code, to)];
  const last = a.reduce((found, digit, i) => (digit === b[i] ? found : i), 0);
  return a.length - last;
}
