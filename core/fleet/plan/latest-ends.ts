/** So many at once, and when one more may be begun: of what is over only the latest ends count. */
export interface LatestEnds {
  /** One more is taken, and nobody knows for how long. */
  readonly open: () => void;
  readonly shut: (atS: number) => void;
  /** From when on never more than all but one are taken; Infinity where all are, for how long nobody knows. */
  readonly freeS: () => number;
}

/** @param most at once, at least 1 */
export function latestEnds(most: number): LatestEnds {
  let open = 0;
  /** Falling, at most `most`. */
  const latest: number[] = [];
  return {
    open: () => {
      open += 1;
    },
    shut: (atS) => {
      open -= 1;
      let i = latest.length;
      while (i > 0 && (latest[i - 1] as number) < atS) i -= 1;
      latest.splice(i, 0, atS);
      if (latest.length > most) latest.pop();
    },
    freeS: () => (open >= most ? Infinity : (latest[most - 1 - open] ?? 0)),
  };
}
