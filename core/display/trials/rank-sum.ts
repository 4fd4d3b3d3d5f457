import { medianOf } from '../../statistics/median.js';

/** A difference between two samples with its interval. */
export interface ShiftFound {
  readonly shift: number;
  readonly low: number;
  readonly high: number;
}

/**
 * How far `to` lies from `from`: the Hodges-Lehmann estimate, with the interval that inverts the exact rank-sum test
 * (J. L. Hodges and E. L. Lehmann, Ann. Math. Stat. 34, 1963). Infinite where the samples are too small to bound it.
 * @param alpha how often the interval may miss, 0 < alpha < 1
 * @example
 * rankSumInterval([1, 2, 3, 4], [11, 12, 13, 14], 0.05); // { shift: 10, low: 7, high: 13 }
 */
export function rankSumInterval(from: readonly number[], to: readonly number[], alpha: number): ShiftFound {
  const differences = to.flatMap((each) => from.map((other) => each - other)).toSorted((a, b) => a - b);
  const shift = medianOf(differences);
  const skip = tailOf(from.length, to.length, alpha / 2);
  if (skip === 0) return { shift, low: -Infinity, high: Infinity };
  return {
    shift,
    low: differences[skip - 1] ?? -Infinity,
    high: differences[differences.length - skip] ?? Infinity,
  };
}

/** The greatest k for which the rank-sum statistic lies under k with probability `tail` at most; 0 where none does. */
function tailOf(n: number, m: number, tail: number): number {
  const ways = rankSumWays(n, m);
  const all = ways.reduce((sum, each) => sum + each, 0);
  let [under, k] = [0, 0];
  for (const count of ways) {
    under += count;
    if (under / all > tail) break;
    k++;
  }
  return k;
}

/** In how many ways two samples without ties make each value of the rank-sum statistic, from 0 to n * m. */
function rankSumWays(n: number, m: number): readonly number[] {
  // Counts of subsets of 1..n+m of size n by their sum, less the smallest sum.
  const total = n + m;
  const most = n * m;
  const counts = Array.from({ length: n + 1 }, () => new Float64Array(most + 1));
  const [none] = counts;
  if (none) none[0] = 1;
  for (let rank = 1; rank <= total; rank++)
    for (let size = Math.min(rank, n); size >= 1; size--) {
      // Taken as the size-th smallest, a rank adds what it lies above that.
      const adds = rank - size;
      const [own, smaller] = [counts[size], counts[size - 1]];
      if (!own || !smaller || adds > most) continue;
      for (let sum = most; sum >= adds; sum--) own[sum] = (own[sum] ?? 0) + (smaller[sum - adds] ?? 0);
    }
  return [...(counts[n] ?? [])];
}
