import { canonicalJson } from '@decurio/core';
import type { LibraryDocuments, LibraryEntry, LibraryKind } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Library, type LibraryRow } from './entities.js';
import { inTransaction } from './transaction.js';

/** Adds a document as the next version of its id. Versions never change. */
export async function addDocument<K extends LibraryKind>(
  source: DataSource,
  kind: K,
  document: LibraryDocuments[K],
  accountId: string,
): Promise<LibraryEntry<K>> {
  return inTransaction(source, async (manager) => {
    const newest = await manager.findOne(Library, {
      where: { kind, docId: document.id },
      order: { version: 'DESC' },
      lock: { mode: 'pessimistic_write' },
    });
    const body = canonicalJson(document);
    if (newest?.body === body) throw new HttpProblem('sameDocument');
    const row: LibraryRow = {
      kind,
      docId: document.id,
      version: (newest?.version ?? 0) + 1,
      name: document.name,
      body,
      addedAt: new Date(),
      addedBy: accountId,
    };
    await manager.insert(Library, row);
    return entryOf<K>(row);
  });
}

/** The newest version of every document of a kind, by id. */
export async function newestDocuments<K extends LibraryKind>(manager: EntityManager, kind: K): Promise<LibraryEntry<K>[]> {
  const rows = await manager.find(Library, { where: { kind }, order: { docId: 'ASC', version: 'DESC' } });
  return rows.filter((row, i) => row.docId !== rows[i - 1]?.docId).map((row) => entryOf<K>(row));
}

/** One document: the newest version, or the one named. */
export async function getDocument<K extends LibraryKind>(
  manager: EntityManager,
  kind: K,
  docId: string,
  version?: number,
): Promise<LibraryEntry<K>> {
  const row = await manager.findOne(Library, {
    where: { kind, docId, ...(version === undefined ? {} : { version }) },
    order: { version: 'DESC' },
  });
  if (!row) throw new HttpProblem('notFound', { message: `The library has no ${kind} "${docId}".` });
  return entryOf<K>(row);
}

function entryOf<K extends LibraryKind>(row: LibraryRow): LibraryEntry<K> {
  return {
    kind: row.kind as K,
    id: row.docId,
    version: row.version,
    name: row.name,
    addedAt: row.addedAt.toISOString(),
    document: JSON.parse(row.body) as LibraryDocuments[K],
  };
}
