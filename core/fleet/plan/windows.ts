import type { OpenTime } from './plan-problem.js';

/** Where both are open. */
export function bothOpen(a: readonly OpenTime[], b: readonly OpenTime[]): readonly OpenTime[] {
  const both: OpenTime[] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const [x, y] = [a[i] as OpenTime, b[j] as OpenTime];
    const fromS = Math.max(x.fromS, y.fromS);
    const toS = Math.min(x.toS, y.toS);
    if (toS > fromS) both.push({ fromS, toS });
    if (x.toS < y.toS) i++;
    else j++;
  }
  return both;
}

/** In order of time, with what touches or overlaps made one, and nothing before second 0. */
export function inOrder(windows: readonly OpenTime[]): readonly OpenTime[] {
  const ordered: OpenTime[] = [];
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
export function firstFit(windows: readonly OpenTime[], s: number, lengthS: number): number {
  for (let i = firstEndingAfter(windows, s); i < windows.length; i++) {
    const { fromS, toS } = windows[i] as OpenTime;
    const at = Math.max(s, fromS);
    if (at + lengthS <= toS) return at;
  }
  return Infinity;
}

/** When something begun at `s` is done that goes on after each break; Infinity where they do not last for it. */
export function endWithBreaks(windows: readonly OpenTime[], s: number, lengthS: number): number {
  let left = lengthS;
  for (let i = firstEndingAfter(windows, s); i < windows.length; i++) {
    const { fromS, toS } = windows[i] as OpenTime;
    const at = Math.max(s, fromS);
    if (toS - at >= left) return at + left;
    left -= toS - at;
  }
  return Infinity;
}

export const longest = (windows: readonly OpenTime[]): number =>
  windows.reduce((most, { fromS, toS }) => Math.max(most, toS - fromS), 0);

function firstEndingAfter(windows: readonly OpenTime[], s: number): number {
  let low = 0;
  let high = windows.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((windows[middle] as OpenTime).toS > s) high = middle;
    else low = middle + 1;
  }
  return low;
}
