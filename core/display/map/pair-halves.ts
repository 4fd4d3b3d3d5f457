import type { Code, Encoding, PairHalf } from './code.js';
import type { EditRules } from './edit-rules.js';
import type { Gesture } from './gesture.js';

type Pair = Encoding & { readonly kind: 'pair' };

/** One half of a code of two functions, with the keys that move it. */
export interface MovedHalf {
  readonly half: PairHalf;
  readonly up: Gesture;
  readonly down: Gesture | null;
  readonly wraps: boolean;
  /** What one step of its digit is in the raw value. */
  readonly weight: 10 | 1;
}

/** Both halves with the keys that move them: their own where the map gives them, else one each of the two of the edit. */
export function movedHalves(
  { first, second, turned = false }: Pair,
  edit: { readonly up: Gesture; readonly down: Gesture },
): readonly [MovedHalf, MovedHalf] {
  const moved = (half: PairHalf, usual: Gesture, weight: 10 | 1): MovedHalf => ({
    half,
    up: half.up ?? usual,
    down: half.down ?? null,
    wraps: half.values !== 'stop',
    weight,
  });
  return [moved(first, turned ? edit.down : edit.up, 10), moved(second, turned ? edit.up : edit.down, 1)];
}

/** Presses that begin to change an entry. */
export function startingPresses(edit: EditRules, { encoding }: Code): readonly [Gesture, ...Gesture[]] {
  if (edit.style === 'focus') return [edit.select];
  if (edit.style !== 'live') return [edit.begin];
  if (encoding.kind !== 'pair') return [edit.up, edit.down];
  const [first, second] = movedHalves(encoding, edit);
  return [first.up, second.up, ...[first.down, second.down].flatMap((down) => down ?? [])];
}

export const digitOf = (raw: number, weight: 10 | 1): number => (weight === 10 ? Math.floor(raw / 10) : raw % 10);

/** The raw value after so many steps of one half, down where they are negative. */
export function pairStepped(raw: number, { half: { entries }, wraps, weight }: MovedHalf, by: number): number {
  const digit = digitOf(raw, weight);
  const at = entries.findIndex((entry) => entry.raw === digit);
  const to = at + by;
  const index = wraps
    ? ((to % entries.length) + entries.length) % entries.length
    : Math.max(0, Math.min(entries.length - 1, to));
  return raw + ((entries[index]?.raw ?? digit) - digit) * weight;
}
