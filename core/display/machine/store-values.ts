import type { Code, Influence, KeyedMap } from '../map/display-map.js';
import { codeNow } from '../map/range-in-unit.js';
import { ALL_STORED, codeOf, settableValues, settled, type DisplayState, type RawValues } from './display-state.js';

const KM_PER_MILE = 1.609344;
/** What restoring the maker's values leaves alone. */
const KEPT_OVER_DEFAULTS: ReadonlySet<string> = new Set(['odometer', 'info', 'clock', 'accessPin', 'startupPin']);

/** Stores every shown change, in the order of the map. */
export function storeAll(map: KeyedMap, state: DisplayState): DisplayState {
  return map.codes.reduce((now, code) => (code.label in now.unstored ? storeOne(map, now, code) : now), state);
}

/** Stores the shown change of one code, if there is one, with all it does to others; a message may stand meanwhile. */
export function storeOne(map: KeyedMap, state: DisplayState, code: Code): DisplayState {
  const asked = state.unstored[code.label];
  if (asked === undefined) return state;
  const raw = settled(map, state, code, asked);
  const before = state.stored[code.label] ?? code.factory;
  let next = put({ ...state, unstored: butFor(state.unstored, code.label) }, code, raw);
  if (code.action !== undefined && raw === 1)
    next = { ...put(acted(map, next, code), code, 0), ran: [...next.ran, code.label] };
  for (const influence of code.influences ?? []) next = influenced(map, next, code, influence, before, raw);
  const { message } = map.menu.store;
  return message && next.screen.kind !== 'message'
    ? { ...next, screen: { kind: 'message', text: message.text, leftMs: message.ms, then: next.screen } }
    : next;
}

/** The same values without one. */
export function butFor(values: RawValues, label: string): RawValues {
  const others = Object.entries(values).filter(([other]) => other !== label);
  return others.length === 0 ? ALL_STORED : Object.fromEntries(others);
}

function put(state: DisplayState, code: Code, raw: number): DisplayState {
  const stored = { ...state.stored, [code.label]: raw };
  const inForce = code.actsAfter === 'once' ? { ...state.inForce, [code.label]: raw } : state.inForce;
  return { ...state, stored, inForce };
}

function acted(map: KeyedMap, state: DisplayState, code: Code): DisplayState {
  if (code.action === 'resetTrip') return state;
  return map.codes
    .filter((other) => !KEPT_OVER_DEFAULTS.has(other.function))
    .reduce((now, other) => put(now, other, codeNow(other, now.stored).factory), state);
}

function influenced(
  map: KeyedMap,
  state: DisplayState,
  code: Code,
  influence: Influence,
  before: number,
  raw: number,
): DisplayState {
  const other = codeOf(map, influence.code);
  const held = state.stored[other.label] ?? other.factory;
  switch (influence.kind) {
    case 'limits':
      return put(state, other, settled(map, state, other, held));
    case 'resets':
      return before === raw ? state : put(state, other, other.factory);
    case 'converts': {
      const factor = unitFactor(code, before, raw);
      return factor === 1 ? state : put(state, other, converted(map, state, other, held * factor, influence.rounding));
    }
  }
}

/** As the display rounds it: to the nearest value it has in the new unit, or the next one down. */
function converted(
  map: KeyedMap,
  state: DisplayState,
  code: Code,
  raw: number,
  rounding: 'nearest' | 'down' = 'nearest',
) {
  const now = codeNow(code, state.stored);
  const down = settableValues(map, state, code).filter((value) => value <= raw + DUST);
  const { decimals } = now;
  return settled(map, state, code, rounding === 'down' ? (down.at(-1) ?? raw) : Number(raw.toFixed(decimals)));
}

/** Less than any display shows. */
const DUST = 1e-9;

function unitFactor(code: Code, before: number, raw: number): number {
  const word = (value: number) =>
    code.encoding.kind === 'table' ? code.encoding.entries.find((entry) => entry.raw === value)?.value : undefined;
  const [from, to] = [word(before), word(raw)];
  if (from === to) return 1;
  return to === 'mph' ? 1 / KM_PER_MILE : to === 'kmh' ? KM_PER_MILE : 1;
}

/** The display back at riding, the menu locked again; shown changes are gone. A message stays until it has passed. */
export function leaveMenu(map: KeyedMap, state: DisplayState): DisplayState {
  const riding = { kind: 'riding' } as const;
  return {
    ...state,
    screen: state.screen.kind === 'message' ? { ...state.screen, then: riding } : riding,
    unlocked: map.menu.pin === null,
    unstored: ALL_STORED,
    idleMs: 0,
    resume: null,
  };
}
