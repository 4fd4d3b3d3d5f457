import { isKeyed, type DisplayMap, type KeyedMap } from '../map/display-map.js';
import { editOf } from '../map/edit-rules.js';
import { everyGesture } from '../map/every-gesture.js';
import { fulfils, sameKeys, type Gesture } from '../map/gesture.js';
import { codeShown, glassOf, type DisplayState, type Glass } from './display-state.js';
import { simulateDisplay } from './simulate-display.js';

/** Two taps within so long are a double one, where the map says no time of its own, ms. */
const DOUBLE_MS = 450;
/** A key let go within so long was tapped, where a hold means nothing sooner, ms. */
const TAP_MOST_MS = 700;

/** A press that the display took, with what the glass showed before and after it. `atMs` is the end of the press. */
export interface TakenPress {
  readonly gesture: Gesture;
  readonly atMs: number;
  readonly before: Glass;
  readonly after: Glass;
}

/** A display under fingers: keys that are down, a tap that waits whether another comes, and what was taken so far. */
export interface Fingers {
  readonly display: DisplayState;
  readonly down: readonly string[];
  /** When the last key went down. */
  readonly since: number;
  /** Steps that a held key has taken already. */
  readonly steps: number;
  /** What was pressed has acted: nothing more until all keys are up. */
  readonly isSpent: boolean;
  readonly lastTap: { readonly key: string; readonly atMs: number } | null;
  /** A tap that counts unless another comes before `untilMs`. */
  readonly waiting: { readonly key: string; readonly untilMs: number } | null;
  readonly atMs: number;
  readonly taken: readonly TakenPress[];
}

export const fingersOn = (display: DisplayState, atMs: number): Fingers => ({
  display,
  down: [],
  since: atMs,
  steps: 0,
  isSpent: false,
  lastTap: null,
  waiting: null,
  atMs,
  taken: [],
});

/**
 * What a key that goes down or up at `atMs`, or time that passes up to then, does: taps, double taps, holds and chords
 * are told apart by time as the display tells them apart. Times never run backwards.
 */
export function touched(
  map: DisplayMap,
  fingers: Fingers,
  event: { readonly kind: 'down' | 'up'; readonly key: string; readonly atMs: number } | Tick,
): Fingers {
  const now = passed(map, fingers, event.atMs);
  switch (event.kind) {
    case 'tick':
      return now;
    case 'down': {
      if (now.down.includes(event.key)) return now;
      // Another key ends the waiting: the tap was a single one.
      const { waiting } = now;
      const before = waiting !== null && waiting.key !== event.key ? decided(map, now) : now;
      return { ...before, down: [...before.down, event.key], since: event.atMs, steps: 0, isSpent: false };
    }
    case 'up':
      return now.down.includes(event.key) ? lifted(map, now, event.key) : now;
  }
}

interface Tick {
  readonly kind: 'tick';
  readonly atMs: number;
}

function passed(map: DisplayMap, before: Fingers, atMs: number): Fingers {
  const { waiting } = before;
  if (waiting && atMs >= waiting.untilMs && before.down.length === 0) {
    return passed(map, decided(map, rested(map, before, waiting.untilMs)), atMs);
  }
  if (before.down.length === 0) return rested(map, before, atMs);
  const now = { ...before, atMs };
  return now.isSpent ? now : heldOn(map, now);
}

/** A tap that waited counts, as a single one. */
function decided(map: DisplayMap, fingers: Fingers): Fingers {
  const { waiting } = fingers;
  return waiting === null ? fingers : take(map, { ...fingers, waiting: null }, { kind: 'tap', key: waiting.key });
}

/** Nothing is pressed: the display's own clocks run. */
const rested = (map: DisplayMap, fingers: Fingers, atMs: number): Fingers => ({
  ...fingers,
  atMs,
  display: simulateDisplay(map, fingers.display, { kind: 'wait', ms: Math.max(0, atMs - fingers.atMs) }),
});

function heldOn(map: DisplayMap, fingers: Fingers): Fingers {
  const held = heldGesture(fingers);
  const repeat = repeatOf(map, fingers.display, held);
  if (repeat) {
    const steps = held.ms < repeat.delayMs ? 0 : 2 + Math.floor((held.ms - repeat.delayMs) / repeat.everyMs);
    let now = fingers;
    for (let step = fingers.steps; step < steps; step++)
      now = take(map, now, { kind: 'tap', key: fingers.down[0] ?? '' });
    return { ...now, steps };
  }
  if (fingers.steps > 0 || isDecidedOnRelease(map, held) || !means(map, fingers.display, held)) return fingers;
  // Held this long, the key is no second tap: the first one was single.
  return { ...take(map, decided(map, fingers), held), isSpent: true };
}

