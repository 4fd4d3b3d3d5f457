import type { Code, KeyedMap, PageItem } from '../map/display-map.js';
import {
  codeOf,
  isListed,
  itemOf,
  mayMove,
  pageOf,
  settableValues,
  shownValue,
  type DisplayState,
  type MenuScreen,
} from './display-state.js';
import { editOf, storesAtOnce, type EditRules } from '../map/edit-rules.js';
import { fulfils, type Gesture } from '../map/gesture.js';
import { movedHalves, pairStepped, startingPresses } from '../map/pair-halves.js';
import { codeNow } from '../map/range-in-unit.js';
import { digitsOf, fromDigits } from '../map/raw-value.js';
import { askedForPin, isShut } from './simulate-pin.js';
import { butFor, leaveMenu, storeAll, storeOne } from './store-values.js';

/** The first line of a page that the display lists. */
export function firstListed(map: KeyedMap, state: Pick<DisplayState, 'stored'>, page: string): number {
  const item = pageOf(map, page).items.findIndex((entry) => isListed(map, state, entry));
  return Math.max(0, item);
}

/** One press inside the menu. Editing comes first: while a value is edited its keys mean something else. */
export function pressedInMenu(map: KeyedMap, state: DisplayState, screen: MenuScreen, gesture: Gesture): DisplayState {
  const entry = itemOf(map, screen);
  const code = 'code' in entry ? codeOf(map, entry.code) : null;
  if (code?.holdErases && fulfils(gesture, code.holdErases.gesture)) return erased(state, code);
  const edited = code && edit(map, state, screen, code, gesture);
  if (edited) return edited;
  const { menu } = map;
  if (fulfils(gesture, menu.close)) return closed(map, state, code);
  if (code && menu.store.on === 'gesture' && fulfils(gesture, menu.store.by ?? null))
    return storeOne(map, named(state, screen), code);
  if (screen.focus === 'value') return state;
  return browsed(map, state, screen, entry, code, gesture);
}

const named = (state: DisplayState, { page, item }: MenuScreen): DisplayState => ({
  ...state,
  screen: { kind: 'menu', page, item, focus: 'name', digit: 0 },
});

const begun = (map: KeyedMap, state: DisplayState, { page, item }: MenuScreen, code: Code): MenuScreen => ({
  kind: 'menu',
  page,
  item,
  focus: 'value',
  digit: 0,
  ...(editOf(map.menu, code).style === 'digits'
    ? { digits: digitsOf(codeNow(code, state.stored), shownValue(state, code)) }
    : {}),
});

function erased(state: DisplayState, code: Code): DisplayState {
  const stored = { ...state.stored, [code.label]: 0 };
  return { ...state, stored, inForce: { ...state.inForce, [code.label]: 0 } };
}

function closed(map: KeyedMap, state: DisplayState, code: Code | null): DisplayState {
  const { on } = map.menu.store;
  if (on === 'leave') return leaveMenu(map, storeAll(map, state));
  return leaveMenu(map, on === 'move' && code ? storeOne(map, state, code) : state);
}

