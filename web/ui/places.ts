/** Where one can be, as the strap and the tab name it. */
export const PLACES = [
  ['/line', 'Line'],
  ['/plan', 'Plan'],
  ['/bench', 'Bench'],
  ['/orders', 'Orders'],
  ['/library', 'Library'],
  ['/ledger', 'Ledger'],
  ['/practice', 'Practice'],
] as const;

/** The place that an address belongs to, or null for pages beside them. */
export const placeOf = (pathname: string): string | null => PLACES.find(([to]) => pathname.startsWith(to))?.[1] ?? null;
