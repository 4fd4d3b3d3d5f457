import type { DisplayMap, KeyedMap, MenuPage, PinKeys } from '../map/display-map.js';
import { fulfils, type Gesture } from '../map/gesture.js';
import { pinInForce, type DisplayState, type MenuScreen, type PinScreen } from './display-state.js';

/** The display asks for a PIN, and shows `then` once it was given. */
export function askedForPin(
  { factory }: PinKeys,
  state: DisplayState,
  asks: PinScreen['asks'],
  then: PinScreen['then'],
  from?: MenuScreen,
): DisplayState {
  const digits = [...factory].map(() => 0);
  return { ...state, screen: { kind: 'pin', asks, digits, at: 0, then, ...(from ? { from } : {}) } };
}

/** How the digits on the glass are given. */
export const pinKeysAt = (map: DisplayMap, { asks }: PinScreen): PinKeys | undefined =>
  asks === 'start' ? map.power.pin : (map.menu?.pin ?? undefined);

/** Whether a page is entered only by one who has given the PIN, and nobody has yet. */
export const isShut = ({ menu: { pin } }: KeyedMap, state: DisplayState, page: MenuPage): boolean =>
  page.asksPin === true && pin?.asks === 'entry' && !state.unlocked;

/** One press while the display asks for a PIN. */
export function pressedAtPin(map: DisplayMap, state: DisplayState, screen: PinScreen, gesture: Gesture): DisplayState {
  const pin = pinKeysAt(map, screen);
  if (!pin) return state;
  const last = screen.digits.length - 1;
  if (fulfils(gesture, pin.up)) return { ...state, screen: counted(screen, 1) };
  if (fulfils(gesture, pin.down)) return { ...state, screen: counted(screen, 9) };
  if (fulfils(gesture, pin.back ?? null))
    return { ...state, screen: { ...screen, at: screen.at === 0 ? last : screen.at - 1 } };
  if (fulfils(gesture, pin.walk)) {
    if (screen.at < last) return { ...state, screen: { ...screen, at: screen.at + 1 } };
    return pin.enter === null ? entered(map, pin, state, screen) : { ...state, screen: { ...screen, at: 0 } };
  }
  if (fulfils(gesture, pin.enter)) return entered(map, pin, state, screen);
  return screen.asks !== 'start' && fulfils(gesture, map.menu?.close ?? null) ? left(map, state) : state;
}

const counted = (screen: PinScreen, by: number): PinScreen => ({
  ...screen,
  digits: screen.digits.map((digit, i) => (i === screen.at ? (digit + by) % 10 : digit)),
});

/** Back to riding, as when nothing was asked. */
const left = (map: DisplayMap, state: DisplayState): DisplayState => ({
  ...state,
  screen: { kind: 'riding' },
  unlocked: map.menu?.pin === null,
});

function entered(map: DisplayMap, pin: PinKeys, state: DisplayState, screen: PinScreen): DisplayState {
  const isRight = screen.digits.join('') === pinInForce(map, state.stored, screen.asks);
  const wrong = screen.asks === 'start' ? 'again' : (map.menu?.pin?.wrong ?? 'again');
  if (isRight || wrong === 'limited')
    return {
      ...state,
      wrongPins: 0,
      unlocked: screen.asks === 'start' ? state.unlocked : isRight,
      screen: screen.then,
    };
  const again: PinScreen = { ...screen, digits: screen.digits.map(() => 0), at: 0 };
  const refused: DisplayState =
    wrong === 'leave' ? left(map, state) : { ...state, screen: wrong === 'back' ? cameFrom(screen) : again };
  return locked(pin, { ...refused, wrongPins: state.wrongPins + 1 });
}

const cameFrom = ({ from, then }: PinScreen): MenuScreen | PinScreen['then'] => from ?? then;

/** After too many wrong ones the glass says so for a while, and no key counts. */
function locked({ lock }: PinKeys, state: DisplayState): DisplayState {
  if (!lock || state.wrongPins < lock.after) return state;
  return {
    ...state,
    wrongPins: 0,
    screen: { kind: 'message', text: lock.shows, leftMs: lock.ms, then: state.screen },
  };
}
