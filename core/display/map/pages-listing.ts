import type { DisplayMap, MenuPage, PageItem } from './display-map.js';

const known = new WeakMap<DisplayMap, ReadonlyMap<string, readonly MenuPage[]>>();

/** Pages on which each code stands, by label: several where lists share an entry. */
function listings(map: DisplayMap): ReadonlyMap<string, readonly MenuPage[]> {
  const before = known.get(map);
  if (before) return before;
  const pages = new Map<string, MenuPage[]>();
  for (const page of map.menu?.pages ?? [])
    for (const item of page.items) if ('code' in item) pages.set(item.code, [...(pages.get(item.code) ?? []), page]);
  known.set(map, pages);
  return pages;
}

/** Pages on which a code stands; none where keys do not come to it. */
export const pagesListing = (map: DisplayMap, label: string): readonly MenuPage[] => listings(map).get(label) ?? [];

/** The one ride mode to which a code belongs; null where it belongs to none, or to several alike. */
export function modeOf(map: DisplayMap, label: string): string | null {
  const modes = new Set(pagesListing(map, label).map(({ mode }) => mode));
  const [only] = modes;
  return modes.size === 1 ? (only ?? null) : null;
}

/** Whether a code is for this ride mode: on its list, or on one that belongs to no mode. */
export function isForMode(map: DisplayMap, label: string, mode: string | null): boolean {
  const pages = pagesListing(map, label);
  return pages.length === 0 || pages.some((page) => page.mode === undefined || page.mode === mode);
}

/** Pages to which an entry leads: `ofMode` to the list of the mode that is on, whichever that is. */
export function ledTo(map: DisplayMap, item: PageItem): readonly string[] {
  if ('page' in item && item.page === 'ofMode')
    return (map.menu?.pages ?? []).filter(({ mode }) => mode !== undefined).map(({ id }) => id);
  return 'page' in item ? [item.page] : 'back' in item ? [item.back] : [];
}
