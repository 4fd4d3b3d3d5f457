import { useEffect, useState } from 'react';
import type { PlanStep } from '@decurio/core';

/** Shorter holds are over before one has read a number. */
const COUNTED_FROM_MS = 1_000;
const TICK_MS = 100;

export interface HoldCount {
  /** What is left of the hold, or null while it has not begun. */
  readonly leftMs: number | null;
  readonly begin: () => void;
}

/** Whether the seconds of a hold are counted: not where one lets go by the glass. */
export const isCounted = ({ gesture, purpose }: PlanStep): boolean =>
  gesture.kind === 'hold' && gesture.ms >= COUNTED_FROM_MS && purpose !== 'change';

/** Counts a long hold down once it began; `onOver` follows. Give its owner a new `key` with each press. */
export function useHoldCount(holdMs: number, onOver: () => void): HoldCount {
  const [leftMs, setLeft] = useState<number | null>(null);
  const counts = leftMs !== null;
  useEffect(() => {
    if (!counts) return;
    const end = Date.now() + holdMs;
    const timer = setInterval(() => {
      const left = end - Date.now();
      if (left > 0) return setLeft(left);
      clearInterval(timer);
      onOver();
    }, TICK_MS);
    return () => clearInterval(timer);
    // It counts once: what follows it then, follows.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [counts, holdMs]);
  return { leftMs, begin: () => setLeft(holdMs) };
}
