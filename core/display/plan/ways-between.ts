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
  /** Lines at which a first visit may end that leaves something for `more` others, each with the least moves of all visits then. */
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
  const entered = onceFor((page: string) => leastDetour(map, page, counted, free, along));
  /** From the visit of a page to the next one, or out of the menu: at the last line, or sooner and back once more. */
  const onFrom = onceFor(
    ({ page, ends, breaks, looseMs }: PageVisit) =>
      onceFor((to: string | null) => {
        const onward = ({ leaveItem, fromItem }: PageDistances, some: readonly EndOfVisit[]): number =>
          Math.min(
            ...some.map(({ item, ms }) => ms + (to === null ? leaveItem(page, item) : fromItem(page, item, to))),
          );
        const atOnceMs = onward(along(page), ends);
        if (atOnceMs <= looseMs + entered(page) + straightOn(page)(to)) return atOnceMs;
        const again = breaks().map(({ item, ms, more }) => ({ item, ms: ms + more * entered(page) }));
        return Math.min(atOnceMs, onward(straight(page), again));
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
  const nearest = (from: From, first: PageVisit | null, visits: readonly PageVisit[]): number => {
    const onward = [...(first ? [first] : []), ...visits].reduce(
      (ms, at) => ms + Math.min(onFrom(at)(null), ...butFor(visits, at).map(({ page }) => onFrom(at)(page))),
      0,
    );
    return onward + (first ? 0 : Math.min(...visits.map(({ page }) => entering(from, page))));
  };
  return {
    tour: (from, first, visits) => {
      if (visits.length > MOST_ORDERED) return nearest(from, first, visits);
      if (first) return rest(first, visits);
      return Math.min(...visits.map((to) => entering(from, to.page) + rest(to, butFor(visits, to))));
    },
    outOf: all.leaveItem,
  };
}

const butFor = (visits: readonly PageVisit[], one: PageVisit): readonly PageVisit[] =>
  visits.filter((other) => other !== one);

/** What it adds at least to any way to go by this page as well. */
function leastDetour(
  map: KeyedMap,
  by: string,
  counted: ReadonlySet<string>,
  free: PageDistances,
  along: (page: string) => PageDistances,
): number {
  const goals = [...counted];
  const added = map.menu.pages.flatMap(({ id: page, items }) =>
    items.flatMap((_, item) => {
      const { fromItem, leaveItem } = along(page);
      const toIt = fromItem(page, item, by);
      return [
        toIt + free.leavePage(by) - leaveItem(page, item),
        ...goals.map((to) => toIt + free.fromPage(by, to) - fromItem(page, item, to)),
      ];
    }),
  );
  const modes = map.ride?.modes?.list.map(({ id }) => id) ?? [null];
  const fromOutside = modes.flatMap((mode) =>
    goals.map((to) => free.fromRiding(mode, by) + free.fromPage(by, to) - free.fromRiding(mode, to)),
  );
  return Math.max(0, Math.min(...[...added, ...fromOutside].filter((ms) => !Number.isNaN(ms))));
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