function edit(
  map: KeyedMap,
  state: DisplayState,
  screen: MenuScreen,
  code: Code,
  gesture: Gesture,
): DisplayState | null {
  const rules = editOf(map.menu, code);
  const { pin } = map.menu;
  if (pin?.asks === 'entry' && code.access === 'pin' && !state.unlocked && startsEdit(map, code, rules, gesture))
    return askedForPin(pin, state, 'menu', screen, screen);
  if (rules.style !== 'live' && screen.focus === 'name') {
    const begin = rules.style === 'focus' ? rules.select : rules.begin;
    return fulfils(gesture, begin) ? { ...state, screen: begun(map, state, screen, code) } : null;
  }
  switch (rules.style) {
    case 'live':
      return stepped(map, state, code, rules, gesture);
    case 'focus':
      return fulfils(gesture, rules.select)
        ? edited(map, state, screen, code)
        : stepped(map, state, code, rules, gesture);
    case 'enter':
      if (fulfils(gesture, rules.abandon)) return named(without(state, code), screen);
      return fulfils(gesture, rules.end) ? edited(map, state, screen, code) : stepped(map, state, code, rules, gesture);
    case 'digits':
      if (fulfils(gesture, rules.count)) return counted(map, state, screen, code, 1);
      if (fulfils(gesture, rules.back ?? null)) return counted(map, state, screen, code, 9);
      if (fulfils(gesture, rules.end ?? null)) return edited(map, state, screen, code);
      if (!fulfils(gesture, rules.walk)) return null;
      if (screen.digit + 1 < (screen.digits?.length ?? 0))
        return { ...state, screen: { ...screen, digit: screen.digit + 1 } };
      return rules.end ? { ...state, screen: { ...screen, digit: 0 } } : edited(map, state, screen, code);
  }
}

/** Whether a press would begin to change this entry. */
const startsEdit = (map: KeyedMap, code: Code, rules: EditRules, gesture: Gesture): boolean =>
  startingPresses(rules, code).some(
    (by) => fulfils(gesture, by) || (rules.style === 'live' && repeats(map, by, gesture) > 0),
  );

const edited = (map: KeyedMap, state: DisplayState, screen: MenuScreen, code: Code): DisplayState => {
  const back = named(state, screen);
  return map.menu.store.on === 'endOfEdit' ? storeOne(map, back, code) : back;
};

const without = (state: DisplayState, code: Code): DisplayState => ({
  ...state,
  unstored: butFor(state.unstored, code.label),
});

type Steppers = { readonly up: Gesture; readonly down: Gesture };

function stepped(
  map: KeyedMap,
  state: DisplayState,
  code: Code,
  rules: Steppers,
  gesture: Gesture,
): DisplayState | null {
  const times = (by: Gesture): number => (fulfils(gesture, by) ? 1 : repeats(map, by, gesture));
  if (code.encoding.kind === 'pair') {
    for (const half of movedHalves(code.encoding, rules)) {
      const by = times(half.up) || (half.down ? -times(half.down) : 0);
      if (by === 0) continue;
      return mayMove(state, code) ? shownNow(map, state, code, pairStepped(shownValue(state, code), half, by)) : state;
    }
    return null;
  }
  const up = times(rules.up);
  if (up > 0) return changed(map, state, code, up);
  const down = times(rules.down);
  return down > 0 ? changed(map, state, code, -down) : null;
}

/** Steps that holding a key takes: one at the press, the next after the delay, then one after another. */
function repeats(map: KeyedMap, by: Gesture, held: Gesture): number {
  const { repeat } = map.menu;
  if (!repeat || by.kind !== 'tap' || held.kind !== 'hold' || held.keys.length !== 1 || held.keys[0] !== by.key)
    return 0;
  if (held.ms < repeat.delayMs) return 1;
  return 2 + Math.floor((held.ms - repeat.delayMs) / repeat.everyMs);
}

function changed(map: KeyedMap, state: DisplayState, code: Code, by: number): DisplayState {
  if (!mayMove(state, code)) return state;
  return shownNow(map, state, code, lineStep(map, state, code, shownValue(state, code), by));
}

function shownNow(map: KeyedMap, state: DisplayState, code: Code, raw: number): DisplayState {
  const next = { ...state, unstored: { ...state.unstored, [code.label]: raw } };
  return storesAtOnce(map.menu, code) ? storeOne(map, next, code) : next;
}

function lineStep(map: KeyedMap, state: DisplayState, code: Code, shown: number, by: number): number {
  const values = settableValues(map, state, code);
  const last = values.length - 1;
  const at = values.indexOf(shown);
  const from =
    at !== -1 ? at : by > 0 ? values.filter((v) => v < shown).length - 1 : values.filter((v) => v <= shown).length;
  const to = from + by;
  const wraps = (code.values ?? map.menu.values) === 'wrap';
  const index = wraps ? ((to % values.length) + values.length) % values.length : Math.max(0, Math.min(last, to));
  return values[index] ?? shown;
}

