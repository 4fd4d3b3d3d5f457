import { gestureFromWords, gestureToWords } from './written-gesture.js';
import { isFields } from './written-fields.js';
import type { Gesture } from './gesture.js';

/** Fields that hold a gesture in a map as it is written, as a word or whole. */
const GESTURES = new Set(
  'on off up down gesture close next previous pick by select begin end abandon count back walk enter'.split(' '),
);
/** Where a field of such a name holds the id of a page. */
const PAGES = 'pages';
/** What a gesture in a word can name a key by. */
const SHORT = /^[A-Za-z0-9]{1,20}$/;

/**
 * A map as it is written with another label printed on its key number `at` (from 0), or with one key more where `at` is
 * their number. A label that can stand in a gesture becomes the key's id as well, and every gesture that named the key
 * names it still.
 */
export function withKeyCalled(written: unknown, at: number, label: string): unknown {
  if (!isFields(written)) return written;
  const keys: readonly unknown[] = Array.isArray(written['keys']) ? written['keys'] : [];
  const before = keys[at];
  const others = new Set(keys.flatMap((key, i) => (i === at ? [] : [idOf(key)])));
  const own = idOf(before);
  const id = [label, `k${at + 1}`, own ?? '', ...FREE].find((each) => SHORT.test(each) && !others.has(each)) ?? label;
  const key = id === label ? id : { id, label };
  const all = { ...written, keys: at < keys.length ? keys.map((each, i) => (i === at ? key : each)) : [...keys, key] };
  return own === undefined || own === id ? all : renamed(all, own, id);
}

const FREE = Array.from({ length: 30 }, (_, i) => `key${i + 1}`);

const idOf = (key: unknown): string | undefined => {
  const id = isFields(key) ? key['id'] : key;
  return typeof id === 'string' ? id : undefined;
};

function renamed(value: unknown, from: string, to: string): unknown {
  if (Array.isArray(value)) return value.map((each) => renamed(each, from, to));
  if (!isFields(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, own]) => {
      if (name === PAGES) return [name, own];
      const gesture = GESTURES.has(name) ? asGesture(own, name === 'on') : null;
      if (gesture === null) return [name, renamed(own, from, to)];
      const next = withKey(gesture, from, to);
      return [name, typeof own === 'string' ? gestureToWords(next) : next];
    }),
  );
}

/** What `store.on` says, which is when, and not by which key. */
const WHEN = new Set(['change', 'move', 'endOfEdit', 'gesture', 'leave']);

function asGesture(value: unknown, mayBeWhen: boolean): Gesture | null {
  if (typeof value === 'string') return mayBeWhen && WHEN.has(value) ? null : gestureFromWords(value);
  const kinds: readonly unknown[] = ['tap', 'double', 'hold'];
  return isFields(value) && kinds.includes(value['kind']) ? (value as unknown as Gesture) : null;
}

function withKey(gesture: Gesture, from: string, to: string): Gesture {
  return gesture.kind === 'hold'
    ? { ...gesture, keys: gesture.keys.map((key) => (key === from ? to : key)) }
    : { ...gesture, key: gesture.key === from ? to : gesture.key };
}
