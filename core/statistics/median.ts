/**
 * The middle one of some figures, or the mean of the two in the middle; NaN of none.
 * @example
 * [medianOf([3, 1, 2]), medianOf([4, 1])]; // [2, 2.5]
 */
export function medianOf(all: readonly number[]): number {
  const sorted = all.toSorted((a, b) => a - b);
  const low = sorted[Math.ceil(sorted.length / 2) - 1] ?? NaN;
  const high = sorted[Math.floor(sorted.length / 2)] ?? NaN;
  return (low + high) / 2;
}
