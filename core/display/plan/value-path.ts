import type { Code, KeyedMap } from '../map/display-map.js';
import { settableValues, shownValue, type DisplayState } from '../machine/display-state.js';
import { editOf, storesAtOnce, type EditRules } from '../map/edit-rules.js';
import { keysOf, type Gesture } from '../map/gesture.js';
import { digitOf, movedHalves, type MovedHalf } from '../map/pair-halves.js';
import { gestureMs as plainMs, HOLD_TOLERANCE_MS, type Pace } from './pace.js';
import { codeNow } from '../map/range-in-unit.js';
import { digitsOf } from '../map/raw-value.js';

/** Gestures that bring a shown value to another, and their time, ms. */
export interface ValuePath {
  readonly gestures: readonly Gesture[];
  readonly ms: number;
}

/** What a gesture takes here: where every change is stored at once, its message has to pass each time. */
type MsOf = (gesture: Gesture) => number;

type Stepping = { readonly up: Gesture; readonly down: Gesture };

/**
 * The quickest way from the value on the glass to `target` while the value is being edited: taps either way round, or a
 * key held for an exact number of steps, or held up to the end of a range that stops and tapped back. A key is held
 * only where a person can end the hold in time, where nothing else listens to that hold, and never on an item that a
 * hold erases. Null where the keys do not reach it.
 */
export const valuePath = (
  map: KeyedMap,
  state: DisplayState,
  code: Code,
  target: number,
  pace: Pace,
): ValuePath | null => cheapest(valuePaths(map, state, code, target, pace));

/** Every such way: where each value passed is stored at once, and moves another code, the quickest may not be the best. */
export function valuePaths(
  map: KeyedMap,
  state: DisplayState,
  code: Code,
  target: number,
  pace: Pace,
): readonly ValuePath[] {
  const edit = editOf(map.menu, code);
  // Digits on the way make no value and store nothing: no message is sure there.
  const messageMs = storesAtOnce(map.menu, code) && edit.style !== 'digits' ? (map.menu.store.message?.ms ?? 0) : 0;
  const msOf: MsOf = (gesture) => plainMs(pace, gesture) + messageMs;
  const shown = shownValue(state, code);
  if (shown === target) return [{ gestures: [], ms: 0 }];
  if (edit.style === 'digits') return digitPaths(map, state, code, target, edit, msOf);
  if (code.encoding.kind === 'pair') return asList(pairPath(code.encoding, shown, target, edit, msOf));
  const values = settableValues(map, state, code);
  const to = values.indexOf(target);
  if (to === -1) return [];
  const at = values.indexOf(shown);
  // From a value between two that can be set the keys step to a neighbour first.
  const below = values.filter((value) => value < shown).length;
  const fromUp = at === -1 ? below - 1 : at;
  const fromDown = at === -1 ? below : at;
  const wraps = (code.values ?? map.menu.values) === 'wrap';
  const ways: ValuePath[] = [];
  const stepsUp = to > fromUp ? to - fromUp : wraps ? to - fromUp + values.length : null;
  const stepsDown = to < fromDown ? fromDown - to : wraps ? fromDown - to + values.length : null;
  for (const [key, steps] of [
    [edit.up, stepsUp],
    [edit.down, stepsDown],
  ] as const) {
    if (steps === null) continue;
    ways.push(taps(key, steps, msOf));
    const held = steps >= 2 ? holdFor(map, code, key, steps, 'exact') : null;
    if (held) ways.push({ gestures: [held], ms: msOf(held) });
  }
  if (!wraps) {
    for (const [key, back, far, rest] of [
      [edit.up, edit.down, values.length - 1 - fromUp, values.length - 1 - to],
      [edit.down, edit.up, fromDown, to],
    ] as const) {
      const held = far >= 2 ? holdFor(map, code, key, far, 'toTheEnd') : null;
      if (held) ways.push({ gestures: [held, ...taps(back, rest, msOf).gestures], ms: msOf(held) + rest * msOf(back) });
    }
  }
  return ways;
}

const asList = (way: ValuePath | null): readonly ValuePath[] => (way === null ? [] : [way]);

const cheapest = (ways: readonly ValuePath[]): ValuePath | null =>
  ways.reduce<ValuePath | null>((best, way) => (best === null || way.ms < best.ms ? way : best), null);

const taps = (key: Gesture, times: number, msOf: MsOf): ValuePath => ({
  gestures: Array.from({ length: times }, () => key),
  ms: times * msOf(key),
});

/** Each half by the shorter way round, the first before the second; null where a half cannot get there. */
function pairPath(
  encoding: Code['encoding'] & { kind: 'pair' },
  shown: number,
  target: number,
  edit: Stepping,
  msOf: MsOf,
): ValuePath | null {
  const halves = movedHalves(encoding, edit).map((half) => halfPath(half, shown, target, msOf));
  const [first, second] = halves;
  return first && second ? { gestures: [...first.gestures, ...second.gestures], ms: first.ms + second.ms } : null;
}

