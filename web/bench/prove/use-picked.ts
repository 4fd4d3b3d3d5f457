import { useSyncExternalStore } from 'react';

/** Which test of which visit somebody picked in the list, and which were put off to the end. */
interface Picked {
  readonly visitId: string;
  readonly test: string | null;
  readonly later: readonly string[];
}

let picked: Picked = { visitId: '', test: null, later: [] };
const listeners = new Set<() => void>();
const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const set = (next: Picked): void => {
  picked = next;
  for (const listener of listeners) listener();
};
const NONE = { test: null, later: [] } as const;

/** Shared by the work in the middle and the list at the right. Another visit begins with nothing picked. */
export function usePicked(visitId: string): Pick<Picked, 'test' | 'later'> & {
  readonly pick: (test: string | null) => void;
  readonly putOff: (test: string) => void;
} {
  const now = useSyncExternalStore(subscribe, () => picked);
  const own = now.visitId === visitId ? now : { visitId, ...NONE };
  return {
    test: own.test,
    later: own.later,
    pick: (test) => set({ ...own, test }),
    putOff: (test) => set({ ...own, test: null, later: [...own.later.filter((each) => each !== test), test] }),
  };
}
