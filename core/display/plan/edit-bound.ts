import type { Code, KeyedMap } from '../map/display-map.js';
import { codeShown, displayAtCode, shownValue, type DisplayState } from '../machine/display-state.js';
import { editOf, type EditRules } from '../map/edit-rules.js';
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
  const edit = editOf(map.menu, codeShown(map, state));
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
  const finishOf = new Map(map.codes.map((code) => [code.label, finishing(map, pace, editOf(map.menu, code))]));
  const finish = (code: Code) => finishOf.get(code.label) ?? finishing(map, pace, editOf(map.menu, code));
  const savedOnceMs = Math.max(0, ...[...finishOf.values()].map((each) => each.savedOnceMs));
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
        ) + finish(code).ms;
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
    const sum = counted.reduce((ms, code) => ms + costOf(state, code), counted.length === 0 ? 0 : -savedOnceMs);
    sums.set(open, sum);
    return sum;
  };
  return (state, open) => {
    const here = codeShown(map, state);
    const inValue = state.screen.kind === 'menu' && state.screen.focus === 'value';
    let ms = sumOf(state, open);
    if (inValue && here && open.includes(here) && !job.isDragged(here)) {
      ms += (valuePath(map, state, here, job.wanted(here), pace)?.ms ?? 0) + finish(here).ms - costOf(state, here);
    }
    if (here && !open.includes(here) && here.label in state.unstored)
      ms += inValue ? finish(here).whenMadeMs : finish(here).whenEndedMs;
    return Math.max(0, ms);
  };
}

/**
 * What waiting for the menu to close saves at most, ms: a menu that keeps what is not stored then needs nothing of what
 * follows the last change.
 */
export function savedByWaiting(map: KeyedMap, pace: Pace): number {
  if (map.menu.idle.unstored === 'drop') return 0;
  const edits = new Set([map.menu.edit, ...map.codes.flatMap(({ edit }) => edit ?? [])]);
  return Math.max(
    ...[...edits].map(
      (edit) =>
        finishing(map, pace, edit).ms +
        (edit.style === 'digits' && !edit.end ? MOST_DIGITS * gestureMs(pace, edit.walk) : 0),
    ),
  );
}

/** What waiting at another entry spares at most, where entries are changed in different ways and the menu closes sooner at some, ms. */
export function sparedByPlace({ menu, codes }: KeyedMap): number {
  const isLive = new Set(codes.map((code) => editOf(menu, code).style === 'live'));
  return menu.idle.unstored === 'keep' && isLive.size > 1 ? Math.max(0, menu.idle.editMs - menu.idle.browseMs) : 0;
}

/**
 * What changing these codes in another order spares at most, where their edits end in different ways, or digits are left
 * to be walked past, and leaving ends the last one, ms.
 */
export function sparedByOrder(map: KeyedMap, due: readonly Due[], pace: Pace): number {
  const ends = due.map(({ code, from, to }) => {
    const edit = editOf(map.menu, code);
    const walks = edit.style === 'digits' && !edit.end ? walksLeft(code, from, to) * gestureMs(pace, edit.walk) : 0;
    return finishing(map, pace, edit).ms + walks;
  });
  return new Set(ends).size < 2 ? 0 : Math.max(...ends) - Math.min(...ends);
}

/** A code that is to be changed. */
export interface Due {
  readonly code: Code;
  readonly from: number;
  readonly to: number;
}

const MOST_DIGITS = 8;

/** What follows a change until it is stored: the end of the edit, the gesture that stores, the message. */
function finishing({ menu: { store } }: KeyedMap, pace: Pace, edit: EditRules) {
  const messageMs =
    store.message && store.on !== 'leave' && store.on !== 'change' && edit.style !== 'live' ? store.message.ms : 0;
  // An edit that ends by itself after a while needs no gesture, only the while.
  const pauseMs = store.pause?.does === 'store' ? store.pause.ms : Infinity;
  const endMs = Math.min(pauseMs, endGestureMs(edit, pace));
  const byMs = store.by ? Math.min(pauseMs, gestureMs(pace, store.by)) : 0;
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

function endGestureMs(edit: EditRules, pace: Pace): number {
  switch (edit.style) {
    case 'focus':
      return gestureMs(pace, edit.select);
    case 'enter':
      return gestureMs(pace, edit.end);
    case 'digits':
      return edit.end ? gestureMs(pace, edit.end) : 0;
    case 'live':
      return 0;
  }
}

function editMs(map: KeyedMap, state: DisplayState, code: Code, raw: number, pace: Pace): number {
  const there = displayAtCode(map, state, code.label);
  if (!there) return 0;
  const edit = editOf(map.menu, code);
  const { store } = map.menu;
  const { to, ms } = begin(map, there, pace);
  const path = valuePath(map, to, code, raw, pace);
  const restMs =
    edit.style === 'digits' && !edit.end && store.on === 'endOfEdit' && store.pause?.does !== 'store'
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