function halfPath(moved: MovedHalf, shown: number, target: number, msOf: MsOf): ValuePath | null {
  const { half, up, down, wraps, weight } = moved;
  const [from, to] = [shown, target].map((raw) =>
    half.entries.findIndex((entry) => entry.raw === digitOf(raw, weight)),
  ) as [number, number];
  if (to === -1) return null;
  const count = half.entries.length;
  const round = (steps: number): number | null =>
    wraps ? (steps + count) % count : from !== -1 && steps >= 0 ? steps : null;
  const [ups, downs] = [round(to - from), down === null || from === -1 ? null : round(from - to)];
  return cheapest([
    ...(ups === null ? [] : [taps(up, ups, msOf)]),
    ...(downs === null || down === null ? [] : [taps(down, downs, msOf)]),
  ]);
}

/**
 * Digit by digit. Where each change is stored at once with a message to pass, digits that make no value on the way have
 * none: then every order is a way of its own, and both directions; else the straight one is the quickest.
 */
function digitPaths(
  map: KeyedMap,
  state: DisplayState,
  code: Code,
  target: number,
  edit: EditRules & { readonly style: 'digits' },
  msOf: MsOf,
): readonly ValuePath[] {
  if (!settableValues(map, state, code).includes(target)) return [];
  const { screen } = state;
  const now = codeNow(code, state.stored);
  const from = (screen.kind === 'menu' && screen.digits) || digitsOf(now, shownValue(state, code));
  const to = digitsOf(now, target);
  if (from.length !== to.length) return [];
  const start = screen.kind === 'menu' && screen.focus === 'value' ? screen.digit : 0;
  // Past the last digit the edit is over, unless a gesture of its own ends it.
  if (edit.end === undefined && from.some((digit, i) => i < start && digit !== to[i])) return [];
  const ahead = from.map((_, n) => (start + n) % from.length).filter((i) => from[i] !== to[i]);
  const orders = edit.end !== undefined && hasManyWays(map, code) ? permutations(ahead) : [ahead];
  return orders.flatMap((order) => digitsInOrder(edit, from, to, order, start, hasManyWays(map, code), msOf));
}

/** Whether what is passed on the way costs time of its own. */
export const hasManyWays = (map: KeyedMap, code: Code): boolean =>
  editOf(map.menu, code).style === 'digits' && storesAtOnce(map.menu, code) && map.menu.store.message !== undefined;

const permutations = (all: readonly number[]): readonly (readonly number[])[] =>
  all.length < 2 || all.length > MOST_PERMUTED
    ? [all]
    : all.flatMap((one, i) => permutations(all.filter((_, n) => n !== i)).map((rest) => [one, ...rest]));

const MOST_PERMUTED = 4;

function digitsInOrder(
  edit: EditRules & { readonly style: 'digits' },
  from: readonly number[],
  to: readonly number[],
  order: readonly number[],
  start: number,
  isEachWay: boolean,
  msOf: MsOf,
): readonly ValuePath[] {
  const { back } = edit;
  let ways: ValuePath[] = [{ gestures: [], ms: 0 }];
  let here = start;
  for (const i of order) {
    const walks = taps(edit.walk, (i - here + from.length) % from.length, msOf);
    here = i;
    const ups = ((to[i] ?? 0) - (from[i] ?? 0) + 10) % 10;
    const both = [taps(edit.count, ups, msOf), ...(back ? [taps(back, 10 - ups, msOf)] : [])];
    const quickest = cheapest(both);
    const counts = isEachWay ? both : quickest ? [quickest] : [];
    ways = ways.flatMap((way) =>
      counts.map((count) => ({
        gestures: [...way.gestures, ...walks.gestures, ...count.gestures],
        ms: way.ms + walks.ms + count.ms,
      })),
    );
  }
  return ways;
}

/** The hold that steps this often, where it is harmless. */
function holdFor(map: KeyedMap, code: Code, key: Gesture, steps: number, aim: 'exact' | 'toTheEnd'): Gesture | null {
  const { repeat } = map.menu;
  if (!repeat || key.kind !== 'tap' || code.holdErases !== undefined) return null;
  if (aim === 'exact' && repeat.everyMs < 2 * HOLD_TOLERANCE_MS) return null;
  const slackMs = aim === 'exact' ? repeat.everyMs / 2 : repeat.everyMs / 2 + HOLD_TOLERANCE_MS;
  const held: Gesture = { kind: 'hold', keys: [key.key], ms: repeat.delayMs + (steps - 2) * repeat.everyMs + slackMs };
  return listensToHold(map, code, held) ? null : held;
}

/** Whether a hold of this key means something else in the menu, or starts the motor should the menu have closed meanwhile. */
function listensToHold(map: KeyedMap, code: Code, held: Gesture & { kind: 'hold' }): boolean {
  const { menu } = map;
  const edit = editOf(menu, code);
  const others: readonly (Gesture | null | undefined)[] = [
    menu.close,
    menu.store.by,
    ...(edit.style === 'enter' ? [edit.end, edit.abandon] : edit.style === 'focus' ? [edit.select] : []),
    ...(edit.style === 'live' ? [menu.next, menu.previous, ...menu.turns.map((turn) => turn.gesture)] : []),
    ...map.dangers.map((danger) => danger.gesture),
    ...menu.opens.map((way) => way.gesture),
    map.power.off,
  ];
  return others.some(
    (other) => other?.kind === 'hold' && keysOf(other).length === 1 && keysOf(other)[0] === held.keys[0],
  );
}
