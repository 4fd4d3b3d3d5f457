import { useCallback, useState } from 'react';
import { useSession } from '../state/session.js';
import { dropDraft, keepDraft, readDraft } from './drafts.js';

export interface Draft<T> {
  readonly value: T;
  readonly change: (part: Partial<T>) => void;
  /** It was taken: nothing is kept any more. */
  readonly forget: () => void;
  /** When it was last typed into, in ms since 1970, where it was begun before this page was opened. */
  readonly begunAt: number | null;
  readonly startAfresh: () => void;
}

/**
 * What is typed into a form, kept on this device for this person and place until it was taken: going away, a reload,
 * Escape, a click beside a dialog or a crash loses nothing.
 */
export function useDraft<T extends object>(place: string, empty: T): Draft<T> {
  const personId = useSession().who?.userId ?? '';
  const [start, setStart] = useState(() => {
    const kept = readDraft(personId, place);
    const isForm = typeof kept?.value === 'object' && kept.value !== null;
    return isForm ? { value: { ...empty, ...kept.value }, begunAt: kept.at } : { value: empty, begunAt: null };
  });
  const [value, setValue] = useState(start.value);
  const change = useCallback(
    (part: Partial<T>) =>
      setValue((before) => {
        const next = { ...before, ...part };
        keepDraft(personId, place, next);
        return next;
      }),
    [personId, place],
  );
  const forget = useCallback(() => dropDraft(personId, place), [personId, place]);
  const startAfresh = () => {
    forget();
    setValue(empty);
    setStart({ value: empty, begunAt: null });
  };
  return { value, change, forget, begunAt: start.begunAt, startAfresh };
}
