import type { Code, KeyedMap } from '../map/display-map.js';
import { pagesListing } from '../map/pages-listing.js';
import type { DisplayState } from '../machine/display-state.js';
import { savedByWaiting } from './edit-bound.js';
import type { Gesture } from '../map/gesture.js';
import { gestureMs, type Pace } from './pace.js';
import { isHideable } from './page-distances.js';
import { waysBetween, type From, type PageVisit } from './ways-between.js';

/** What going to open codes and leaving still takes at least, ms. */
export type TravelBound = (state: DisplayState, open: readonly Code[]) => number;

/**
 * A bound from below on the time that going to open codes and leaving still takes: on every page with open codes the
 * moves along it that show them all and lead on from the last of them, between the pages the shortest order, and the
 * quickest way out; with every page entered once, or one of them once more. Moves along pages with open codes are
 * counted there alone. It never overstates, so that a search by it finds the optimum.
 * @param mayBeOpen all codes that any `open` may name
 */
export function travelBound(map: KeyedMap, pace: Pace, mayBeOpen: readonly Code[]): TravelBound {
  const { menu } = map;
  const least = (gestures: readonly (Gesture | null)[]) =>
    Math.min(...gestures.flatMap((g) => (g === null ? [] : [gestureMs(pace, g)])));
  const moveMs = least([menu.next, menu.previous]) + pace.lookMs;
  const leaveMs = quickestLeave(map, pace);
  const lists = listsOf(map);
  const ways = waysBetween(map, pace, new Set(mayBeOpen.flatMap(({ label }) => lists.places.get(label)?.page ?? [])));
  // Where the menu opens again as it closed, an opening may lead to any page: only moving and leaving are sure then.
  const isSure = menu.idle.reopensAt === 'first';
  const grouped = new WeakMap<readonly Code[], ReadonlyMap<string, readonly Place[]>>();
  const group = (open: readonly Code[]): ReadonlyMap<string, readonly Place[]> => {
    const before = grouped.get(open);
    if (before) return before;
    const byPage = new Map<string, Place[]>();
    for (const { label } of open) {
      const place = lists.places.get(label);
      if (place) byPage.set(place.page, [...(byPage.get(place.page) ?? []), place]);
    }
    grouped.set(open, byPage);
    return byPage;
  };
  const visits = new Map<string, PageVisit>();
  const visitOf = (page: string, places: readonly Place[], from: number): PageVisit => {
    const id = `${page}@${from}:${places.map(({ item }) => item).join()}`;
    const before = visits.get(id);
    if (before) return before;
    const list = lists.pages.get(page) ?? { count: 1, wraps: false, goesBack: true };
    const lines = places.map(({ at }) => at);
    const lasts = lastOf(places, from, list);
    const onward = list.goesBack ? null : onwardVisits(places, from, list, lists.lines.get(page) ?? []);
    const visit: PageVisit = {
      page,
      id,
      onceMs: oneVisit(lines, from, list) * moveMs,
      lasts: lasts.map(({ item }) => item),
      looseMs: (onward?.thenMoves ?? fewestMoves(lines, [from, 0], list)) * moveMs,
      breaks: onward && onward.breaks.map(({ item, moves }) => ({ item, ms: moves * moveMs })),
    };
    visits.set(id, visit);
    return visit;
  };
  const leaving = ({ screen }: DisplayState) =>
    screen.kind === 'menu' ? ways.outOf(screen.page, screen.item) : leaveMs;
  const unsure = ({ resume }: DisplayState, here: At, byPage: ReadonlyMap<string, readonly Place[]>): number => {
    let ms = leaveMs;
    for (const [page, places] of byPage) {
      const list = lists.pages.get(page);
      if (!list) continue;
      const stood = here ?? (resume && { page: resume.page, at: lists.lines.get(resume.page)?.[resume.item] ?? 0 });
      const from = stood?.page === page ? stood.at : 0;
      const lines = places.map(({ at }) => at);
      ms += fewestMoves(lines, [from, 0], list) * moveMs;
    }
    return ms;
  };
  return (state, open) => {
    const { screen } = state;
    const isOut = screen.kind === 'riding' || screen.kind === 'off';
    if (open.length === 0)
      return isOut ? 0 : isSure && Object.keys(state.unstored).length > 0 ? leaving(state) : leaveMs;
    const here = standingAt(screen, lists);
    const byPage = group(open);
    if (!isSure) return unsure(state, here, byPage);
    if (byPage.size === 0) return leaving(state);
    let first: PageVisit | null = null;
    const others: PageVisit[] = [];
    for (const [page, places] of byPage) {
      if (page === here?.page) first = visitOf(page, places, here.at);
      else others.push(visitOf(page, places, 0));
    }
    return ways.tour(fromOf(state, here), first, others);
  };
}