function lifted(map: DisplayMap, fingers: Fingers, key: string): Fingers {
  const acted = fingers.isSpent || fingers.steps > 0 ? fingers : letGo(map, fingers);
  const down = acted.down.filter((other) => other !== key);
  return down.length === 0 ? { ...acted, down, isSpent: false, steps: 0 } : { ...acted, down, isSpent: true };
}

function letGo(map: DisplayMap, fingers: Fingers): Fingers {
  const held = heldGesture(fingers);
  const [key = ''] = fingers.down;
  if (isDecidedOnRelease(map, held) && means(map, fingers.display, held)) return take(map, decided(map, fingers), held);
  const isTap = held.ms < TAP_MOST_MS || repeatOf(map, fingers.display, held) !== null;
  if (fingers.down.length !== 1 || !isTap) return fingers;
  const twice: Gesture = { kind: 'double', key };
  const isSecond =
    fingers.waiting?.key === key || (fingers.lastTap?.key === key && fingers.atMs - fingers.lastTap.atMs < DOUBLE_MS);
  if (isSecond && means(map, fingers.display, twice))
    return take(map, { ...fingers, waiting: null, lastTap: null }, twice);
  const aloneMs = secondTapMs(map, fingers.display, key);
  if (aloneMs > 0) return { ...fingers, waiting: { key, untilMs: fingers.atMs + aloneMs } };
  return take(map, { ...fingers, lastTap: { key, atMs: fingers.atMs } }, { kind: 'tap', key });
}

const heldGesture = ({ down, since, atMs }: Fingers): Gesture & { readonly kind: 'hold' } => ({
  kind: 'hold',
  keys: down,
  ms: atMs - since,
});

/** How long the display waits after a tap whether another comes, ms; 0 where it acts at once. */
function secondTapMs(map: DisplayMap, display: DisplayState, key: string): number {
  const alone = everyGesture(map).flatMap((rule) =>
    rule.kind === 'tap' && rule.key === key && rule.aloneMs !== undefined ? [rule.aloneMs] : [],
  );
  return alone.length > 0 && means(map, display, { kind: 'double', key }) ? Math.max(...alone) : 0;
}

/** Whether a hold of these keys so far may yet become a longer one that means something else. */
const isDecidedOnRelease = (map: DisplayMap, held: Gesture & { readonly kind: 'hold' }): boolean =>
  everyGesture(map).some(
    (rule) => rule.kind === 'hold' && rule.underMs !== undefined && held.ms < rule.underMs && sameKeys(rule, held),
  );

function take(map: DisplayMap, fingers: Fingers, gesture: Gesture): Fingers {
  const display = simulateDisplay(map, fingers.display, gesture);
  const press = { gesture, atMs: fingers.atMs, before: glassOf(map, fingers.display), after: glassOf(map, display) };
  return { ...fingers, display, taken: [...fingers.taken, press] };
}

/** Whether a gesture does anything at all in this state. */
const means = (map: DisplayMap, state: DisplayState, gesture: Gesture): boolean =>
  !isSameDisplay(simulateDisplay(map, state, gesture), state);

/** Whether two states are the same but for the clock that counts since the last press. */
export function isSameDisplay(a: DisplayState, b: DisplayState): boolean {
  return (Object.keys(a) as (keyof DisplayState)[]).every((name) => name === 'idleMs' || a[name] === b[name]);
}

/** How a held key repeats its step here; null where holding it means something else or nothing. */
function repeatOf(
  map: DisplayMap,
  state: DisplayState,
  held: Gesture & { readonly kind: 'hold' },
): KeyedMap['menu']['repeat'] {
  if (!isKeyed(map) || state.screen.kind !== 'menu' || held.keys.length !== 1) return null;
  const edit = editOf(map.menu, codeShown(map, state));
  if (edit.style === 'digits' || (edit.style !== 'live' && state.screen.focus !== 'value')) return null;
  const isStepper = [edit.up, edit.down].some(
    (by) => by.kind === 'tap' && fulfils({ kind: 'tap', key: held.keys[0] ?? '' }, by),
  );
  return isStepper ? map.menu.repeat : null;
}
