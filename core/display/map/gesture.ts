/**
 * A tap on one key, two quick taps on one key, or keys held together for at least `ms`.
 * `aloneMs`: where a second tap would mean something else, a tap counts once so long has passed without one.
 * `underMs`: where a longer hold means something else, a hold counts when it is let go before that.
 */
export type Gesture =
  | { readonly kind: 'tap'; readonly key: string; readonly aloneMs?: number }
  | { readonly kind: 'double'; readonly key: string }
  | { readonly kind: 'hold'; readonly keys: readonly string[]; readonly ms: number; readonly underMs?: number };

export const tap = (key: string): Gesture => ({ kind: 'tap', key });
export const hold = (ms: number, ...keys: readonly string[]): Gesture => ({ kind: 'hold', keys, ms });

/** Keys that a gesture presses. */
export const keysOf = (gesture: Gesture): readonly string[] => (gesture.kind === 'hold' ? gesture.keys : [gesture.key]);

export const sameKeys = (a: Gesture, b: Gesture): boolean => {
  const [one, two] = [keysOf(a), keysOf(b)];
  return one.length === two.length && one.every((key) => two.includes(key));
};

/** Whether what was pressed does what a map calls `rule`: the same keys in the same way, held as long as it asks. */
export function fulfils(pressed: Gesture, rule: Gesture | null): boolean {
  if (rule === null || pressed.kind !== rule.kind || !sameKeys(pressed, rule)) return false;
  if (pressed.kind !== 'hold' || rule.kind !== 'hold') return true;
  return pressed.ms >= rule.ms && pressed.ms < (rule.underMs ?? Infinity);
}

/**
 * Whether a display would take the one for the other: the same keys held for two different times where the shorter acts
 * as soon as it is reached, or a tap and a double press of one key where the first of the two taps acts.
 */
export function isPrefixOf(a: Gesture, b: Gesture): boolean {
  if (!sameKeys(a, b)) return false;
  if (a.kind === 'hold' && b.kind === 'hold') return a.ms < b.ms && b.ms < (a.underMs ?? Infinity);
  return a.kind === 'tap' && b.kind === 'double' && a.aloneMs === undefined;
}

/** Whether one press can mean both. */
export function isSameGesture(a: Gesture, b: Gesture): boolean {
  if (a.kind !== b.kind || !sameKeys(a, b)) return false;
  if (a.kind !== 'hold' || b.kind !== 'hold') return true;
  return a.ms < (b.underMs ?? Infinity) && b.ms < (a.underMs ?? Infinity);
}
