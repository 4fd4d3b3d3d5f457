import type { Condition } from './code.js';
import type { Gesture } from './gesture.js';

/**
 * How digits of a PIN are given: `up` counts a digit up 0-9-0, `down` counts it down where there is such a key, `walk`
 * goes to the next digit and `back` to the one before. With `enter` null walking past the last digit enters it.
 */
export interface PinKeys {
  /** As delivered; a code of function `accessPin`, or `startupPin`, holds the one in force where there is one. */
  readonly factory: string;
  readonly up: Gesture;
  readonly down: Gesture | null;
  readonly back?: Gesture;
  readonly walk: Gesture;
  readonly enter: Gesture | null;
  /** After so many wrong ones in a row no key counts for so long, and the glass shows this meanwhile. */
  readonly lock?: { readonly after: number; readonly ms: number; readonly shows: string };
}

/**
 * The PIN of the menu. `asks`: on opening it (left out), or at an entry of access `pin` and before a page that asks for
 * it, once per opening. `wrong`: `again` asks once more, `leave` goes back to riding, `limited` opens the menu and codes
 * of access `pin` do not move, `back` shows the entry or page one came from.
 */
export interface PinRules extends PinKeys {
  readonly asks?: 'opening' | 'entry';
  readonly wrong: 'again' | 'leave' | 'limited' | 'back';
}

/** The PIN that is asked for when it is switched on; only while a code has one of these values, where it can be switched off. */
export interface StartPin extends PinKeys {
  readonly asksIf?: Condition;
}
