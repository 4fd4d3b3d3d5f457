import type { Condition } from './code.js';
import { pagesListing } from './pages-listing.js';
import type { DisplayMap } from './display-map.js';

const known = new WeakMap<DisplayMap, ReadonlyMap<string, Condition>>();

/** Under which condition each code comes on the glass, by label: its own, or that of the one entry that leads to its page. */
export function conditionsOf(map: DisplayMap): ReadonlyMap<string, Condition> {
  const before = known.get(map);
  if (before) return before;
  const conditions = new Map<string, Condition>();
  for (const page of map.menu?.pages ?? []) {
    const way = wayTo(map, page.id);
    if (!way) continue;
    for (const item of page.items)
      if ('code' in item && pagesListing(map, item.code).length === 1) conditions.set(item.code, way);
  }
  for (const { label, shownIf } of map.codes) if (shownIf) conditions.set(label, shownIf);
  known.set(map, conditions);
  return conditions;
}

/** The condition of the only way to a page; null where there is a way without one. */
function wayTo({ menu }: DisplayMap, id: string): Condition | null {
  if (
    !menu ||
    menu.opens.some(({ page }) => page === id || page === 'ofMode') ||
    menu.pages.some(({ items }) => items.some((item) => 'page' in item && item.page === 'ofMode')) ||
    menu.turns.some(({ to }) => to === id)
  )
    return null;
  const ways = menu.pages.flatMap((page) => page.items.filter((item) => 'page' in item && item.page === id));
  const [only] = ways;
  return ways.length === 1 && only && 'page' in only ? (only.shownIf ?? null) : null;
}
