import { beforeEach, describe, expect, it } from 'vitest';
import { dropDraft, dropOldDrafts, keepDraft, readDraft } from './drafts.js';

/** As a browser keeps it, with room for so many characters. */
class Shelf implements Storage {
  private readonly kept = new Map<string, string>();
  constructor(private readonly room = Infinity) {}
  get length(): number {
    return this.kept.size;
  }
  key = (i: number): string | null => [...this.kept.keys()][i] ?? null;
  getItem = (key: string): string | null => this.kept.get(key) ?? null;
  setItem = (key: string, value: string): void => {
    if (value.length > this.room) throw new DOMException('full', 'QuotaExceededError');
    this.kept.set(key, value);
  };
  removeItem = (key: string): void => void this.kept.delete(key);
  clear = (): void => this.kept.clear();
}

const DAY_MS = 24 * 3_600_000;
let shelf: Shelf;
beforeEach(() => {
  shelf = new Shelf();
});

describe('a draft', () => {
  it('is found again by the same person at the same place, and by nobody else', () => {
    keepDraft('teo', 'hold.unit-1', { words: 'lever bent' }, 1000, shelf);
    expect(readDraft('teo', 'hold.unit-1', shelf)).toEqual({ at: 1000, value: { words: 'lever bent' } });
    expect(readDraft('ines', 'hold.unit-1', shelf)).toBeNull();
    expect(readDraft('teo', 'hold.unit-2', shelf)).toBeNull();
  });

  it('is gone once it was taken', () => {
    keepDraft('teo', 'hold.unit-1', { words: 'lever bent' }, 1000, shelf);
    dropDraft('teo', 'hold.unit-1', shelf);
    expect(readDraft('teo', 'hold.unit-1', shelf)).toBeNull();
  });

  it.each(['{"at":', '[]', '7', '{"at":"then","value":1}', '{"at":5}'])('that reads %s is none', (text) => {
    shelf.setItem('decurio.draft.teo.hold.unit-1', text);
    expect(readDraft('teo', 'hold.unit-1', shelf)).toBeNull();
    expect(dropOldDrafts(6, shelf)).toBe(text === '{"at":5}' ? 0 : 1);
  });

  it('that this device has no room for is said not to be kept', () => {
    expect(keepDraft('teo', 'capture', { presses: 'x'.repeat(100) }, 1000, new Shelf(50))).toBe(false);
  });
});

it('drafts that nobody came back to for 45 days are dropped, and nothing else is', () => {
  const now = 100 * DAY_MS;
  keepDraft('teo', 'old', {}, now - 46 * DAY_MS, shelf);
  keepDraft('teo', 'new', {}, now - 44 * DAY_MS, shelf);
  shelf.setItem('decurio.run.1', 'not a draft');
  expect(dropOldDrafts(now, shelf)).toBe(1);
  expect(readDraft('teo', 'new', shelf)).not.toBeNull();
  expect(shelf.getItem('decurio.run.1')).toBe('not a draft');
});
