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
const shelf = (): Promise<IDBPDatabase<Shelf>> => (opened ??= open());

/** Refused by some browsers before they have promised anything. */
const open = async (): Promise<IDBPDatabase<Shelf>> =>
  openDB<Shelf>('decurio-outbox', 1, {
    upgrade: (db) => {
      db.createObjectStore('entries', { keyPath: 'entry.id' });
      db.createObjectStore('photos', { keyPath: 'id' });
    },
  });

/** Each page that is open holds this lock, so that another knows whose entries still have someone to send them. */
const TAB = `decurio-tab-${crypto.randomUUID()}`;
if ('locks' in navigator) void navigator.locks.request(TAB, () => new Promise(() => undefined));

/** Whether this device keeps anything at all: a private window, a full disk or a rule of the house may forbid it. */
export async function keepsAnything(): Promise<boolean> {
  try {
    const db = await shelf();
    const probe = `probe-${TAB}`;
    await db.put('photos', { id: probe, unitId: '', visitId: '', jpeg: new Blob(['kept']) });
    await db.delete('photos', probe);
    return true;
  } catch {
    // Asked again it may be another time.
    opened = undefined;
    return false;
  }
}

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

/** Photographs of a device that keeps nothing: they last as long as this page. */
const inThisPage = new Map<string, Blob>();

export async function putPhoto(id: string, unitId: string, visitId: string, jpeg: Blob): Promise<void> {
  try {
    await (await shelf()).put('photos', { id, unitId, visitId, jpeg });
  } catch {
    inThisPage.set(id, jpeg);
  }
}

export async function takePhoto(id: string): Promise<Blob | null> {
  const kept = await shelf()
    .then((db) => db.get('photos', id))
    .catch(() => undefined);
  return kept?.jpeg ?? inThisPage.get(id) ?? null;
}

export async function dropPhoto(id: string): Promise<void> {
  inThisPage.delete(id);
  await shelf()
    .then((db) => db.delete('photos', id))
    .catch(() => undefined);
}
