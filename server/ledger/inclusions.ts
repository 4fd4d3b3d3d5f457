import {
  checkpointLeaf,
  includeLeaf,
  merkleTree,
  type CheckpointLeaf,
  type Inclusion,
  type MerkleTree,
} from '@decurio/core';
import { LRUCache } from 'lru-cache';
import type { EntityManager } from 'typeorm';

interface Newest {
  readonly note: string;
  readonly tree: MerkleTree;
}

/** By the signed note, which names size and root: the tree under it is always the same. */
const kept = new LRUCache<string, Newest>({ max: 1 });

async function newestTree(manager: EntityManager): Promise<Newest | null> {
  const [row] = await manager.query<{ size: string; note: string }[]>(
    'SELECT size, note FROM checkpoint ORDER BY size DESC LIMIT 1',
  );
  if (!row) return null;
  const known = kept.get(row.note);
  if (known) return known;
  const leaves = await manager.query<CheckpointLeaf[]>('SELECT visitId, seq, hash FROM seal_head ORDER BY n LIMIT ?', [
    Number(row.size),
  ]);
  const newest = { note: row.note, tree: merkleTree(leaves.map(checkpointLeaf)) };
  kept.set(row.note, newest);
  return newest;
}

/**
 * Where the seal of a visit stands in the house's newest checkpoint; null while none holds it, or the house makes none.
 * @param seal the hash in which its chain ends
 */
export async function inclusionOf(manager: EntityManager, visitId: string, seal: string): Promise<Inclusion | null> {
  const newest = await newestTree(manager);
  const [mark] = await manager.query<{ n: string }[]>(
    'SELECT n FROM seal_head WHERE visitId = ? AND hash = ? ORDER BY n LIMIT 1',
    [visitId, seal],
  );
  // Marks are numbered from 1, without a gap.
  const index = Number(mark?.n ?? 0) - 1;
  if (!newest || index < 0 || index >= (newest.tree[0]?.length ?? 0)) return null;
  return includeLeaf(newest.tree, index, newest.note);
}
