import { codeShown, type DisplayState, type RawValues } from '../display/machine/display-state.js';
import type { EditRules, KeyedMap } from '../display/map/display-map.js';
import { editOf } from '../display/map/edit-rules.js';
import { tap, type Gesture } from '../display/map/gesture.js';
import { gestureMs, HOLD_TOLERANCE_MS, type Pace } from '../display/plan/pace.js';
import { isNewToLook } from '../display/plan/plan-moves.js';
import { idleLimit, simulateDisplay } from '../display/machine/simulate-display.js';

/**
 * Cost in ms of the cheapest sequence of inputs, found by trying every gesture in every state of the simulator, that
 * ends outside the menu with exactly `goal` stored. It knows nothing of menus or plans. Null where there is none.
 */
export function cheapestByTryingAll(map: KeyedMap, from: DisplayState, goal: RawValues, pace: Pace): number | null {
  return tryAll(
    map,
    from,
    pace,
    () => '',
    ({ screen, stored }) => screen.kind === 'riding' && map.codes.every(({ label }) => stored[label] === goal[label]),
  );
}

/** Cost in ms of the cheapest sequence of inputs that has all of `labels` on the glass once, changes nothing and leaves. */
export function cheapestReadingByTryingAll(
  map: KeyedMap,
  from: DisplayState,
  labels: readonly string[],
  pace: Pace,
): number | null {
  const see = (seen: string, state: DisplayState): string => {
    const label = codeShown(map, state)?.label;
    const all = new Set(seen.split(' ').filter((one) => one !== ''));
    if (label !== undefined) all.add(label);
    return [...all].sort().join(' ');
  };
  const isThrough = (state: DisplayState, seen: string): boolean =>
    state.screen.kind === 'riding' &&
    labels.every((label) => seen.split(' ').includes(label)) &&
    map.codes.every(({ label }) => state.stored[label] === from.stored[label]);
  return tryAll(map, from, pace, see, isThrough);
}

type Note = (noted: string, state: DisplayState) => string;

/** Dijkstra's algorithm over everything the display can be made to do; what is noted on the way is part of where one is. */
function tryAll(
  map: KeyedMap,
  from: DisplayState,
  pace: Pace,
  note: Note,
  isGoal: (state: DisplayState, noted: string) => boolean,
): number | null {
  const keyOf = (state: DisplayState, noted: string) =>
    JSON.stringify([
      state.screen,
      state.mode,
      state.unlocked,
      Object.entries(state.unstored).sort(),
      state.stored,
      state.resume,
      noted,
    ]);
  const alphabet = everyGesture(map);
  const begun = note('', from);
  const best = new Map<string, number>([[keyOf(from, begun), 0]]);
  const buckets = new Map<number, { readonly state: DisplayState; readonly noted: string }[]>([
    [0, [{ state: from, noted: begun }]],
  ]);
  while (buckets.size > 0) {
    const ms = Math.min(...buckets.keys());
    const nodes = buckets.get(ms) ?? [];
    buckets.delete(ms);
    for (const { state, noted } of nodes) {
      if ((best.get(keyOf(state, noted)) ?? 0) < ms) continue;
      if (isGoal(state, noted)) return ms;
      for (const { to, cost } of successors(map, state, alphabet, pace)) {
        const total = Math.round((ms + cost) * 1000) / 1000;
        const seen = note(noted, to);
        const key = keyOf(to, seen);
        if (total >= (best.get(key) ?? Infinity)) continue;
        best.set(key, total);
        buckets.set(total, [...(buckets.get(total) ?? []), { state: to, noted: seen }]);
      }
    }
  }
  return null;
}

function successors(
  map: KeyedMap,
  state: DisplayState,
  alphabet: readonly Gesture[],
  pace: Pace,
): { to: DisplayState; cost: number }[] {
  const after = (pressed: DisplayState, ms: number) => {
    // While a message stands no key counts: waiting is all there is.
    const messageMs = pressed.screen.kind === 'message' ? pressed.screen.leftMs : 0;
    const to = messageMs === 0 ? pressed : simulateDisplay(map, pressed, { kind: 'wait', ms: messageMs });
    return { to: { ...to, idleMs: 0 }, cost: ms + messageMs + (isNewToLook(state, to) ? pace.lookMs : 0) };
  };
  const limit = idleLimit(map, state);
  const waits = Number.isFinite(limit) ? [after(simulateDisplay(map, state, { kind: 'wait', ms: limit }), limit)] : [];
  // On an item that a hold erases nobody holds a key.
  const code = codeShown(map, state);
  const isErasable = code?.holdErases !== undefined;
  return [
    ...waits,
    ...alphabet
      .filter((gesture) => !isErasable || !steppers(editOf(map.menu, code), gesture))
      .map((gesture) => after(simulateDisplay(map, state, gesture), gestureMs(pace, gesture))),
  ];
}

const editsOf = ({ menu, codes }: KeyedMap): readonly EditRules[] => [
  menu.edit,
  ...codes.flatMap(({ edit }) => edit ?? []),
];

const stepsOf = (edit: EditRules): readonly Gesture[] => (edit.style === 'digits' ? [] : [edit.up, edit.down]);

const steppers = (edit: EditRules, gesture: Gesture): boolean =>
  gesture.kind === 'hold' &&
  gesture.keys.length === 1 &&
  stepsOf(edit).some((by) => by.kind === 'tap' && by.key === gesture.keys[0]);

/** Every tap, every gesture that the map names, and every hold that repeats a step up to the length of the longest list. */
function everyGesture(map: KeyedMap): Gesture[] {
  const { menu } = map;
  const { repeat } = menu;
  const editing = editsOf(map).flatMap((edit) =>
    Object.values(edit).filter(
      (value): value is Gesture => typeof value === 'object' && value !== null && 'kind' in value,
    ),
  );
  const named = [
    menu.next,
    menu.previous,
    menu.close,
    menu.pick,
    menu.store.by,
    ...editing,
    ...menu.opens.map((w) => w.gesture),
    ...menu.turns.map((t) => t.gesture),
    ...map.codes.flatMap(({ encoding }) =>
      encoding.kind === 'pair'
        ? [encoding.first.up, encoding.first.down, encoding.second.up, encoding.second.down]
        : [],
    ),
  ].filter((gesture): gesture is Gesture => gesture !== null && gesture !== undefined);
  const holds: Gesture[] = [];
  if (repeat) {
    for (const by of editsOf(map).flatMap(stepsOf)) {
      // A key that starts the motor when held is never held, in the menu or out of it.
      const isDangerous =
        by.kind === 'tap' &&
        map.dangers.some(({ gesture }) => gesture.kind === 'hold' && gesture.keys.includes(by.key));
      for (let steps = 2; by.kind === 'tap' && !isDangerous && steps <= 12; steps++) {
        if (repeat.everyMs >= 2 * HOLD_TOLERANCE_MS)
          holds.push({
            kind: 'hold',
            keys: [by.key],
            ms: repeat.delayMs + (steps - 2) * repeat.everyMs + repeat.everyMs / 2,
          });
      }
    }
  }
  const all = [...map.keys.map((key) => tap(key.id)), ...named, ...holds];
  return [...new Map(all.map((gesture) => [JSON.stringify(gesture), gesture])).values()];
}
