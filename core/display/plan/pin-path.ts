import { pinInForce, type DisplayState, type PinScreen } from '../machine/display-state.js';
import { pinKeysAt } from '../machine/simulate-pin.js';
import type { KeyedMap, PinKeys } from '../map/display-map.js';
import type { Gesture } from '../map/gesture.js';
import { gestureMs, type Pace } from './pace.js';

interface Way {
  readonly gestures: readonly Gesture[];
  readonly ms: number;
}

/** The quickest presses that give the PIN in force from the digits as they stand; null where no keys come back to a wrong one. */
export function pinKeyed(
  map: KeyedMap,
  { stored }: DisplayState,
  screen: PinScreen,
  pace: Pace,
): readonly Gesture[] | null {
  const pin = pinKeysAt(map, screen);
  if (!pin) return null;
  const wanted = [...pinInForce(map, stored, screen.asks)].map(Number);
  const wrong = screen.digits.flatMap((digit, i) => (digit === wanted[i] ? [] : [i]));
  const ways = orders(wrong, screen.at, screen.digits.length).flatMap((order) => {
    const way = inOrder(pin, screen, wanted, order, pace);
    return way ? [way] : [];
  });
  return ways.reduce<Way | null>((best, way) => (best && best.ms <= way.ms ? best : way), null)?.gestures ?? null;
}

/**
 * The digits given as they stand: wrong ones are asked for again, lead out, or open all but what the PIN guards. Null
 * where wrong ones are counted until it locks: none is given on purpose.
 */
export function pinAsItStands(map: KeyedMap, screen: PinScreen): readonly Gesture[] | null {
  const pin = pinKeysAt(map, screen);
  return pin && pin.lock === undefined ? entering(pin, screen.at, screen.digits.length) : null;
}

/** From the last digit on: the gesture that enters, or walking past the end. */
const entering = ({ enter, walk }: PinKeys, at: number, count: number): readonly Gesture[] =>
  enter === null ? Array.from({ length: count - at }, () => walk) : [enter];

/** Orders worth trying: some ahead first and the rest behind, or the other way about. */
function orders(wrong: readonly number[], at: number, count: number): readonly (readonly number[])[] {
  const ahead = [...wrong].sort((a, b) => ((a - at + count) % count) - ((b - at + count) % count));
  return [...Array(ahead.length + 1).keys()].flatMap((split) => {
    const [near, far] = [ahead.slice(0, split), ahead.slice(split).reverse()];
    return [
      [...near, ...far],
      [...far, ...near],
    ];
  });
}

function inOrder(
  pin: PinKeys,
  screen: PinScreen,
  wanted: readonly number[],
  order: readonly number[],
  pace: Pace,
): Way | null {
  const count = screen.digits.length;
  const gestures: Gesture[] = [];
  let here = screen.at;
  for (const i of order) {
    const steps = between(pin, here, i, count, pace);
    if (!steps) return null;
    gestures.push(...steps, ...counting(pin, screen.digits[i] ?? 0, wanted[i] ?? 0, pace));
    here = i;
  }
  gestures.push(...entering(pin, here, count));
  return { gestures, ms: gestures.reduce((ms, gesture) => ms + gestureMs(pace, gesture), 0) };
}

/** From one digit to another: on, round the end where that does not enter, or back where there is such a key. */
function between(pin: PinKeys, from: number, to: number, count: number, pace: Pace): readonly Gesture[] | null {
  const [on, off] = [(to - from + count) % count, (from - to + count) % count];
  const { walk, back, enter } = pin;
  const ways: (readonly Gesture[])[] = [];
  if (enter !== null || to >= from) ways.push(Array.from({ length: on }, () => walk));
  if (back) ways.push(Array.from({ length: off }, () => back));
  const msOf = (way: readonly Gesture[]): number => way.reduce((ms, gesture) => ms + gestureMs(pace, gesture), 0);
  return ways.sort((a, b) => msOf(a) - msOf(b))[0] ?? null;
}

/** Up or down, whichever is quicker. */
function counting({ up, down }: PinKeys, from: number, to: number, pace: Pace): readonly Gesture[] {
  const ups = (to - from + 10) % 10;
  const isDownQuicker = down !== null && (10 - ups) * gestureMs(pace, down) < ups * gestureMs(pace, up);
  return Array.from({ length: isDownQuicker ? 10 - ups : ups }, () => (isDownQuicker ? down : up));
}
