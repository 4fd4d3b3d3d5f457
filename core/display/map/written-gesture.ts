import type { Gesture } from './gesture.js';
import { changed, isFields, isSame, type Fields } from './written-fields.js';

const KEY = /^[^\s+]{1,20}$/;
const SECONDS = String.raw`\d{1,5}(?:\.\d{1,3})?`;
const HELD = new RegExp(`^(\\S+) (${SECONDS})(?:-(${SECONDS}))? s$`);
const ALONE = new RegExp(`^(\\S+) alone (${SECONDS}) s$`);

/**
 * A gesture as a map may write it in a word: `o` a tap, `o o` two quick ones, `o alone 0.4 s` one with no second
 * within 0.4 s, `o+p 2.5 s` both held for two and a half seconds, `o 2-5 s` held for two and let go before five.
 * @returns null where it is none of these
 */
export function gestureFromWords(words: string): Gesture | null {
  const [, single, aloneFor] = ALONE.exec(words) ?? [];
  if (single !== undefined) return KEY.test(single) ? { kind: 'tap', key: single, aloneMs: msOf(aloneFor) } : null;
  const [, held, seconds, under] = HELD.exec(words) ?? [];
  if (held !== undefined) {
    const keys = held.split('+');
    if (!keys.every((key) => KEY.test(key))) return null;
    return { kind: 'hold', keys, ms: msOf(seconds), ...(under === undefined ? {} : { underMs: msOf(under) }) };
  }
  const [key = '', again, ...more] = words.split(' ');
  if (!KEY.test(key) || more.length > 0) return null;
  if (again === undefined) return { kind: 'tap', key };
  return again === key ? { kind: 'double', key } : null;
}

/** The word for a gesture; the gesture itself where its keys cannot stand in one. */
export function gestureToWords(gesture: Gesture): string | Gesture {
  const words = wordsFor(gesture);
  return isSame(gestureFromWords(words), gesture) ? words : gesture;
}

function wordsFor(gesture: Gesture): string {
  switch (gesture.kind) {
    case 'hold': {
      const under = gesture.underMs === undefined ? '' : `-${gesture.underMs / 1000}`;
      return `${gesture.keys.join('+')} ${gesture.ms / 1000}${under} s`;
    }
    case 'double':
      return `${gesture.key} ${gesture.key}`;
    case 'tap':
      return gesture.aloneMs === undefined ? gesture.key : `${gesture.key} alone ${gesture.aloneMs / 1000} s`;
  }
}

const msOf = (seconds: string | undefined): number => Math.round(Number(seconds) * 1000);

/** The same with words in these fields turned into the gestures they stand for. */
export const gesturesIn = (value: unknown, names: readonly string[]): unknown =>
  isFields(value)
    ? changed(value, names, (word) => (typeof word === 'string' ? (gestureFromWords(word) ?? word) : word))
    : value;

/** The same with the gestures in these fields turned into words. */
export const wordsIn = (value: object, names: readonly string[]): Fields =>
  changed(value as Fields, names, (gesture) =>
    isFields(gesture) ? gestureToWords(gesture as unknown as Gesture) : gesture,
  );

/** Without what stands there anyway, gestures in words. */
export function without(value: object, usual: Fields, gestures: readonly string[] = []): Fields {
  const left = Object.entries(value).filter(([name, own]) => !(name in usual && isSame(own, usual[name])));
  return wordsIn(Object.fromEntries(left), gestures);
}

const EDIT_GESTURES = ['up', 'down', 'select', 'begin', 'end', 'abandon', 'count', 'back', 'walk'];
const EDIT = { abandon: null };

/** How a value is changed, of a menu or of a code that has a way of its own. */
export const fullEdit = (edit: unknown): unknown =>
  isFields(edit) ? gesturesIn(edit['style'] === 'enter' ? { ...EDIT, ...edit } : edit, EDIT_GESTURES) : edit;

export const writtenEdit = (edit: object): Fields => without(edit, EDIT, EDIT_GESTURES);