function fromOf({ screen, mode }: DisplayState, here: At): From {
  if (here && screen.kind === 'menu') return { at: 'line', page: here.page, item: screen.item };
  if (here) return { at: 'page', page: here.page };
  return screen.kind === 'riding' ? { at: 'riding', mode } : { at: 'anywhere' };
}

/** How far ahead a place lies where one only goes on; less than nothing behind. */
const ahead = (at: number, from: number, { count, wraps }: List): number =>
  wraps ? (at - from + count) % count : at - from;

/** Those of some places that may be shown last in one visit begun at `from`. */
function lastOf(places: readonly Place[], from: number, list: List): readonly Place[] {
  if (list.goesBack) return places;
  const far = Math.max(...places.map(({ at }) => ahead(at, from, list)));
  return places.filter(({ at }) => ahead(at, from, list) === far);
}

interface OnwardVisits {
  /** Lines at which a visit may end that leaves something for another, with the moves to them. */
  readonly breaks: readonly { readonly item: number; readonly moves: number }[];
  /** Moves from the first line on to what is left then, at least. */
  readonly thenMoves: number;
}

/** More than one visit of a page that one only goes on in, the first begun at `from`: what lies behind, or farthest, is left. */
function onwardVisits(places: readonly Place[], from: number, list: List, lines: readonly number[]): OnwardVisits {
  const behind = list.wraps ? [] : places.filter(({ at }) => at < from);
  const lasts = lastOf(places, from, list);
  const far = behind.length > 0 ? Infinity : Math.max(...lasts.map(({ at }) => ahead(at, from, list)));
  return {
    breaks: lines.flatMap((at, item) => {
      const moves = ahead(at, from, list);
      return moves >= 0 && moves <= far ? [{ item, moves }] : [];
    }),
    thenMoves: Math.max(...(behind.length > 0 ? behind : lasts).map(({ at }) => at)),
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

type At = { readonly page: string; readonly at: number } | null;

interface List {
  readonly count: number;
  readonly wraps: boolean;
  readonly goesBack: boolean;
}

/** Where a code stands: which line of which page, and how many moves along it. */
interface Place {
  readonly page: string;
  readonly item: number;
  readonly at: number;
}

interface Lists {
  readonly pages: ReadonlyMap<string, List>;
  readonly places: ReadonlyMap<string, Place>;
  /** Place of each line of a page. */
  readonly lines: ReadonlyMap<string, readonly number[]>;
}

/** Where everything stands. Lines that may be hidden cost no press then: they share their place with the line after them. */
function listsOf(map: KeyedMap): Lists {
  const places = new Map<string, Place>();
  const lines = new Map<string, readonly number[]>();
  const pages = new Map<string, List>();
  for (const page of map.menu.pages) {
    let at = 0;
    const own = page.items.map((item, i) => {
      const mine = at;
      // What stands on several pages may be met on any of them: nothing is sure of the way there.
      if ('code' in item && pagesListing(map, item.code).length === 1)
        places.set(item.code, { page: page.id, item: i, at: mine });
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
function standingAt(screen: DisplayState['screen'], lists: Lists): At {
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
