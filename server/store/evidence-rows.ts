import { asSealed, canonicalJson, receivedAtOf, type Evidence } from '@decurio/core';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { withNames } from './personal.js';

/** Rows that somebody damaged are said to be, wherever they are read. */
function entryIn(body: string): Evidence {
  let entry: unknown = null;
  try {
    entry = JSON.parse(body);
  } catch {
    // Told below, with what parses and is no entry.
  }
  if (typeof entry !== 'object' || entry === null || !('kind' in entry)) throw new HttpProblem('recordDamaged');
  return entry as Evidence;
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

/** The entry of this id, whichever visit it belongs to. */
export async function entryOfId(manager: EntityManager, id: string): Promise<Evidence | null> {
  const [row] = await manager.query<{ body: string }[]>('SELECT body FROM evidence WHERE id = ?', [id]);
  if (!row) return null;
  const [entry] = await withNames(manager, [entryIn(row.body)]);
  return entry ?? null;
}

export const insertEntry = (manager: EntityManager, entry: Evidence): Promise<unknown> =>
  manager.query('INSERT INTO evidence (id, visitId, seq, kind, body, receivedAt) VALUES (?, ?, ?, ?, ?, ?)', [
    entry.id,
    entry.visitId,
    entry.seq,
    entry.kind,
    canonicalJson(asSealed(entry)),
    new Date(receivedAtOf(entry)),
  ]);
