import type { KeyedMap } from '../map/display-map.js';
import type { Pace } from './pace.js';
import { pageDistances, type Along, type PageDistances } from './page-distances.js';

/** A page that is still to be shown something on, once begun at one of its lines. */
export interface PageVisit {
  readonly page: string;
  /** Tells it from every other visit: the page, what is wanted there, where it begins. */
  readonly id: string;
  /** Lines that may be shown last where one visit shows all, each with the moves along the page until then; none where that cannot be. */
  readonly ends: readonly EndOfVisit[];
  /** One is on the page: of several visits this is the first. */
  readonly isHere: boolean;
  /**
   * Where something is left for `more` others: lines at which this visit may end, each with the least moves of all of
   * them. Of a page one is on it is the first of them, and goes straight on from there; of any other the last.
   */
  readonly breaks: () => readonly (EndOfVisit & { readonly more: number })[];
  /** No number of visits shows all with fewer moves, ms. */
  readonly looseMs: number;
}

export interface EndOfVisit {
  readonly item: number;
  readonly ms: number;
}

/** Where a way begins: at a line, on a page that is about to come on the glass, or outside in a ride mode. */
export type From =
  | { readonly at: 'line'; readonly page: string; readonly item: number }
  | { readonly at: 'page'; readonly page: string }
  | { readonly at: 'riding'; readonly mode: string | null }
  | { readonly at: 'anywhere' };

/** Least times to visit pages and leave the menu, ms; none of them is ever overstated. */
export interface WaysBetween {
  /** All of `visits`, in the best order, and out of the menu; after `first`, the visit one is in, where there is one. */
  readonly tour: (from: From, first: PageVisit | null, visits: readonly PageVisit[]) => number;
  /** Out of the menu from a line. */
  readonly outOf: (page: string, item: number) => number;
}

/** Pages up to this many are put in their best order; of more of them each is left for the nearest one. */
const MOST_ORDERED = 8;

/**
 * @param counted pages with codes: a visit counts the moves along them
 * @param stores whether there are changes to be stored at the end
 */
export function waysBetween(map: KeyedMap, pace: Pace, counted: ReadonlySet<string>, stores: boolean): WaysBetween {
  const all = pageDistances(map, pace, { stores });
  const but = (one: string | null, its: Along): PageDistances =>
    pageDistances(map, pace, {
      along: (page) => (page === one ? its : counted.has(page) ? 'free' : 'counted'),
      stores,
    });
  const free = but(null, 'free');
  /** With the moves along this page counted, which no visit does then. */
  const along = onceFor((page: string) => (counted.has(page) ? but(page, 'counted') : free));
  /** Straight from its lines. */
  const straight = onceFor((page: string) => but(page, 'barred'));
  const straightOn = onceFor((page: string) =>
    onceFor((to: string | null) => (to === null ? straight(page).leavePage(page) : straight(page).fromPage(page, to))),
  );
  const entering = (from: From, to: string): number => {
    switch (from.at) {
      case 'line':
        return along(from.page).fromItem(from.page, from.item, to);
      case 'page':
        return free.fromPage(from.page, to);
      case 'riding':
        return free.fromRiding(from.mode, to);
      case 'anywhere':
        return 0;
    }
  };
  const countedLines = [...counted].flatMap((page) => linesOf(map, page));
  const afterVisits = onceFor((page: string) => leastDetours(map, page, counted, countedLines, free, along));
  /** Tours that begin on one of these lines, or on a page that is counted, or outside. */
  const begunAt = onceFor(
    (lines: readonly Line[]) =>
      toursOf((page) =>
        lines.length === 0
          ? afterVisits(page)
          : lesser(afterVisits(page), leastDetours(map, page, counted, lines, free, along)),
      ),
    (lines) => lines.map(({ page, item }) => `${page}/${item}`).join(),
  );
  const beginning = (from: From): readonly Line[] => {
    if (from.at === 'line') return counted.has(from.page) ? [] : [from];
    return from.at === 'page' && !counted.has(from.page) ? linesOf(map, from.page) : [];
  };
  function toursOf(detoursBy: (page: string) => Detours) {
    const detours = onceFor(detoursBy);
    /** From the visit of a page to the next one, or out of the menu: at the last line, or by several visits. */
    const onFrom = onceFor(
      ({ page, isHere, ends, breaks, looseMs }: PageVisit) =>
        onceFor((to: string | null) => {
          const onward = ({ leaveItem, fromItem }: PageDistances, some: readonly EndOfVisit[]): number =>
            Math.min(
              ...some.map(({ item, ms }) => ms + (to === null ? leaveItem(page, item) : fromItem(page, item, to))),
            );
          // Visits besides come after the first, the very last of all too; or before the last, and then something follows.
          const { onAnyWay, betweenPages } = detours(page);
          const besidesMs = isHere ? onAnyWay : betweenPages;
          const atOnceMs = onward(along(page), ends);
          if (atOnceMs <= looseMs + besidesMs + straightOn(page)(to)) return atOnceMs;
          const again = breaks().map(({ item, ms, more }) => ({ item, ms: ms + more * besidesMs }));
          return Math.min(atOnceMs, onward(isHere ? straight(page) : along(page), again));
        }),
      ({ id }) => id,
    );
    const orders = new Map<string, number>();
    const rest = (at: PageVisit, left: readonly PageVisit[]): number => {
      if (left.length === 0) return onFrom(at)(null);
      const key = `${at.id}>${left.map(({ id }) => id).join('+')}`;
      const before = orders.get(key);
      if (before !== undefined) return before;
      const ms = Math.min(...left.map((to) => onFrom(at)(to.page) + rest(to, butFor(left, to))));
      orders.set(key, ms);
      return ms;
    };
    const nearest = (at: PageVisit, others: readonly PageVisit[]): number =>
      Math.min(onFrom(at)(null), ...others.map(({ page }) => onFrom(at)(page)));
    return { rest, nearest };
  }
  return {
    tour: (from, first, visits) => {
      const { rest, nearest } = begunAt(beginning(from));
      if (visits.length > MOST_ORDERED) {
        const onward = [...(first ? [first] : []), ...visits].reduce(
          (ms, at) => ms + nearest(at, butFor(visits, at)),
          0,
        );
        return onward + (first ? 0 : Math.min(...visits.map(({ page }) => entering(from, page))));
      }
      if (first) return rest(first, visits);
      return Math.min(...visits.map((to) => entering(from, to.page) + rest(to, butFor(visits, to))));
    },
    outOf: all.leaveItem,
  };
}

