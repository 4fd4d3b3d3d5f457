import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Role } from '@decurio/core';
import type { NewEvidence } from '@decurio/contract';

/** An entry made on this device, until the server has it. */
export interface Waiting {
  readonly entry: NewEvidence;
  readonly unitId: string;
  readonly serial: string;
  readonly visitId: string;
  /** Who made it, and at which stand: only they send it. */
  readonly userId: string;
  readonly name: string;
  readonly role: Role;
  readonly station: string;
  /** Counts up on this device: entries leave in the order they were made. */
  readonly order: number;
}

interface Shelf extends DBSchema {
  entries: { key: string; value: Waiting & { readonly tab: string } };
  photos: {
    key: string;
    value: { readonly id: string; readonly unitId: string; readonly visitId: string; readonly jpeg: Blob };
  };
}

let opened: Promise<IDBPDatabase<Shelf>> | undefined;
const shelf = (): Promise<IDBPDatabase<Shelf>> =>
  (opened ??= openDB<Shelf>('decurio-outbox', 1, {
    upgrade: (db) => {
      db.createObjectStore('entries', { keyPath: 'entry.id' });
      db.createObjectStore('photos', { keyPath: 'id' });
    },
  }));

/** Each page that is open holds this lock, so that another knows whose entries still have someone to send them. */
const TAB = `decurio-tab-${crypto.randomUUID()}`;
if ('locks' in navigator) void navigator.locks.request(TAB, () => new Promise(() => undefined));

export const putEntry = async (waiting: Waiting): Promise<void> => {
  await (await shelf()).put('entries', { ...waiting, tab: TAB });
};

export const dropEntry = async (id: string): Promise<void> => (await shelf()).delete('entries', id);

/** Entries that a page left behind which is not open any more, oldest first; they are this page's from now on. */
export async function adoptEntries(): Promise<readonly Waiting[]> {
  const db = await shelf();
  const held = 'locks' in navigator ? ((await navigator.locks.query()).held ?? []).map(({ name }) => name) : [];
  const left = (await db.getAll('entries')).filter(({ tab }) => !held.includes(tab));
  await Promise.all(left.map((waiting) => db.put('entries', { ...waiting, tab: TAB })));
  return left.map(({ tab: _tab, ...waiting }) => waiting).sort((a, b) => a.order - b.order);
}

export const putPhoto = async (id: string, unitId: string, visitId: string, jpeg: Blob): Promise<void> => {
  await (await shelf()).put('photos', { id, unitId, visitId, jpeg });
};

export const takePhoto = async (id: string): Promise<Blob | null> =>
  (await (await shelf()).get('photos', id))?.jpeg ?? null;

export const dropPhoto = async (id: string): Promise<void> => (await shelf()).delete('photos', id);
