import { isKeyed, type DisplayMap, type KeyedMap, type RideAct } from '../map/display-map.js';
import {
  codeShown,
  displayAtRest,
  mostLevel,
  pageOf,
  type DisplayState,
  type MenuScreen,
  type Screen,
} from './display-state.js';
import { editOf } from '../map/edit-rules.js';
import { fulfils, type Gesture } from '../map/gesture.js';
import { firstListed, pressedInMenu } from './simulate-menu.js';
import { askedForPin, isShut, pressedAtPin } from './simulate-pin.js';
import { butFor, leaveMenu, storeAll, storeOne } from './store-values.js';

export {
  codeShown,
  displayAtCode,
  displayAtRest,
  glassOf,
  type DisplayState,
  type Glass,
  type RawValues,
  type Screen,
} from './display-state.js';
export { valuesInOrder } from '../map/raw-value.js';

/**
 * What is done to a display: a gesture on its keys, nothing for a while, power off and on again, the pack taken out, or
 * the display unplugged from the controller and plugged in again.
 */
export type DisplayInput =
  | Gesture
  | { readonly kind: 'wait'; readonly ms: number }
  | { readonly kind: 'powerCycle' | 'packOut' | 'unplugDisplay' };

const POWER_UP_MS = 1_500;

/**
 * One step of the display as a machine: pure, total, deterministic. A gesture that means nothing in the
 * present state leaves everything but the idle clock alone.
 */
export function simulateDisplay(map: DisplayMap, state: DisplayState, input: DisplayInput): DisplayState {
  switch (input.kind) {
    case 'wait':
      return waited(map, state, input.ms);
    case 'powerCycle':
      return { ...atRest(map, switchedOff(map, state)), ran: state.ran, motorStarted: state.motorStarted };
    case 'packOut':
      return forgetting(map, switchedOff(map, state), 'untilPackOut');
    case 'unplugDisplay':
      return forgetting(map, switchedOff(map, state), 'displayWhileAttached');
    default:
      return pressed(map, state, input);
  }
}

const atRest = (map: DisplayMap, state: DisplayState): DisplayState => displayAtRest(map, state.stored, state.level);

/** Power goes: a change not stored fares as it does when the menu closes by itself. */
function switchedOff(map: DisplayMap, state: DisplayState): DisplayState {
  const settled = isKeyed(map) && map.menu.idle.unstored === 'keep' ? storeAll(map, state) : state;
  return { ...settled, screen: { kind: 'off' }, unstored: {}, idleMs: 0, resume: null };
}

function forgetting(
  map: DisplayMap,
  state: DisplayState,
  keptIn: 'untilPackOut' | 'displayWhileAttached',
): DisplayState {
  const lost = map.codes.filter((code) => code.keptIn === keptIn);
  const values = { ...state.stored, ...Object.fromEntries(lost.map((code) => [code.label, code.factory])) };
  return { ...state, stored: values, inForce: values };
}

function pressed(map: DisplayMap, state: DisplayState, gesture: Gesture): DisplayState {
  const awake = state.idleMs === 0 ? state : { ...state, idleMs: 0 };
  switch (state.screen.kind) {
    case 'off':
      return pressedWhileOff(map, awake, gesture);
    case 'riding':
      return pressedWhileRiding(map, awake, gesture);
    case 'message':
      return state;
    case 'pin':
      return pressedAtPin(map, awake, state.screen, gesture);
    case 'menu':
      if (map.power.offInMenu && fulfils(gesture, map.power.off)) return switchedOff(map, awake);
      return isKeyed(map) ? pressedInMenu(map, awake, state.screen, gesture) : awake;
  }
}

function pressedWhileOff(map: DisplayMap, state: DisplayState, gesture: Gesture): DisplayState {
  const woken = { ...atRest(map, state), ran: state.ran, motorStarted: state.motorStarted };
  const opened = opening(map, woken, gesture, 'off');
  if (opened) return opened;
  if (!fulfils(gesture, map.power.on)) return state;
  const { shows, pin } = map.power;
  const isAsked = pin && (pin.asksIf?.in.includes(woken.stored[pin.asksIf.code] ?? Number.NaN) ?? true);
  const lit = isAsked ? askedForPin(pin, woken, 'start', { kind: 'riding' }) : woken;
  return shows === undefined
    ? lit
    : { ...lit, screen: { kind: 'message', text: shows, leftMs: POWER_UP_MS, then: lit.screen } };
}

function pressedWhileRiding(map: DisplayMap, state: DisplayState, gesture: Gesture): DisplayState {
  const opened = opening(map, state, gesture, 'riding');
  if (opened) return opened;
  if (fulfils(gesture, map.power.off)) return switchedOff(map, state);
  const { levels = null, modes = null } = map.ride ?? {};
  if (modes && fulfils(gesture, modes.gesture)) {
    const at = modes.list.findIndex((mode) => mode.id === state.mode);
    return { ...state, mode: modes.list[(at + 1) % modes.list.length]?.id ?? null };
  }
  if (levels && fulfils(gesture, levels.up))
    return { ...state, level: Math.min(mostLevel(map, state.inForce), state.level + 1) };
  const act = map.ride?.acts?.find((each) => fulfils(gesture, each.gesture));
  if (act) return doneBy(state, act);
  if (levels && fulfils(gesture, levels.down)) return { ...state, level: Math.max(0, state.level - 1) };
  return map.dangers.some((danger) => fulfils(gesture, danger.gesture)) ? { ...state, motorStarted: true } : state;
}

