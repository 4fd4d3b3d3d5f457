/** What a person went through one by one, on a unit of one type at one stand: cautions, checks, acts of a restart. */
export interface GoneThrough {
  /** ms since 1970. */
  readonly at: number;
  readonly items: readonly string[];
}

const SHIFT_MS = 10 * 3_600_000;

/**
 * Whether these may be acknowledged with one key: the same ones were gone through one by one in this shift. What was
 * gone through is forgotten by whoever keeps it after any surprise at that stand.
 */
export function mayAskTogether(before: GoneThrough | null, items: readonly string[], now: number): boolean {
  if (before === null || now < before.at || now - before.at > SHIFT_MS) return false;
  const known = new Set(before.items);
  return items.every((item) => known.has(item));
}
