import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { MachineMade, MachinePurpose, MachineView, NewMachineRequest } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { askPool, inTransaction } from './transaction.js';

/** How old the note of when a machine last asked may grow. */
const ASKED_MS = 5 * 60_000;
/** By which one sees what it is, in a log or a file that lies about. */
const PREFIX = 'decurio-machine-';

interface MachineRow {
  readonly id: string;
  readonly name: string;
  readonly purpose: MachinePurpose;
  readonly madeAt: Date;
  readonly madeBy: string;
  readonly askedAt: Date | null;
  readonly endedAt: Date | null;
}

const LIST_SQL = `SELECT m.id, m.name, m.purpose, m.madeAt, a.displayName AS madeBy, m.askedAt, m.endedAt
  FROM machine m JOIN account a ON a.id = m.madeById ORDER BY m.endedAt IS NOT NULL, m.madeAt DESC LIMIT 200`;

/** Machines that may ask, and those that may no more. */
export async function listMachines(source: DataSource): Promise<readonly MachineView[]> {
  const rows = await source.query<MachineRow[]>(LIST_SQL);
  return rows.map((row) => ({
    ...row,
    madeAt: row.madeAt.toISOString(),
    askedAt: row.askedAt?.toISOString() ?? null,
    endedAt: row.endedAt?.toISOString() ?? null,
  }));
}

export async function makeMachine(
  source: DataSource,
  { name, purpose }: NewMachineRequest,
  byId: string,
): Promise<MachineMade> {
  const id = randomUUID();
  const token = `${PREFIX}${randomBytes(32).toString('base64url')}`;
  await inTransaction(source, (manager) =>
    manager.query(
      'INSERT INTO machine (id, name, purpose, tokenSha256, madeAt, madeById) VALUES (?, ?, ?, ?, UTC_TIMESTAMP(3), ?)',
      [id, name, purpose, sha256(token), byId],
    ),
  );
  return { id, token };
}

/** From now on its token opens nothing. */
export async function endMachine(source: DataSource, id: string): Promise<void> {
  const { affectedRows } = await inTransaction(source, (manager) =>
    manager.query<{ affectedRows: number }>(
      'UPDATE machine SET endedAt = COALESCE(endedAt, UTC_TIMESTAMP(3)) WHERE id = ?',
      [id],
    ),
  );
  if (affectedRows === 0) throw new HttpProblem('notFound');
}

/** Whether a token opens this purpose now. */
export async function machineMay(source: DataSource, token: string, purpose: MachinePurpose): Promise<boolean> {
  const [row] = await askPool<Pick<MachineRow, 'id' | 'askedAt'>>(source, [
    'SELECT id, askedAt FROM machine WHERE tokenSha256 = ? AND purpose = ? AND endedAt IS NULL',
    [sha256(token), purpose],
  ]);
  if (!row) return false;
  if (row.askedAt === null || Date.now() - row.askedAt.getTime() > ASKED_MS)
    await inTransaction(source, (manager) =>
      manager.query('UPDATE machine SET askedAt = UTC_TIMESTAMP(3) WHERE id = ?', [row.id]),
    );
  return true;
}

const sha256 = (token: string): string => createHash('sha256').update(token).digest('hex');
