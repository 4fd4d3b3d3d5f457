import type { KeyedMap, PageItem } from '../map/display-map.js';
import { savedByWaiting } from './edit-bound.js';
import { ledTo } from '../map/pages-listing.js';
import type { Gesture } from '../map/gesture.js';
import { gestureMs, type Pace } from './pace.js';

/** Least times between places of a menu when nothing is changed on the way, ms. None of them is ever overstated. */
export interface PageDistances {
  /** From a line of a page to the first line of another page, or back to the first of its own by way of elsewhere. */
  readonly fromItem: (page: string, item: number, to: string) => number;
  /** From the most favourable line of a page. */
  readonly fromPage: (page: string, to: string) => number;
  readonly fromRiding: (mode: string | null, to: string) => number;
  /** From a line of a page, or its most favourable line, out of the menu with changes to be stored. */
  readonly leaveItem: (page: string, item: number) => number;
  readonly leavePage: (page: string) => number;
}

export type Along = 'counted' | 'free' | 'barred';

export interface PageWays {
  /** How moves along a page count: as they are, not at all since the caller counts them apart, or as barred. */
  readonly along?: (page: string) => Along;
  /** Whether there are changes to be stored at the end. */
  readonly stores?: boolean;
}

interface Arc {
  readonly from: number;
  readonly ms: number;
}

/**
 * Times from everywhere to the first line of every page, by Dijkstra's algorithm on the reversed menu. A line that may
 * be hidden costs nothing to pass, a PIN nothing to give, and on leaving the menu any ride mode may be on.
 * Leaving on the way passes no message, as where nothing was changed.
 */
