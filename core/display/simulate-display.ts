import type { Code, DisplayMap, Gesture } from './display-map.js';
import { roundRaw } from './raw-value.js';

/** What is done to a display: a gesture on its keys, or nothing for a while. */
export type DisplayInput = Gesture | { readonly kind: 'wait'; readonly ms: number } | { readonly kind: 'powerCycle' };

export type RawValues = Readonly<Record<string, number>>;

/**
 * State of a display between two inputs. `stored` is what the menu holds, `inForce` what the vehicle obeys:
 * codes that act after a restart differ between the two until power is cycled. `pending` is a shown change
 * that is not stored yet. `idleMs` counts since the last input inside the menu.
 */
export interface DisplayState {
  readonly mode: 'riding' | 'menu';
  readonly item: number;
  readonly focus: 'name' | 'value';
  readonly pending: number | null;
  readonly idleMs: number;
  readonly stored: RawValues;
  readonly inForce: RawValues;
}

/** What the glass shows: nothing of the menu while riding, else the code's label and value. */
export type Glass =
  | { readonly kind: 'riding' }
  | { readonly kind: 'menu'; readonly label: string; readonly raw: number; readonly focus: 'name' | 'value' };

/** A display as it leaves the maker, or holding `stored` values, switched on and riding. */
export function displayAtRest(map: DisplayMap, stored: RawValues = {}): DisplayState {
  const values: Record<string, number> = {};
  for (const code of map.codes) values[code.label] = stored[code.label] ?? code.factory;
  return { mode: 'riding', item: 0, focus: 'name', pending: null, idleMs: 0, stored: values, inForce: values };
}

/**
 * One step of the display as a machine: pure, total, deterministic. A gesture that means nothing in the
 * present state leaves everything but the idle clock alone.
 */
export function simulateDisplay(map: DisplayMap, state: DisplayState, input: DisplayInput): DisplayState {
  switch (input.kind) {
    case 'wait':
      return waited(map, state, input.ms);
    case 'powerCycle': {
      const closed = state.mode === 'menu' ? leave(map, state, map.menu.onTimeout === 'keep') : state;
      return { ...closed, inForce: closed.stored };
    }
    case 'tap':
    case 'hold':
      return pressed(map, state, input);
  }
}

/** What a person sees in this state. */
export function glassOf(map: DisplayMap, state: DisplayState): Glass {
  if (state.mode === 'riding') return { kind: 'riding' };
  const code = itemOf(map, state.item);
  return { kind: 'menu', label: code.label, raw: state.pending ?? valueOf(state, code), focus: state.focus };
}

/** Values of a code in the order its keys step through them: table order, or the grid with its sentinels. */
export function valuesInOrder(code: Code): readonly number[] {
  if (code.encoding.kind === 'table') return code.encoding.entries.map((entry) => entry.raw);
  const { min, max, step } = code.range;
  const grid = new Set<number>();
  for (let i = 0; i <= Math.round((max - min) / step); i++) grid.add(roundRaw(code, min + i * step));
  for (const sentinel of code.encoding.sentinels) grid.add(sentinel.raw);
  return [...grid].sort((a, b) => a - b);
}

export const sameGesture = (a: Gesture, b: Gesture): boolean => {
  if (a.kind === 'tap') return b.kind === 'tap' && a.key === b.key;
  return b.kind === 'hold' && a.ms >= b.ms && a.keys.length === b.keys.length && a.keys.every((key) => b.keys.includes(key));
};

function itemOf(map: DisplayMap, item: number): Code {
  const code = map.codes[item];
  if (!code) throw new Error(`no item ${item} in ${map.id}`);
  return code;
}

const valueOf = (state: DisplayState, code: Code): number => state.stored[code.label] ?? code.factory;

function waited(map: DisplayMap, state: DisplayState, ms: number): DisplayState {
  if (state.mode === 'riding') return state;
  const idleMs = state.idleMs + ms;
  return idleMs >= map.menu.idleMs ? leave(map, state, map.menu.onTimeout === 'keep') : { ...state, idleMs };
}

function leave(map: DisplayMap, state: DisplayState, keepPending: boolean): DisplayState {
  const settled = keepPending ? store(map, state) : state;
  return { ...settled, mode: 'riding', item: 0, focus: 'name', pending: null, idleMs: 0 };
}

function store(map: DisplayMap, state: DisplayState): DisplayState {
  if (state.pending === null) return state;
  const code = itemOf(map, state.item);
  const stored = { ...state.stored, [code.label]: state.pending };
  const inForce = code.actsAfter === 'once' ? { ...state.inForce, [code.label]: state.pending } : state.inForce;
  return { ...state, stored, inForce, pending: null };
}

function pressed(map: DisplayMap, state: DisplayState, gesture: Gesture): DisplayState {
  const { menu } = map;
  if (state.mode === 'riding') {
    return sameGesture(gesture, menu.open) ? { ...state, mode: 'menu', item: 0, focus: 'name', pending: null, idleMs: 0 } : state;
  }
  const awake = { ...state, idleMs: 0 };
  if (sameGesture(gesture, menu.close)) return leave(map, awake, true);
  if (gesture.kind === 'hold') return awake;
  return tapped(map, awake, gesture.key);
}

function tapped(map: DisplayMap, state: DisplayState, key: string): DisplayState {
  const { menu } = map;
  const { edit } = menu;
  const editing = edit.style === 'live' || state.focus === 'value';
  if (edit.style === 'focus' && key === edit.select) {
    return state.focus === 'name' ? { ...state, focus: 'value' } : { ...store(map, state), focus: 'name' };
  }
  if (editing && key === edit.up) return changed(map, state, +1);
  if (editing && key === edit.down) return changed(map, state, -1);
  if (edit.style === 'focus' && state.focus === 'value') return state;
  if (key === menu.next) return moved(map, state, +1);
  if (menu.previous !== null && key === menu.previous) return moved(map, state, -1);
  return state;
}

function changed(map: DisplayMap, state: DisplayState, by: 1 | -1): DisplayState {
  const code = itemOf(map, state.item);
  if (code.access === 'locked') return state;
  const values = valuesInOrder(code);
  const shown = state.pending ?? valueOf(state, code);
  const at = values.indexOf(shown);
  let to = (at === -1 ? (by > 0 ? -1 : values.length) : at) + by;
  if (map.menu.valuesWrap) to = (to + values.length) % values.length;
  const pending = values[Math.max(0, Math.min(values.length - 1, to))] ?? shown;
  const next = { ...state, pending };
  return map.menu.store === 'onChange' ? store(map, next) : next;
}

function moved(map: DisplayMap, state: DisplayState, by: 1 | -1): DisplayState {
  const settled = store(map, state);
  const last = map.codes.length - 1;
  const to = settled.item + by;
  if (to > last) return map.menu.afterLast === 'leave' ? leave(map, settled, true) : { ...settled, item: 0 };
  if (to < 0) return { ...settled, item: map.menu.afterLast === 'wrap' ? last : 0 };
  return { ...settled, item: to };
}
