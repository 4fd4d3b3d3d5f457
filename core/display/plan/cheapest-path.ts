import TinyQueue from 'tinyqueue';

export interface Edge<N, S> {
  readonly to: N;
  readonly ms: number;
  /** What is done on the way. */
  readonly steps: readonly S[];
}

export interface Search<N, S> {
  readonly start: N;
  readonly isGoal: (node: N) => boolean;
  readonly edges: (node: N) => readonly Edge<N, S>[];
  /** Never more than what is really left, ms; the better it is, the fewer nodes are looked at. */
  readonly atLeast: (node: N) => number;
  /** Nodes with the same key have the same future. */
  readonly key: (node: N) => string;
  /** The search gives up after so many nodes. */
  readonly mostNodes?: number;
}

export interface Path<S> {
  readonly steps: readonly S[];
  readonly ms: number;
  /** Nodes looked at, for the curious. */
  readonly expanded: number;
}

/** The search looked at too many nodes. */
export interface GaveUp {
  /** No goal is cheaper than this. */
  readonly atLeastMs: number;
  readonly gaveUp: true;
}

export const gaveUp = <S>(found: Path<S> | null | GaveUp): found is GaveUp => found !== null && 'gaveUp' in found;

interface Reached<N, S> {
  readonly node: N;
  readonly key: string;
  readonly ms: number;
  readonly due: number;
  readonly via: { readonly from: Reached<N, S>; readonly steps: readonly S[] } | null;
}

/**
 * Cheapest path from `start` to a goal: A* with nodes opened again when reached more cheaply, so that any `atLeast` that
 * never overstates gives the optimum. Null where no goal can be reached.
 * Source: P. Hart, N. Nilsson, B. Raphael, "A formal basis for the heuristic determination of minimum cost paths", 1968.
 */
export function cheapestPath<N, S>({
  start,
  isGoal,
  edges,
  atLeast,
  key,
  mostNodes = Infinity,
}: Search<N, S>): Path<S> | null | GaveUp {
  const first: Reached<N, S> = { node: start, key: key(start), ms: 0, due: atLeast(start), via: null };
  const best = new Map<string, number>([[first.key, 0]]);
  const queue = new TinyQueue<Reached<N, S>>([first], (a, b) => a.due - b.due || b.ms - a.ms);
  let expanded = 0;
  let atLeastMs = 0;
  for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
    if (at.ms > (best.get(at.key) ?? Infinity)) continue;
    if (isGoal(at.node)) return { steps: stepsTo(at), ms: at.ms, expanded };
    atLeastMs = Math.max(atLeastMs, at.due);
    if (++expanded > mostNodes) return { gaveUp: true, atLeastMs };
    for (const { to, ms, steps } of edges(at.node)) {
      const toKey = key(to);
      const toMs = at.ms + ms;
      if (toMs >= (best.get(toKey) ?? Infinity)) continue;
      best.set(toKey, toMs);
      queue.push({ node: to, key: toKey, ms: toMs, due: toMs + atLeast(to), via: { from: at, steps } });
    }
  }
  return null;
}

function stepsTo<N, S>(reached: Reached<N, S>): S[] {
  const parts: (readonly S[])[] = [];
  for (let at = reached; at.via; at = at.via.from) parts.push(at.via.steps);
  return parts.reverse().flat();
}
