import { useEffect, useMemo, useState } from 'react';
import { useSelector } from 'react-redux';
import type { SessionView } from '@decurio/contract';
import { useSession } from './session.js';
import { isWaiting, type AtHandState } from './at-hand.js';

const TICK_MS = 250;

/** Whose stands these are, as `OnStand` names it. */
export const ownerOf = (who: SessionView | null): string => `${who?.userId ?? ''} ${who?.station ?? ''}`;

/** The units that whoever is signed in works side by side here. */
export function useAtHand(): AtHandState['units'] {
  const { who } = useSession();
  const units = useSelector((state: { atHand: AtHandState }) => state.atHand.units);
  const owner = ownerOf(who);
  return useMemo(() => units.filter((unit) => unit.owner === owner), [units, owner]);
}

/** The time now, moving on while any of these units waits. */
export function useNow(units: AtHandState['units']): number {
  const [now, setNow] = useState(() => Date.now());
  const waits = units.some((unit) => isWaiting(unit, now));
  const ends = units.map(({ restart }) => restart?.until ?? 0).join();
  useEffect(() => {
    const look = () => setNow(Date.now());
    const soon = setTimeout(look, 0);
    const tick = waits ? setInterval(look, TICK_MS) : undefined;
    return () => {
      clearTimeout(soon);
      clearInterval(tick);
    };
  }, [waits, ends]);
  return now;
}
