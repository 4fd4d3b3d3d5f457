import { useEffect, useMemo, useState } from 'react';
import type { ReviseSetup } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { fetched } from '../ui/part-missing.js';
import type { setupAnew as workOutAnew } from './setup-anew.js';

/**
 * Works setups out on this stand, from what the server said last; null until that part of the app is here, and where
 * nothing is known to work one out from.
 */
export function useReviseSetup({ map, ground }: Pick<BenchView, 'map' | 'ground'>): ReviseSetup | null {
  const [setupAnew, setSetupAnew] = useState<typeof workOutAnew | null>(null);
  useEffect(() => {
    let isWanted = true;
    void fetchSetupAnew().then(
      (part) => isWanted && setSetupAnew(() => part.setupAnew),
      () => undefined,
    );
    return () => {
      isWanted = false;
    };
  }, []);
  // What this device kept of an earlier release has no ground.
  const known = (ground as BenchView['ground'] | undefined) ?? null;
  return useMemo(
    () => (setupAnew && known ? (state, why, cause) => setupAnew(state, map, known, why, cause) : null),
    [setupAnew, map, known],
  );
}

const fetchSetupAnew = fetched(() => import('./setup-anew.js'));