const butFor = (visits: readonly PageVisit[], one: PageVisit): readonly PageVisit[] =>
  visits.filter((other) => other !== one);

interface Line {
  readonly page: string;
  readonly item: number;
}

const linesOf = (map: KeyedMap, page: string): readonly Line[] =>
  (map.menu.pages.find(({ id }) => id === page)?.items ?? []).map((_, item) => ({ page, item }));

/** What it adds at least to a way to go by a page as well: to any way, or to one that leads to a page. */
interface Detours {
  readonly onAnyWay: number;
  readonly betweenPages: number;
}

const lesser = (a: Detours, b: Detours): Detours => ({
  onAnyWay: Math.min(a.onAnyWay, b.onAnyWay),
  betweenPages: Math.min(a.betweenPages, b.betweenPages),
});

/** Of ways from these lines and from outside. */
function leastDetours(
  map: KeyedMap,
  by: string,
  counted: ReadonlySet<string>,
  lines: readonly Line[],
  free: PageDistances,
  along: (page: string) => PageDistances,
): Detours {
  const goals = [...counted];
  const ways = lines.map(({ page, item }) => {
    const { fromItem, leaveItem } = along(page);
    return { toIt: fromItem(page, item, by), on: (to: string) => fromItem(page, item, to), out: leaveItem(page, item) };
  });
  const modes = map.ride?.modes?.list.map(({ id }) => id) ?? [null];
  const least = (added: readonly number[]): number => Math.max(0, Math.min(...added.filter((ms) => !Number.isNaN(ms))));
  const betweenPages = least([
    ...ways.flatMap(({ toIt, on }) => goals.map((to) => toIt + free.fromPage(by, to) - on(to))),
    ...modes.flatMap((mode) =>
      goals.map((to) => free.fromRiding(mode, by) + free.fromPage(by, to) - free.fromRiding(mode, to)),
    ),
  ]);
  return {
    betweenPages,
    onAnyWay: Math.min(betweenPages, least(ways.map(({ toIt, out }) => toIt + free.leavePage(by) - out))),
  };
}

/** A value for each key, worked out when it is first asked for. */
function onceFor<K, V>(of: (key: K) => V, nameOf: (key: K) => unknown = (key) => key): (key: K) => V {
  const found = new Map<unknown, V>();
  return (key) => {
    const name = nameOf(key);
    if (found.has(name)) return found.get(name) as V;
    const value = of(key);
    found.set(name, value);
    return value;
  };
}