/** What a rider does on the main page: switched over, or done once. */
function doneBy(state: DisplayState, { title, does, onlyIf }: RideAct): DisplayState {
  if (onlyIf && !onlyIf.in.includes(state.inForce[onlyIf.code] ?? Number.NaN)) return state;
  if (does === 'resetsCounter') return { ...state, acted: [...state.acted, title] };
  const on = state.on.includes(title) ? state.on.filter((other) => other !== title) : [...state.on, title];
  return { ...state, on };
}

function opening(map: DisplayMap, state: DisplayState, gesture: Gesture, from: 'riding' | 'off'): DisplayState | null {
  if (!isKeyed(map)) return null;
  const way = map.menu.opens.find((o) => o.from === from && fulfils(gesture, o.gesture));
  if (!way) return null;
  const page = way.page === 'ofMode' ? map.menu.pages.find((p) => p.mode === state.mode)?.id : way.page;
  if (page === undefined) return null;
  const { pin } = map.menu;
  if (!pin) return { ...state, screen: entered(map, state, page) };
  const shut = { ...state, unlocked: false };
  if (pin.asks !== 'entry' || isShut(map, shut, pageOf(map, page)))
    return askedForPin(pin, shut, 'menu', firstLine(map, state, page));
  return { ...shut, screen: entered(map, state, page) };
}

const firstLine = (map: KeyedMap, state: DisplayState, page: string): MenuScreen => ({
  kind: 'menu',
  page,
  item: firstListed(map, state, page),
  focus: 'name',
  digit: 0,
});

/** The first line of a page, or the one at which the menu closed by itself. */
const entered = (map: KeyedMap, state: DisplayState, page: string): Screen => ({
  kind: 'menu',
  page: state.resume?.page ?? page,
  item: state.resume?.item ?? firstListed(map, state, page),
  focus: 'name',
  digit: 0,
});

function waited(map: DisplayMap, state: DisplayState, ms: number): DisplayState {
  const { screen } = state;
  if (screen.kind === 'message') {
    if (ms < screen.leftMs) return { ...state, screen: { ...screen, leftMs: screen.leftMs - ms } };
    return waited(map, { ...state, screen: screen.then, idleMs: 0 }, ms - screen.leftMs);
  }
  if (!isKeyed(map) || (screen.kind !== 'menu' && screen.kind !== 'pin')) return state;
  if (screen.kind === 'pin' && screen.asks === 'start') return state;
  const { pause } = map.menu.store;
  if (pause && isEditing(map, state)) {
    const leftMs = pause.ms - state.idleMs;
    // The edit is over, and the menu waits on from there as if a key had been pressed.
    if (ms >= leftMs) return waited(map, paused(map, state, pause.does), Math.max(0, ms - leftMs));
  }
  const idleMs = state.idleMs + ms;
  if (idleMs < idleLimit(map, state)) return { ...state, idleMs };
  const { unstored, reopensAt } = map.menu.idle;
  const left = leaveMenu(map, unstored === 'keep' ? storeAll(map, state) : { ...state, unstored: {} });
  const resume = reopensAt === 'same' && screen.kind === 'menu' ? { page: screen.page, item: screen.item } : null;
  return { ...left, screen: { kind: 'riding' }, resume };
}

/** How long this state stays without a press, ms; Infinity where it stays for good. */
export function idleLimit(map: KeyedMap, state: DisplayState): number {
  const { screen } = state;
  if (screen.kind === 'pin') return screen.asks === 'start' ? Infinity : map.menu.idle.pinMs;
  if (screen.kind !== 'menu') return Infinity;
  if (!isEditing(map, state)) {
    const { edit, idle } = map.menu;
    return edit.style === 'live' && codeShown(map, state) !== null ? idle.editMs : idle.browseMs;
  }
  return Math.min(map.menu.store.pause?.ms ?? Infinity, map.menu.idle.editMs);
}

/** Whether a value is being changed: a live one as soon as it shows what is not stored. */
function isEditing(map: KeyedMap, state: DisplayState): boolean {
  const { screen } = state;
  if (screen.kind !== 'menu') return false;
  if (screen.focus === 'value') return true;
  const code = codeShown(map, state);
  return code !== null && editOf(map.menu, code).style === 'live' && code.label in state.unstored;
}

/** An edit that has ended by itself: the name is on the glass again, and what was shown is stored or gone. */
function paused(map: KeyedMap, state: DisplayState, does: 'store' | 'drop'): DisplayState {
  const { screen } = state;
  const code = codeShown(map, state);
  if (screen.kind !== 'menu' || code === null) return state;
  const named: DisplayState = {
    ...state,
    idleMs: 0,
    screen: { kind: 'menu', page: screen.page, item: screen.item, focus: 'name', digit: 0 },
  };
  return does === 'store' ? storeOne(map, named, code) : { ...named, unstored: butFor(named.unstored, code.label) };
}
