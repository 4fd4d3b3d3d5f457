import type { KeyedMap, PinRules } from '../map/display-map.js';
import { pinInForce, type DisplayState, type Screen } from './display-state.js';
import { fulfils, type Gesture } from '../map/gesture.js';
import { firstListed } from './simulate-menu.js';

type PinScreen = Screen & { kind: 'pin' };

/** One press while the display asks for its PIN. */
export function pressedAtPin(map: KeyedMap, state: DisplayState, screen: PinScreen, gesture: Gesture): DisplayState {
  const { pin } = map.menu;
  if (!pin) return state;
  if (fulfils(gesture, pin.up)) return { ...state, screen: counted(screen, 1) };
  if (fulfils(gesture, pin.down)) return { ...state, screen: counted(screen, 9) };
  if (fulfils(gesture, pin.walk)) {
    if (screen.at + 1 < screen.digits.length) return { ...state, screen: { ...screen, at: screen.at + 1 } };
    return pin.enter === null ? entered(map, pin, state, screen) : { ...state, screen: { ...screen, at: 0 } };
  }
  if (fulfils(gesture, pin.enter)) return entered(map, pin, state, screen);
  return fulfils(gesture, map.menu.close) ? { ...state, screen: { kind: 'riding' } } : state;
}

const counted = (screen: PinScreen, by: number): PinScreen => ({
  ...screen,
  digits: screen.digits.map((digit, i) => (i === screen.at ? (digit + by) % 10 : digit)),
});

function entered(map: KeyedMap, pin: PinRules, state: DisplayState, screen: PinScreen): DisplayState {
  const isRight = screen.digits.join('') === pinInForce(map, state.stored);
  if (isRight || pin.wrong === 'limited') {
    return {
      ...state,
      unlocked: isRight,
      screen: { kind: 'menu', page: screen.page, item: firstListed(map, state, screen.page), focus: 'name', digit: 0 },
    };
  }
  if (pin.wrong === 'leave') return { ...state, screen: { kind: 'riding' } };
  return { ...state, screen: { ...screen, digits: screen.digits.map(() => 0), at: 0 } };
}
