import { useEffect, useSyncExternalStore } from 'react';

let takers = 0;
const listeners = new Set<() => void>();

function changed(by: 1 | -1): void {
  takers += by;
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** While this is on the page Space belongs to it: the stopwatch must not choose codes. */
export function useOwnSpace(): void {
  useEffect(() => {
    changed(1);
    return () => changed(-1);
  }, []);
}

export const useIsSpaceOwned = (): boolean => useSyncExternalStore(subscribe, () => takers > 0);
