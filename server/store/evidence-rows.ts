import { receivedAtOf, type Evidence, type sealedWithText } from '@decurio/core';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { withNames } from './personal.js';
import type { Statement } from './statement.js';

const isObject = (value: unknown): value is object => typeof value === 'object' && value !== null;
const isEntry = (value: unknown): value is Evidence =>
  isObject(value) && 'kind' in value && 'by' in value && isObject(value.by);

/** Rows that somebody damaged are said to be, wherever they are read. */
function entryIn(body: string): Evidence {
  let entry: unknown = null;
  try {
    entry = JSON.parse(body);
  } catch {
    // Told below, with what parses and is no entry.
  }
  if (!isEntry(entry)) throw new HttpProblem('recordDamaged');
  return entry;
}

/** A visit's entries, oldest first; those after one of them, where its number is given. */
export async function readEvidence(manager: EntityManager, visitId: string, after = 0): Promise<Evidence[]> {
  const rows = await manager.query<{ body: string }[]>(
    'SELECT body FROM evidence WHERE visitId = ? AND seq > ? ORDER BY seq',
    [visitId, after],
  );
  return withNames(
    manager,
    rows.map(({ body }) => entryIn(body)),
  );
}

/** Those of these ids that are there, whichever visits they belong to. */
export async function entriesOfIds(
  manager: EntityManager,
  ids: readonly string[],
): Promise<ReadonlyMap<string, Evidence>> {
  const rows = await manager.query<{ body: string }[]>('SELECT body FROM evidence WHERE id IN (?)', [ids]);
  const entries = await withNames(
    manager,
    rows.map(({ body }) => entryIn(body)),
  );
  return new Map(entries.map((entry) => [entry.id, entry]));
}

const ROW = '(?, ?, ?, ?, ?, ?)';

/** An entry with the text that it is stored by. */
export type Sealed = ReturnType<typeof sealedWithText>;

export const entriesInserted = (sealed: readonly Sealed[]): Statement => [
  `INSERT INTO evidence (id, visitId, seq, kind, body, receivedAt) VALUES ${sealed.map(() => ROW).join(', ')}`,
  sealed.flatMap(({ entry, text }) => [
    entry.id,
    entry.visitId,
    entry.seq,
    entry.kind,
    text,
    new Date(receivedAtOf(entry)),
  ]),
];
