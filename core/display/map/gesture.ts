/** A tap on one key, two quick taps on one key, or keys held together for at least `ms`. */
export type Gesture =
  | { readonly kind: 'tap'; readonly key: string }
  | { readonly kind: 'double'; readonly key: string }
  | { readonly kind: 'hold'; readonly keys: readonly string[]; readonly ms: number };

export const tap = (key: string): Gesture => ({ kind: 'tap', key });
export const hold = (ms: number, ...keys: readonly string[]): Gesture => ({ kind: 'hold', keys, ms });

/** Keys that a gesture presses. */
export const keysOf = (gesture: Gesture): readonly string[] => (gesture.kind === 'hold' ? gesture.keys : [gesture.key]);

export const sameKeys = (a: Gesture, b: Gesture): boolean => {
  const [one, two] = [keysOf(a), keysOf(b)];
  return one.length === two.length && one.every((key) => two.includes(key));
};

/** Whether what was pressed does what a map calls `rule`: the same keys in the same way, held at least as long. */
export function fulfils(pressed: Gesture, rule: Gesture | null): boolean {
  if (rule === null || pressed.kind !== rule.kind) return false;
  if (pressed.kind === 'hold' && rule.kind === 'hold') return pressed.ms >= rule.ms && sameKeys(pressed, rule);
  return sameKeys(pressed, rule);
}

/**
 * Whether a display would take the one for the other: the same keys held for two different times (the shorter acts
 * first), or a tap and a double press of one key (the first of the two taps acts).
 */
export function isPrefixOf(a: Gesture, b: Gesture): boolean {
  if (!sameKeys(a, b)) return false;
  if (a.kind === 'hold' && b.kind === 'hold') return a.ms < b.ms;
  return a.kind === 'tap' && b.kind === 'double';
}
