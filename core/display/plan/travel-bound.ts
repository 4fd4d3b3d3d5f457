import type { Code, KeyedMap } from '../map/display-map.js';
import { pagesListing } from '../map/pages-listing.js';
import type { DisplayState } from '../machine/display-state.js';
import { savedByWaiting } from './edit-bound.js';
import type { Gesture } from '../map/gesture.js';
import { gestureMs, type Pace } from './pace.js';
import { isHideable } from './page-distances.js';
import { breaksOf, endsOf, fewestMoves, lastEndsOf, type List, type Place, type Reached } from './page-visits.js';
import { waysBetween, type EndOfVisit, type From, type PageVisit } from './ways-between.js';

/** What going to open codes and leaving still takes at least, ms. */
export type TravelBound = (state: DisplayState, open: readonly Code[]) => number;

/**
 * A bound from below on the time that going to open codes and leaving still takes: on every page with open codes the
 * moves along it that show them all and lead on from the last of them, in one visit or in more, between the pages the
 * shortest order, and the quickest way out. Moves along pages with open codes are counted there alone. It never
 * overstates, so that a search by it finds the optimum.
 * @param mayBeOpen all codes that any `open` may name
 * @param stores whether they are changed, and must be stored at the end
 */
export function travelBound(map: KeyedMap, pace: Pace, mayBeOpen: readonly Code[], stores = true): TravelBound {
  const { menu } = map;
  const least = (gestures: readonly (Gesture | null)[]) =>
    Math.min(...gestures.flatMap((g) => (g === null ? [] : [gestureMs(pace, g)])));
  const moveMs = least([menu.next, menu.previous]) + pace.lookMs;
  const leaveMs = quickestLeave(map, pace);
  const lists = listsOf(map);
  const counted = new Set(mayBeOpen.flatMap(({ label }) => lists.places.get(label)?.page ?? []));
  const ways = waysBetween(map, pace, counted, stores);
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
  const visitOf = (page: string, places: readonly Place[], stood: number | null): PageVisit => {
    const id = `${page}@${stood ?? ''}:${places.map(({ item }) => item).join()}`;
    const before = visits.get(id);
    if (before) return before;
    const list = lists.pages.get(page) ?? { count: 1, wraps: false, goesBack: true };
    const isHere = stood !== null;
    const from = stood ?? 0;
    const own = { places, from, list, lines: lists.lines.get(page) ?? [] };
    const inMs = ({ item, moves }: Reached): EndOfVisit => ({ item, ms: moves * moveMs });
    const lines = places.map(({ at }) => at);
    let breaks: ReturnType<PageVisit['breaks']> | null = null;
    const visit: PageVisit = {
      page,
      id,
      isHere,
      ends: endsOf(own).map(inMs),
      breaks: () =>
        (breaks ??= (isHere ? breaksOf(own) : lastEndsOf(own)).map((each) => ({ ...inMs(each), more: each.more }))),
      looseMs: fewestMoves(lines, [from, 0], list) * moveMs,
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
      else others.push(visitOf(page, places, null));
    }
    return ways.tour(fromOf(state, here), first, others);
  };
}

function fromOf({ screen, mode }: DisplayState, here: At): From {
  if (here && screen.kind === 'menu') return { at: 'line', page: here.page, item: screen.item };
  if (here) return { at: 'page', page: here.page };
  return screen.kind === 'riding' ? { at: 'riding', mode } : { at: 'anywhere' };
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
