import { CHAIN_START, hashOf } from '@decurio/core';
import type { DataSource, EntityManager } from 'typeorm';
import { SealHeads, type SealHeadRow } from './entities.js';
import { inTransaction } from './transaction.js';

/** Why a mark was set: the visit was sealed, or was open and had gained entries within the hour. */
export type MarkReason = 'sealed' | 'open' | 'upgrade';

export interface Head {
  readonly visitId: string;
  readonly seq: number;
  readonly hash: string;
}

type Mark = Pick<SealHeadRow, 'n' | 'visitId' | 'seq' | 'hash' | 'why' | 'at' | 'prevHash'>;

/** The hash of a mark: over all it says, and the mark before it. Any mark that is changed or taken out breaks the chain. */
export const markHash = ({ n, visitId, seq, hash, why, at, prevHash }: Mark): string =>
  hashOf({ n, visitId, seq, hash, why, at: at.toISOString(), prevHash });

/**
 * Writes down how far visits have come, one chain for the house: from then on entries cut off behind a mark, or a visit
 * that is gone, are missed. The chain grows by one at a time, whichever process writes; the lock is the last that a
 * transaction takes.
 */
export async function markHeads(
  manager: EntityManager,
  heads: readonly Head[],
  why: MarkReason,
  now = new Date(),
): Promise<void> {
  if (heads.length === 0) return;
  await manager.query("SELECT name FROM house_lock WHERE name = 'sealHead' FOR UPDATE");
  const [last] = await manager.find(SealHeads, { order: { n: 'DESC' }, take: 1 });
  let [n, prevHash] = [Number(last?.n ?? 0), last?.rowHash ?? CHAIN_START];
  const rows: SealHeadRow[] = [];
  for (const { visitId, seq, hash } of heads) {
    n += 1;
    const mark = { n, visitId, seq, hash, why, at: now, prevHash };
    prevHash = markHash(mark);
    rows.push({ ...mark, rowHash: prevHash });
  }
  for (let from = 0; from < rows.length; from += 500) await manager.insert(SealHeads, rows.slice(from, from + 500));
}

const HOUR_MS = 3_600_000;
const GAINED_SQL = `SELECT v.id AS visitId, v.lastSeq AS seq, v.headHash AS hash FROM visit v
  WHERE v.sealedAt IS NULL AND v.lastSeq > COALESCE((SELECT MAX(h.seq) FROM seal_head h WHERE h.visitId = v.id), 0) ORDER BY v.id LIMIT 5000`;
const UNMARKED_SQL = `SELECT v.id AS visitId, v.lastSeq AS seq, v.headHash AS hash FROM visit v
  WHERE v.sealedAt IS NOT NULL AND NOT EXISTS (SELECT 1 FROM seal_head h WHERE h.visitId = v.id AND h.seq = v.lastSeq) ORDER BY v.sealedAt, v.id LIMIT 5000`;

/** Marks every open visit that gained entries, at most once an hour for the house. @returns how many were marked */
export function markOpenVisits(source: DataSource, now = new Date()): Promise<number> {
  return inTransaction(source, async (manager) => {
    await manager.query("SELECT name FROM house_lock WHERE name = 'sealHead' FOR UPDATE");
    const [last] = await manager.find(SealHeads, { where: { why: 'open' }, order: { n: 'DESC' }, take: 1 });
    if (last && now.getTime() - last.at.getTime() < HOUR_MS) return 0;
    const heads = await manager.query<Head[]>(GAINED_SQL);
    await markHeads(manager, heads, 'open', now);
    return heads.length;
  });
}

/** Marks visits that an earlier release sealed. @returns how many were marked */
export async function markSealedBefore(source: DataSource): Promise<number> {
  for (let marked = 0; ;) {
    const heads = await inTransaction(source, async (manager) => {
      const found = await manager.query<Head[]>(UNMARKED_SQL);
      await markHeads(manager, found, 'upgrade');
      return found.length;
    });
    marked += heads;
    if (heads === 0) return marked;
  }
}
