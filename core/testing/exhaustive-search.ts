import { codeShown, glassOf, type DisplayState, type RawValues } from '../display/display-state.js';
import type { KeyedMap } from '../display/display-map.js';
import { tap, type Gesture } from '../display/gesture.js';
import { gestureMs, HOLD_TOLERANCE_MS, type Pace } from '../display/pace.js';
import { isNewToLook } from '../display/plan-moves.js';
import { idleLimit, simulateDisplay } from '../display/simulate-display.js';

/**
 * Cost in ms of the cheapest sequence of inputs, found by trying every gesture in every state of the simulator, that
 * ends outside the menu with exactly `goal` stored. It knows nothing of menus or plans. Null where there is none.
 */
export function cheapestByTryingAll(map: KeyedMap, from: DisplayState, goal: RawValues, pace: Pace): number | null {
  const keyOf = (state: DisplayState) => JSON.stringify([state.screen, state.mode, state.unlocked, Object.entries(state.unstored).sort(), state.stored, state.resume]);
  const isGoal = ({ screen, stored }: DisplayState) => screen.kind === 'riding' && map.codes.every(({ label }) => stored[label] === goal[label]);
  const alphabet = everyGesture(map);
  const best = new Map<string, number>([[keyOf(from), 0]]);
  const buckets = new Map<number, DisplayState[]>([[0, [from]]]);
  while (buckets.size > 0) {
    const ms = Math.min(...buckets.keys());
    const states = buckets.get(ms) ?? [];
    buckets.delete(ms);
    for (const state of states) {
      if ((best.get(keyOf(state)) ?? 0) < ms) continue;
      if (isGoal(state)) return ms;
      for (const { to, cost } of successors(map, state, alphabet, pace)) {
        const total = Math.round((ms + cost) * 1000) / 1000;
        const key = keyOf(to);
        if (total >= (best.get(key) ?? Infinity)) continue;
        best.set(key, total);
        buckets.set(total, [...(buckets.get(total) ?? []), to]);
      }
    }
  }
  return null;
}

function successors(map: KeyedMap, state: DisplayState, alphabet: readonly Gesture[], pace: Pace): { to: DisplayState; cost: number }[] {
  const before = glassOf(map, state);
  const after = (pressed: DisplayState, ms: number) => {
    // While a message stands no key counts: waiting is all there is.
    const messageMs = pressed.screen.kind === 'message' ? pressed.screen.leftMs : 0;
    const to = messageMs === 0 ? pressed : simulateDisplay(map, pressed, { kind: 'wait', ms: messageMs });
    return { to: { ...to, idleMs: 0 }, cost: ms + messageMs + (isNewToLook(before, glassOf(map, to)) ? pace.lookMs : 0) };
  };
  const limit = idleLimit(map, state);
  const waits = Number.isFinite(limit) ? [after(simulateDisplay(map, state, { kind: 'wait', ms: limit }), limit)] : [];
  // On an item that a hold erases nobody holds a key.
  const isErasable = codeShown(map, state)?.holdErases !== undefined;
  return [...waits, ...alphabet.filter((gesture) => !isErasable || !steppers(map, gesture)).map((gesture) => after(simulateDisplay(map, state, gesture), gestureMs(pace, gesture)))];
}

const steppers = ({ menu: { edit } }: KeyedMap, gesture: Gesture): boolean =>
  gesture.kind === 'hold' && gesture.keys.length === 1 && edit.style !== 'digits' && [edit.up, edit.down].some((by) => by.kind === 'tap' && by.key === gesture.keys[0]);

/** Every tap, every gesture that the map names, and every hold that repeats a step up to the length of the longest list. */
function everyGesture(map: KeyedMap): Gesture[] {
  const { menu } = map;
  const { edit, repeat } = menu;
  const editing = Object.values(edit).filter((value): value is Gesture => typeof value === 'object' && value !== null && 'kind' in value);
  const named = [menu.next, menu.previous, menu.close, menu.pick, menu.store.by, ...editing, ...menu.opens.map((w) => w.gesture), ...menu.turns.map((t) => t.gesture)]
    .filter((gesture): gesture is Gesture => gesture !== null && gesture !== undefined);
  const holds: Gesture[] = [];
  if (repeat && edit.style !== 'digits') {
    for (const by of [edit.up, edit.down]) {
      // A key that starts the motor when held is never held, in the menu or out of it.
      const isDangerous = by.kind === 'tap' && map.dangers.some(({ gesture }) => gesture.kind === 'hold' && gesture.keys.includes(by.key));
      for (let steps = 2; by.kind === 'tap' && !isDangerous && steps <= 12; steps++) {
        if (repeat.everyMs >= 2 * HOLD_TOLERANCE_MS) holds.push({ kind: 'hold', keys: [by.key], ms: repeat.delayMs + (steps - 2) * repeat.everyMs + repeat.everyMs / 2 });
      }
    }
  }
  const all = [...map.keys.map((key) => tap(key.id)), ...named, ...holds];
  return [...new Map(all.map((gesture) => [JSON.stringify(gesture), gesture])).values()];
}
