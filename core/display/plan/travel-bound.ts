import type { Code, KeyedMap } from '../map/display-map.js';
import { pagesListing } from '../map/pages-listing.js';
import type { DisplayState } from '../machine/display-state.js';
import { savedByWaiting } from './edit-bound.js';
import type { Gesture } from '../map/gesture.js';
import { gestureMs, type Pace } from './pace.js';
import { isHideable, pageDistances, type PageDistances } from './page-distances.js';

/** Pages up to this many are put in their best order; more of them cost their nearest entry each. */
const MOST_ORDERED = 8;

/**
 * A bound from below on the time that going to open codes and leaving still takes, ms: on every page with open codes the
 * shortest way that shows them all, once through or in several visits, between the pages the shortest order, and the
 * quickest way out. It never overstates, so that a search by it finds the optimum.
 */
export function travelBound(map: KeyedMap, pace: Pace): (state: DisplayState, open: readonly Code[]) => number {
  const { menu } = map;
  const least = (gestures: readonly (Gesture | null)[]) =>
    Math.min(...gestures.flatMap((g) => (g === null ? [] : [gestureMs(pace, g)])));
  const moveMs = least([menu.next, menu.previous]) + pace.lookMs;
  const leaveMs = quickestLeave(map, pace);
  const lists = listsOf(map);
  const distances = pageDistances(map, pace);
  const between = pageOrders(map, distances);
  // Where the menu opens again as it closed, an opening may lead to any page: only moving and leaving are sure then.
  const isSure = menu.idle.reopensAt === 'first';
  const grouped = new WeakMap<readonly Code[], ReadonlyMap<string, readonly number[]>>();
  const group = (open: readonly Code[]): ReadonlyMap<string, readonly number[]> => {
    const byPage = new Map<string, number[]>();
    for (const { label } of open) {
      const place = lists.places.get(label);
      if (place) byPage.set(place.page, [...(byPage.get(place.page) ?? []), place.at]);
    }
    return byPage;
  };
  const leaving = ({ screen }: DisplayState) =>
    screen.kind === 'menu' ? distances.leaveItem(screen.page, screen.item) : leaveMs;
  return (state, open) => {
    const { screen, resume } = state;
    const isOut = screen.kind === 'riding' || screen.kind === 'off';
    if (open.length === 0)
      return isOut ? 0 : isSure && Object.keys(state.unstored).length > 0 ? leaving(state) : leaveMs;
    const here = standingAt(screen, lists);
    const byPage = grouped.get(open) ?? group(open);
    grouped.set(open, byPage);
    const last = [...byPage.keys()];
    let ms = !isSure ? leaveMs : last.length > 0 ? Math.min(...last.map(distances.leavePage)) : leaving(state);
    for (const [page, items] of byPage) {
      const list = lists.pages.get(page);
      if (!list) continue;
      const stood = here ?? (resume && { page: resume.page, at: lists.lines.get(resume.page)?.[resume.item] ?? 0 });
      const from = stood?.page === page ? stood.at : 0;
      const loose = fewestMoves(items, [from, 0], list) * moveMs;
      ms += isSure ? Math.min(oneVisit(items, from, list) * moveMs, loose + distances.fromPage(page, page)) : loose;
    }
    if (!isSure) return ms;
    const others = [...byPage.keys()].filter((page) => page !== here?.page);
    return (
      ms + between(state, here ? { page: here.page, item: screen.kind === 'menu' ? screen.item : 0 } : null, others)
    );
  };
}

/** By waiting, by the gesture that leaves, by an Exit entry, or past the end of a list that closes there. */
function quickestLeave(map: KeyedMap, pace: Pace): number {
  const { menu } = map;
  const ways = [
    menu.close,
    menu.pages.some((page) => page.items.some((item) => 'exit' in item)) ? menu.pick : null,
    menu.pages.some((page) => (page.afterLast ?? menu.afterLast) === 'leave') ? menu.next : null,
  ];
  return Math.min(
    Math.max(0, Math.min(menu.idle.browseMs, menu.idle.editMs) - savedByWaiting(map, pace)),
    ...ways.flatMap((gesture) => (gesture ? [gestureMs(pace, gesture)] : [])),
  );
}

interface List {
  readonly count: number;
  readonly wraps: boolean;
  readonly goesBack: boolean;
}

interface Lists {
  readonly pages: ReadonlyMap<string, List>;
  readonly places: ReadonlyMap<string, { readonly page: string; readonly at: number }>;
  /** Place of each line of a page. */
  readonly lines: ReadonlyMap<string, readonly number[]>;
}

/** Where everything stands. Lines that may be hidden cost no press then: they share their place with the line after them. */
function listsOf(map: KeyedMap): Lists {
  const places = new Map<string, { page: string; at: number }>();
  const lines = new Map<string, readonly number[]>();
  const pages = new Map<string, List>();
  for (const page of map.menu.pages) {
    let at = 0;
    const own = page.items.map((item) => {
      const mine = at;
      // What stands on several pages may be met on any of them: nothing is sure of the way there.
      if ('code' in item && pagesListing(map, item.code).length === 1)
        places.set(item.code, { page: page.id, at: mine });
      if (!isHideable(map, item)) at++;
      return mine;
    });
    lines.set(page.id, own);
    pages.set(page.id, {
      count: Math.max(1, at),
      wraps: (page.afterLast ?? map.menu.afterLast) === 'wrap',
      goesBack: map.menu.previous !== null,
    });
  }
  return { pages, places, lines };
}