export function pageDistances(
  map: KeyedMap,
  pace: Pace,
  { along = () => 'counted', stores = true }: PageWays = {},
): PageDistances {
  const { pages } = map.menu;
  const modes = map.ride?.modes?.list.map((mode) => mode.id) ?? [];
  const starts = new Map<string, number>();
  let count = 0;
  for (const page of pages) {
    starts.set(page.id, count);
    count += page.items.length;
  }
  const ridingAt = count;
  const nodes = count + Math.max(1, modes.length);
  const into: Arc[][] = Array.from({ length: nodes }, () => []);
  const outOf: Arc[][] = Array.from({ length: nodes }, () => []);
  const link = (from: number, to: number, ms: number, isEntry: boolean) =>
    (isEntry ? outOf : into)[to]?.push({ from, ms });
  const wait = Math.max(0, Math.min(map.menu.idle.browseMs, map.menu.idle.editMs) - savedByWaiting(map, pace));
  const cost = (gesture: Gesture | null, looks = true) =>
    gesture === null ? Infinity : gestureMs(pace, gesture) + (looks ? pace.lookMs : 0);
  // Where leaving stores, its message has to pass; waiting stores without one, or not at all.
  const lastMs = stores && map.menu.store.on === 'leave' ? (map.menu.store.message?.ms ?? 0) : 0;
  const isStoredByWaiting = map.menu.idle.unstored === 'keep' || lastMs === 0;
  const atLast = Array.from({ length: nodes }, () => Infinity);
  for (const page of pages) {
    const own = starts.get(page.id) ?? 0;
    page.items.forEach((item, i) => {
      const at = own + i;
      const afterLast = page.afterLast ?? map.menu.afterLast;
      for (const [gesture, by] of [
        [map.menu.next, 1],
        [map.menu.previous, -1],
      ] as const) {
        const step = i + by;
        const inside = step >= 0 && step < page.items.length;
        const to = inside ? own + step : afterLast === 'wrap' ? own + (by > 0 ? 0 : page.items.length - 1) : null;
        if (gesture && to !== null) {
          const isFree = along(page.id) === 'free' || isHideable(map, page.items[to - own]);
          if (along(page.id) !== 'barred') link(at, to, isFree ? 0 : cost(gesture), false);
        }
        if (gesture && to === null && by > 0 && afterLast === 'leave') leaveBy(at, cost(gesture, false));
      }
      leaveBy(at, cost(map.menu.close, false));
      leaveBy(at, wait, isStoredByWaiting ? wait : Infinity);
      if ('exit' in item) leaveBy(at, cost(map.menu.pick, false));
      for (const target of ledTo(map, item)) link(at, starts.get(target) ?? 0, cost(map.menu.pick), true);
      for (const turn of map.menu.turns)
        if (turn.from === page.id) link(at, starts.get(turn.to) ?? 0, cost(turn.gesture), true);
    });
  }
  function leaveBy(at: number, ms: number, lastTimeMs = ms + lastMs): void {
    for (let riding = ridingAt; riding < nodes; riding++) link(at, riding, ms, false);
    atLast[at] = Math.min(atLast[at] ?? Infinity, lastTimeMs);
  }
  for (let i = 0; i < nodes - ridingAt; i++) {
    const modeKey = map.ride?.modes?.gesture ?? null;
    if (modes.length > 1) link(ridingAt + i, ridingAt + ((i + 1) % modes.length), cost(modeKey, false), false);
    for (const way of map.menu.opens) {
      const page = way.page === 'ofMode' ? pages.find((p) => p.mode === modes[i])?.id : way.page;
      if (page !== undefined) link(ridingAt + i, starts.get(page) ?? 0, cost(way.gesture), true);
    }
  }
  const toPage = new Map(pages.map((page) => [page.id, shortest(starts.get(page.id) ?? 0, into, outOf)]));
  const at = (to: string, node: number): number => toPage.get(to)?.[node] ?? Infinity;
  const fromPage = new Map(
    pages.flatMap((page) =>
      pages.map(
        (to) =>
          [
            `${page.id}>${to.id}`,
            Math.min(...page.items.map((_, i) => at(to.id, (starts.get(page.id) ?? 0) + i))),
          ] as const,
      ),
    ),
  );
  const out = settle(atLast, into, outOf);
  const outOfItem = (page: string, item: number): number => out[(starts.get(page) ?? 0) + item] ?? Infinity;
  const outOfPage = new Map(
    pages.map((page) => [page.id, Math.min(...page.items.map((_, i) => outOfItem(page.id, i)))]),
  );
  return {
    leaveItem: outOfItem,
    leavePage: (page) => outOfPage.get(page) ?? Infinity,
    fromItem: (page, item, to) => at(to, (starts.get(page) ?? 0) + item),
    fromPage: (page, to) => fromPage.get(`${page}>${to}`) ?? Infinity,
    fromRiding: (mode, to) => at(to, ridingAt + Math.max(0, modes.indexOf(mode ?? ''))),
  };
}

export const isHideable = (map: KeyedMap, item: PageItem | undefined): boolean => {
  if (item && 'page' in item) return item.shownIf !== undefined;
  const code = item && 'code' in item ? map.codes.find((c) => c.label === item.code) : undefined;
  return code !== undefined && (code.shownIf !== undefined || code.access === 'tool' || code.access === 'absent');
};

/** Times from every node to an entry into `goal` from elsewhere: the last step is always an entry. */
function shortest(goal: number, into: readonly (readonly Arc[])[], entries: readonly (readonly Arc[])[]): number[] {
  const ms = into.map(() => Infinity);
  for (const { from, ms: entry } of entries[goal] ?? []) ms[from] = Math.min(entry, ms[from] ?? Infinity);
  return settle(ms, into, entries);
}

function settle(ms: number[], into: readonly (readonly Arc[])[], entries: readonly (readonly Arc[])[]): number[] {
  const open = new Set(ms.flatMap((known, node) => (Number.isFinite(known) ? [node] : [])));
  while (open.size > 0) {
    let best = -1;
    for (const node of open) if (best === -1 || (ms[node] ?? Infinity) < (ms[best] ?? Infinity)) best = node;
    open.delete(best);
    for (const { from, ms: step } of [...(into[best] ?? []), ...(entries[best] ?? [])]) {
      const total = (ms[best] ?? Infinity) + step;
      if (total >= (ms[from] ?? Infinity)) continue;
      ms[from] = total;
      open.add(from);
    }
  }
  return ms;
}
