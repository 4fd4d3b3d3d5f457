import { LRUCache } from 'lru-cache';

const MOST_LETTERS = 24 * 1024 * 1024;

/** By the text itself: what stands in a row never changes, and the same text means the same wherever it was read. */
const kept = new LRUCache<string, object>({ maxSize: MOST_LETTERS, sizeCalculation: (_, text) => text.length + 1 });

/** What a stored document says, parsed once per process. It is shared: nothing in it can be changed. */
export function parsedOnce(text: string): object {
  const known = kept.get(text);
  if (known) return known;
  const parsed = frozen(JSON.parse(text) as object);
  kept.set(text, parsed);
  return parsed;
}

function frozen<T extends object>(value: T): T {
  for (const each of Object.values(value) as unknown[]) if (typeof each === 'object' && each !== null) frozen(each);
  return Object.freeze(value);
}
