import { useCallback, useEffect, useState } from 'react';

/** A page that closes lets go of its unit within this time: a reload is no second page. */
const LETS_GO_MS = 600;

export interface OwnTab {
  /** Null while it is not known yet. */
  readonly isMine: boolean | null;
  /** From now on this page is the one; the other sees that it is not any more. */
  readonly take: () => void;
}

/** One page of a device works on a unit at a time: two plans of the same keys would each go on as if the other were not. */
export function useOwnTab(unitId: string): OwnTab {
  const [round, setRound] = useState({ count: 0, steals: false });
  const [isMine, setMine] = useState<boolean | null>(null);
  useEffect(() => {
    // Only a page that came by https or from this machine can tell.
    if (!('locks' in navigator)) return undefined;
    const stop = new AbortController();
    let letGo: () => void = () => undefined;
    const patience = setTimeout(() => setMine((known) => known ?? false), LETS_GO_MS);
    const held = () => {
      clearTimeout(patience);
      setMine(true);
      return new Promise<void>((done) => {
        letGo = done;
      });
    };
    const name = `decurio-unit-${unitId}`;
    const asked = round.steals
      ? navigator.locks.request(name, { steal: true }, held)
      : navigator.locks.request(name, { signal: stop.signal }, held);
    asked.catch(() => {
      if (stop.signal.aborted) return;
      // Another page took it: wait until that one lets go.
      setMine(false);
      setRound(({ count }) => ({ count: count + 1, steals: false }));
    });
    return () => {
      clearTimeout(patience);
      stop.abort();
      letGo();
    };
  }, [unitId, round]);
  const take = useCallback(() => setRound(({ count }) => ({ count: count + 1, steals: true })), []);
  return { isMine, take };
}
