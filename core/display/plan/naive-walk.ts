import { isKeyed, type DisplayMap, type KeyedMap } from '../map/display-map.js';
import {
  codeShown,
  displayAtRest,
  isListed,
  mayMove,
  pageOf,
  shownValue,
  type DisplayState,
  type RawValues,
} from '../machine/display-state.js';
import type { Gesture } from '../map/gesture.js';
import { DEFAULT_PACE, type Pace } from './pace.js';
import { begin } from './edit-bound.js';
import { moves, runOf } from './plan-moves.js';
import { askedForPin } from '../machine/simulate-pin.js';
import { valuePath } from './value-path.js';

/** What working through a menu without a plan takes. */
export interface NaiveWalk {
  readonly presses: number;
  readonly ms: number;
}

/**
 * A walk through every code of every page in turn, as one works from a paper table: each code is looked at, each that
 * is wrong is tapped to its target the straight way, and the menu is left at the end. The yardstick a plan is held
 * against. Null where the map has no menu.
 */
export function naiveWalk(
  map: DisplayMap,
  targets: RawValues,
  values: RawValues,
  pace: Pace = DEFAULT_PACE,
): NaiveWalk | null {
  if (!isKeyed(map)) return null;
  const total = { presses: 0, ms: 0 };
  for (const page of map.menu.pages.filter((p) => p.neverEnter === undefined)) {
    const rest = displayAtRest(map, values);
    const mode = page.mode ?? rest.mode;
    const opened: DisplayState = {
      ...rest,
      mode,
      unlocked: true,
      screen: { kind: 'menu', page: page.id, item: 0, focus: 'name', digit: 0 },
    };
    walkPage(map, opened, targets, pace, total);
  }
  const [way] = map.menu.opens;
  if (!way) return null;
  const riding: DisplayState =
    way.from === 'off' ? { ...displayAtRest(map, values), screen: { kind: 'off' } } : displayAtRest(map, values);
  const opened = runOf(map, riding, [way.gesture], 'open', pace);
  add(total, opened);
  const { pin } = map.menu;
  // Where entries ask for the PIN it is given once, wherever that is.
  const asked = pin?.asks === 'entry' ? askedForPin(pin, riding, 'menu', { kind: 'riding' }) : opened.to;
  if (asked.screen.kind === 'pin') for (const run of moves(map, asked, () => false, pace).slice(0, 1)) add(total, run);
  if (map.menu.close) add(total, runOf(map, riding, [map.menu.close], 'close', pace));
  else total.ms += map.menu.idle.browseMs;
  total.ms += (map.menu.pages.filter((p) => p.neverEnter === undefined).length - 1) * (pace.tapMs + pace.lookMs);
  return total;
}

const add = (
  total: { presses: number; ms: number },
  run: { readonly ms: number; readonly steps: readonly { readonly gesture: { readonly kind: string } }[] },
): void => {
  total.ms += run.ms;
  total.presses += run.steps.filter(({ gesture }) => gesture.kind !== 'wait').length;
};

function walkPage(
  map: KeyedMap,
  from: DisplayState,
  targets: RawValues,
  pace: Pace,
  total: { presses: number; ms: number },
): void {
  let state = from;
  const lines = pageOf(map, from.screen.kind === 'menu' ? from.screen.page : '').items.length;
  for (let i = 0; i < lines && state.screen.kind === 'menu'; i++) {
    const code = codeShown(map, state);
    const target = code === null ? undefined : targets[code.label];
    if (code && target !== undefined && target !== shownValue(state, code) && mayMove(state, code)) {
      const straight: KeyedMap = { ...map, menu: { ...map.menu, repeat: null, values: 'stop' } };
      const begun = begin(map, state, pace);
      const path = valuePath(straight, begun.to, { ...code, values: 'stop' }, target, pace);
      if (path) {
        const changed = runOf(map, begun.to, path.gestures, 'change', pace);
        add(total, begun);
        add(total, changed);
        state = endEdit(map, changed.to, pace, total);
      }
    }
    const item = state.screen.kind === 'menu' ? pageOf(map, state.screen.page).items[state.screen.item] : undefined;
    if (i === lines - 1 || item === undefined || !isListed(map, state, item)) break;
    const next = runOf(map, state, [map.menu.next], 'move', pace);
    add(total, next);
    state = next.to;
  }
}

function endEdit(map: KeyedMap, from: DisplayState, pace: Pace, total: { presses: number; ms: number }): DisplayState {
  let state = from;
  for (let guard = 0; guard < 12 && state.screen.kind === 'menu' && state.screen.focus === 'value'; guard++) {
    const end = moves(map, state, () => false, pace).find((run) => run.steps[0]?.purpose === 'store');
    if (!end) break;
    add(total, end);
    state = end.to;
  }
  const by: Gesture | undefined = map.menu.store.by;
  if (by && Object.keys(state.unstored).length > 0) {
    const stored = runOf(map, state, [by], 'store', pace);
    add(total, stored);
    state = stored.to;
  }
  return state;
}
