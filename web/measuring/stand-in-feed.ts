import { useSyncExternalStore } from 'react';

/** What instruments beside the stand-in unit would read of it now. */
export interface StandInFeed {
  readonly unitId: string;
  /** Of the tread, on whatever it rolls, km/h. */
  readonly treadKmh: number;
  /** Against the ground: none on a stand. */
  readonly groundKmh: number;
}

let feed: StandInFeed | null = null;
const listeners = new Set<() => void>();

/** Tells the instruments what the stand-in unit does; null once it is put away. */
export function tellFeed(next: StandInFeed | null): void {
  feed = next;
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** What the stand-in unit does now; null where none is out. */
export const useStandInFeed = (): StandInFeed | null => useSyncExternalStore(subscribe, () => feed);
