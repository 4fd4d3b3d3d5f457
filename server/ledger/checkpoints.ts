import {
  checkpointLeaf,
  checkpointText,
  merkleRoot,
  parseCheckpoint,
  signedNote,
  type CheckpointLeaf,
  type SignedCheckpoint,
} from '@decurio/core';
import type { CheckpointView } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { inTransaction } from '../store/transaction.js';
import { isSignedBy, type SigningKey } from './signing-key.js';

interface CheckpointRow {
  readonly size: number;
  readonly note: string;
  readonly at: Date;
}

/** Leaves in the order in which they were marked: every seal, and once an hour the head of each open visit that grew. */
const leavesOf = async (manager: EntityManager, most: number): Promise<readonly CheckpointLeaf[]> =>
  manager.query<CheckpointLeaf[]>('SELECT visitId, seq, hash FROM seal_head ORDER BY n LIMIT ?', [most]);

const ALL = 100_000_000;

export const rootOf = (leaves: readonly CheckpointLeaf[]): string =>
  Buffer.from(merkleRoot(leaves.map(checkpointLeaf))).toString('base64');

/**
 * Signs how far the ledger has come, where it grew since the last time: from then on what is taken out of it, or changed
 * in it, no longer fits what others may hold of it.
 * @returns whether one was made
 */
export async function makeCheckpoint(source: DataSource, key: SigningKey): Promise<boolean> {
  return inTransaction(source, async (manager) => {
    await manager.query("SELECT name FROM house_lock WHERE name = 'sealHead' FOR UPDATE");
    const [last] = await manager.query<CheckpointRow[]>('SELECT size FROM checkpoint ORDER BY size DESC LIMIT 1');
    const [{ n } = { n: 0 }] = await manager.query<{ n: number }[]>('SELECT COUNT(*) AS n FROM seal_head');
    if (Number(n) === 0 || Number(n) <= Number(last?.size ?? 0)) return false;
    const leaves = await leavesOf(manager, ALL);
    const text = checkpointText({ origin: key.name, size: leaves.length, root: rootOf(leaves) });
    await manager.query('INSERT INTO checkpoint (size, note, at) VALUES (?, ?, UTC_TIMESTAMP(3))', [
      leaves.length,
      signedNote(text, key.name, key.sign(text)),
    ]);
    return true;
  });
}

/** Checkpoints, newest first. */
export async function listCheckpoints(source: DataSource): Promise<readonly CheckpointView[]> {
  const rows = await source.query<CheckpointRow[]>(
    'SELECT size, note, at FROM checkpoint ORDER BY size DESC LIMIT 100',
  );
  return rows.map(({ size, note, at }) => ({
    size: Number(size),
    root: parseCheckpoint(note)?.root ?? '',
    at: at.toISOString(),
  }));
}

/** A checkpoint as the text that leaves the house. */
export async function checkpointNote(source: DataSource, size: number): Promise<string> {
  const [row] = await source.query<CheckpointRow[]>('SELECT note FROM checkpoint WHERE size = ?', [size]);
  if (!row) throw new HttpProblem('notFound', { message: 'There is no checkpoint of that size.' });
  return row.note;
}

/**
 * Holds checkpoints against the ledger as it stands: those that it keeps itself, and those that were kept elsewhere.
 * @param found hears what does not fit
 * @param key the house's own, by which signatures under its name are checked too
 */
export async function checkCheckpoints(
  manager: EntityManager,
  found: (of: string, says: string) => void,
  {
    against = [],
    key = null,
  }: { readonly against?: readonly string[]; readonly key?: Pick<SigningKey, 'name' | 'publicKey'> | null } = {},
): Promise<number> {
  const rows = await manager.query<CheckpointRow[]>('SELECT size, note, at FROM checkpoint ORDER BY size');
  const leaves = rows.length === 0 && against.length === 0 ? [] : await leavesOf(manager, ALL);
  const hold = (note: string, of: string, expected?: number) => {
    const checkpoint = parseCheckpoint(note);
    if (!checkpoint) found(of, 'It is no checkpoint: its text was changed.');
    else if (expected !== undefined && checkpoint.size !== expected)
      found(of, 'It names another size than it is kept under.');
    else if (checkpoint.size > leaves.length)
      found(
        of,
        `The ledger had ${checkpoint.size} leaves and has ${leaves.length}: its last ${checkpoint.size - leaves.length} are gone.`,
      );
    else if (rootOf(leaves.slice(0, checkpoint.size)) !== checkpoint.root)
      found(of, 'The ledger does not begin with what it had then: something was changed or taken out.');
    if (checkpoint && key && !isSignedByHouse(checkpoint, key))
      found(of, `It bears the name of ${key.name}, and its key did not sign it.`);
  };
  for (const { size, note, at } of rows) hold(note, `the checkpoint of ${at.toISOString()}`, Number(size));
  const own = new Set([...rows.map(({ note }) => parseCheckpoint(note)?.origin), key?.name]);
  for (const note of against) {
    const origin = parseCheckpoint(note)?.origin;
    if (rows.length > 0 && origin !== undefined && !own.has(origin))
      found('the checkpoint given', `It is of another house, ${origin}: it says nothing of this ledger.`);
    else hold(note, 'the checkpoint given');
  }
  return rows.length;
}

/** Whether what the house of a key is said to have signed, it did; what another house, or an earlier key, signed is not for this key to say. */
function isSignedByHouse(
  { origin, text, signatures }: SignedCheckpoint,
  key: Pick<SigningKey, 'name' | 'publicKey'>,
): boolean {
  return origin !== key.name || signatures.some(({ keyAndSignature }) => isSignedBy(key, text, keyAndSignature));
}