/** Digits that make no value of this code change nothing: what was stored stays. */
function counted(map: KeyedMap, state: DisplayState, screen: MenuScreen, code: Code, by: number): DisplayState {
  if (!mayMove(state, code)) return state;
  const digits = (screen.digits ?? []).map((digit, i) => (i === screen.digit ? (digit + by) % 10 : digit));
  const next = { ...without(state, code), screen: { ...screen, digits } };
  const raw = fromDigits(codeNow(code, state.stored), digits);
  return raw !== null && settableValues(map, state, code).includes(raw) ? shownNow(map, next, code, raw) : next;
}

function browsed(
  map: KeyedMap,
  state: DisplayState,
  screen: MenuScreen,
  entry: PageItem,
  code: Code | null,
  gesture: Gesture,
): DisplayState {
  const { menu } = map;
  const turn = menu.turns.find((t) => t.from === screen.page && fulfils(gesture, t.gesture));
  if (turn) return entered(map, passedOn(map, state, code), screen, turn.to);
  if (!('code' in entry) && fulfils(gesture, menu.pick)) {
    if ('page' in entry) {
      const to = entry.page === 'ofMode' ? map.menu.pages.find(({ mode }) => mode === state.mode)?.id : entry.page;
      return to === undefined ? state : entered(map, state, screen, to);
    }
    if ('back' in entry) return shownAt(map, state, entry.back);
    return closed(map, state, null);
  }
  if (fulfils(gesture, menu.next)) return moved(map, passedOn(map, state, code), screen, 1);
  return fulfils(gesture, menu.previous) ? moved(map, passedOn(map, state, code), screen, -1) : state;
}

/** Another item comes on the glass: what the present one shows is stored, kept or dropped as the map says. */
function passedOn(map: KeyedMap, state: DisplayState, code: Code | null): DisplayState {
  if (!code || !(code.label in state.unstored)) return state;
  const { on } = map.menu.store;
  if (on === 'leave') return state;
  return on === 'move' ? storeOne(map, state, code) : without(state, code);
}

/** Another page, once its PIN was given where it asks for one. */
function entered(map: KeyedMap, state: DisplayState, from: MenuScreen, to: string): DisplayState {
  const { pin } = map.menu;
  const there: MenuScreen = { kind: 'menu', page: to, item: firstListed(map, state, to), focus: 'name', digit: 0 };
  if (!pin || !isShut(map, state, pageOf(map, to))) return shownAt(map, state, to);
  const asked = askedForPin(pin, state, 'menu', there, from);
  return state.screen.kind === 'message' ? { ...asked, screen: { ...state.screen, then: asked.screen } } : asked;
}

/** Shows the first line of a page, after a message if one stands. */
function shownAt(map: KeyedMap, state: DisplayState, page: string, item = firstListed(map, state, page)): DisplayState {
  const screen: MenuScreen = { kind: 'menu', page, item, focus: 'name', digit: 0 };
  return { ...state, screen: state.screen.kind === 'message' ? { ...state.screen, then: screen } : screen };
}

function moved(map: KeyedMap, state: DisplayState, screen: MenuScreen, by: 1 | -1): DisplayState {
  const page = pageOf(map, screen.page);
  const afterLast = page.afterLast ?? map.menu.afterLast;
  const count = page.items.length;
  for (let item = screen.item + by; ; item += by) {
    if (item < 0 || item >= count) {
      if (afterLast === 'wrap') item = item < 0 ? count - 1 : 0;
      else if (item < 0 || afterLast === 'stop') return shownAt(map, state, screen.page, screen.item);
      else return closed(map, state, null);
    }
    const entry = page.items[item];
    if (entry && isListed(map, state, entry)) return shownAt(map, state, screen.page, item);
    if (item === screen.item) return state;
  }
}
