import { useState } from 'react';
import { mayAskTogether, type GoneThrough } from '@decurio/core';
import { useSession } from '../state/session.js';

/** What is gone through one by one on a person's first unit of a type at a stand in a shift. */
export type Kind = 'cautions' | 'checks' | 'restart';

const PREFIX = 'decurio.goneThrough.';

function kept(key: string): GoneThrough | null {
  try {
    const known = JSON.parse(localStorage.getItem(key) ?? 'null') as Partial<GoneThrough> | null;
    return known !== null && typeof known.at === 'number' && Array.isArray(known.items) ? (known as GoneThrough) : null;
  } catch {
    return null;
  }
}

export interface Habit {
  /** These may be said with one key: the same ones were gone through one by one in this shift. */
  readonly isTogether: boolean;
  /** They were gone through one by one now. */
  readonly keep: (items: readonly string[]) => void;
}

/** Whether this person knows these on this type at this stand; decided once, as the step opens. */
export function useHabit(kind: Kind, typeId: string, items: readonly string[]): Habit {
  const { who, house } = useSession();
  const key = `${PREFIX}${kind} ${who?.userId ?? ''} ${who?.station ?? ''} ${typeId}`;
  const [isTogether] = useState(
    () => house?.cautions === 'firstOfType' && items.length > 0 && mayAskTogether(kept(key), items, Date.now()),
  );
  return {
    isTogether,
    keep: (done) => {
      const before = kept(key);
      const isSameShift = before !== null && mayAskTogether(before, [], Date.now());
      const known: GoneThrough = isSameShift
        ? { at: before.at, items: [...new Set([...before.items, ...done])] }
        : { at: Date.now(), items: done };
      localStorage.setItem(key, JSON.stringify(known));
    },
  };
}

/** After a surprise nobody on this device is taken to know them: the next unit is asked in full. */
export function forgetHabits(): void {
  for (const key of Object.keys(localStorage)) if (key.startsWith(PREFIX)) localStorage.removeItem(key);
}
