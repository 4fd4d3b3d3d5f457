import { useCallback, useState } from 'react';

/** What is typed into a form, kept on this device until it was taken: leaving the page or a crash loses nothing. */
export function useDraft<T extends object>(
  key: string,
  empty: T,
): readonly [T, (change: Partial<T>) => void, () => void] {
  const keptAt = `decurio.draft.${key}`;
  const [draft, setDraft] = useState<T>(() => restored(keptAt, empty));
  const change = useCallback(
    (part: Partial<T>) =>
      setDraft((before) => {
        const next = { ...before, ...part };
        localStorage.setItem(keptAt, JSON.stringify(next));
        return next;
      }),
    [keptAt],
  );
  const forget = useCallback(() => localStorage.removeItem(keptAt), [keptAt]);
  return [draft, change, forget];
}

function restored<T extends object>(keptAt: string, empty: T): T {
  try {
    const kept = JSON.parse(localStorage.getItem(keptAt) ?? 'null') as Partial<T> | null;
    return { ...empty, ...kept };
  } catch {
    return empty;
  }
}
