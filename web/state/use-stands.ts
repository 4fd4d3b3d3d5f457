import { useEffect, useState } from 'react';
import { useSelector } from 'react-redux';
import { isWaiting, type StandsState } from './stands.js';

const TICK_MS = 250;

export const useStands = (): StandsState['units'] => useSelector((state: { stands: StandsState }) => state.stands.units);

/** The time now, moving on while any of these units waits. */
export function useNow(units: StandsState['units']): number {
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