/** The page on the glass, or about to come there once the PIN is given or a message has passed. */
function standingAt(
  screen: DisplayState['screen'],
  lists: Lists,
): { readonly page: string; readonly at: number } | null {
  switch (screen.kind) {
    case 'menu':
      return { page: screen.page, at: lists.lines.get(screen.page)?.[screen.item] ?? 0 };
    case 'pin':
      return standingAt(screen.then, lists);
    case 'message':
      return standingAt(screen.then, lists);
    default:
      return null;
  }
}

/** Places ahead of `from` and behind it, as numbers of moves, nearest first. */
function spread(
  items: readonly number[],
  from: number,
  { count, wraps }: List,
): { readonly ahead: readonly number[]; readonly behind: readonly number[] } {
  const sorted = (moves: number[]) => moves.sort((a, b) => a - b);
  if (wraps)
    return { ahead: sorted(items.filter((i) => i !== from).map((i) => (i - from + count) % count)), behind: [] };
  return {
    ahead: sorted(items.filter((i) => i > from).map((i) => i - from)),
    behind: sorted(items.filter((i) => i < from).map((i) => from - i)),
  };
}

/** Least number of moves that shows each of `items` in one visit begun at `from`; Infinity where that cannot be. */
export function oneVisit(items: readonly number[], from: number, list: List): number {
  const { ahead, behind } = spread(items, from, list);
  const [far, back] = [ahead.at(-1) ?? 0, behind.at(-1) ?? 0];
  if (!list.wraps) return back === 0 ? far : list.goesBack ? Math.min(2 * far + back, far + 2 * back) : Infinity;
  if (!list.goesBack) return far;
  let best = Infinity;
  for (let split = 0; split <= ahead.length; split++) {
    const right = split === 0 ? 0 : (ahead[split - 1] ?? 0);
    const left = split === ahead.length ? 0 : list.count - (ahead[split] ?? 0);
    best = Math.min(best, 2 * right + left, right + 2 * left);
  }
  return best;
}

/** Least number of moves that shows each of `items`, in any number of visits begun at any of `entries`. */
function fewestMoves(items: readonly number[], entries: readonly number[], { count, wraps, goesBack }: List): number {
  const from = Math.min(...entries);
  const to = Math.max(...entries);
  const between = items.filter((item) => item > from && item < to).map((item) => item - from);
  const ahead = items.filter((item) => item > to).map((item) => item - to);
  const behind = items.filter((item) => item < from).map((item) => from - item);
  const inner = stretch(between, to - from, goesBack);
  if (!wraps) return inner + Math.max(0, ...ahead) + (goesBack ? Math.max(0, ...behind) : 0);
  const outerLength = count - (to - from);
  return inner + stretch([...ahead, ...behind.map((moves) => outerLength - moves)], outerLength, goesBack);
}

/** Moves that show every place of a stretch from its two ends: all of it but its widest gap, or up to the last place where one only goes on. */
function stretch(places: readonly number[], length: number, goesBack: boolean): number {
  if (places.length === 0) return 0;
  const sorted = [...places].sort((a, b) => a - b);
  if (!goesBack) return sorted.at(-1) ?? 0;
  const ends = [0, ...sorted, length];
  return length - Math.max(...ends.slice(1).map((place, i) => place - (ends[i] ?? 0)));
}

type At = { readonly page: string; readonly item: number } | null;

/** Least time to enter every one of some pages once, in the best order. */
function pageOrders(map: KeyedMap, distances: PageDistances) {
  const ids = map.menu.pages.map((page) => page.id);
  const known = new Map<string, number>();
  /** Least time to enter all pages of `mask`, beginning at the most favourable line of `page`. */
  const rest = (page: string, mask: number): number => {
    if (mask === 0) return 0;
    const key = `${page} ${mask}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    let best = Infinity;
    ids.forEach((to, i) => {
      if (mask & (1 << i)) best = Math.min(best, distances.fromPage(page, to) + rest(to, mask & ~(1 << i)));
    });
    known.set(key, best);
    return best;
  };
  return (state: DisplayState, here: At, pages: readonly string[]): number => {
    if (pages.length === 0) return 0;
    const first = (to: string): number => {
      const { screen } = state;
      if (here && screen.kind === 'menu') return distances.fromItem(here.page, here.item, to);
      if (here) return distances.fromPage(here.page, to);
      return screen.kind === 'riding' ? distances.fromRiding(state.mode, to) : 0;
    };
    if (pages.length > MOST_ORDERED || ids.length > 30) return Math.max(...pages.map(first));
    const mask = pages.reduce((bits, page) => bits | (1 << ids.indexOf(page)), 0);
    return Math.min(...pages.map((to) => first(to) + rest(to, mask & ~(1 << ids.indexOf(to)))));
  };
}
