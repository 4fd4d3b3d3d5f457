import type { Window } from './plan-problem.js';

/** Where both are open. */
export function bothOpen(a: readonly Window[], b: readonly Window[]): readonly Window[] {
  const both: Window[] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const [x, y] = [a[i] as Window, b[j] as Window];
    const fromS = Math.max(x.fromS, y.fromS);
    const toS = Math.min(x.toS, y.toS);
    if (toS > fromS) both.push({ fromS, toS });
    if (x.toS < y.toS) i++;
    else j++;
  }
  return both;
}

/** In order of time, with what touches or overlaps made one, and nothing before second 0. */
export function inOrder(windows: readonly Window[]): readonly Window[] {
  const ordered: Window[] = [];
  for (const { fromS, toS } of [...windows].sort((a, b) => a.fromS - b.fromS)) {
    const from = Math.max(0, fromS);
    const last = ordered.at(-1);
    if (toS <= from) continue;
    if (last && from <= last.toS) ordered[ordered.length - 1] = { fromS: last.fromS, toS: Math.max(last.toS, toS) };
    else ordered.push({ fromS: from, toS });
  }
  return ordered;
}

/** The first second from `s` on at which something so long fits without a break; Infinity where none is. */
export function firstFit(windows: readonly Window[], s: number, lengthS: number): number {
  for (let i = firstEndingAfter(windows, s); i < windows.length; i++) {
    const { fromS, toS } = windows[i] as Window;
    const at = Math.max(s, fromS);
    if (at + lengthS <= toS) return at;
  }
  return Infinity;
}

/** When something begun at `s` is done that goes on after each break; Infinity where they do not last for it. */
export function endWithBreaks(windows: readonly Window[], s: number, lengthS: number): number {
  let left = lengthS;
  for (let i = firstEndingAfter(windows, s); i < windows.length; i++) {
    const { fromS, toS } = windows[i] as Window;
    const at = Math.max(s, fromS);
    if (toS - at >= left) return at + left;
    left -= toS - at;
  }
  return Infinity;
}

export const longest = (windows: readonly Window[]): number =>
  windows.reduce((most, { fromS, toS }) => Math.max(most, toS - fromS), 0);

function firstEndingAfter(windows: readonly Window[], s: number): number {
  let low = 0;
  let high = windows.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((windows[middle] as Window).toS > s) high = middle;
    else low = middle + 1;
  }
  return low;
}
