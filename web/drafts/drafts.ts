/** What somebody typed into a form and has not sent yet, and when they last typed. */
export interface KeptDraft {
  /** ms since 1970. */
  readonly at: number;
  readonly value: unknown;
}

const PREFIX = 'decurio.draft.';
/** A draft that nobody came back to for so long is about a unit that has left. */
const KEPT_MS = 45 * 24 * 3_600_000;

const keyOf = (personId: string, place: string): string => `${PREFIX}${personId}.${place}`;

/** What this person had begun at this place on this device; null where nothing is kept or it cannot be read. */
export function readDraft(personId: string, place: string, store: Storage = localStorage): KeptDraft | null {
  try {
    const kept = JSON.parse(store.getItem(keyOf(personId, place)) ?? 'null') as Partial<KeptDraft> | null;
    return kept !== null && typeof kept.at === 'number' && kept.value !== undefined ? (kept as KeptDraft) : null;
  } catch {
    return null;
  }
}

/** Keeps a draft. False where this device has no room left: what is typed then lasts as long as its page. */
export function keepDraft(
  personId: string,
  place: string,
  value: unknown,
  now: number = Date.now(),
  store: Storage = localStorage,
): boolean {
  try {
    store.setItem(keyOf(personId, place), JSON.stringify({ at: now, value } satisfies KeptDraft));
    return true;
  } catch {
    return false;
  }
}

export function dropDraft(personId: string, place: string, store: Storage = localStorage): void {
  store.removeItem(keyOf(personId, place));
}

/** Drops drafts that nobody came back to, and what is none. Gives how many. */
export function dropOldDrafts(now: number = Date.now(), store: Storage = localStorage): number {
  const keys = Array.from({ length: store.length }, (_, i) => store.key(i) ?? '').filter((key) =>
    key.startsWith(PREFIX),
  );
  const old = keys.filter((key) => {
    try {
      const kept = JSON.parse(store.getItem(key) ?? 'null') as Partial<KeptDraft> | null;
      return typeof kept?.at !== 'number' || now - kept.at > KEPT_MS;
    } catch {
      return true;
    }
  });
  for (const key of old) store.removeItem(key);
  return old.length;
}
