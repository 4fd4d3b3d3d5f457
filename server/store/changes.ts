import type { DataSource, EntityManager } from 'typeorm';
import type { ChangeSeen } from '@decurio/contract';
import { Changes, type ChangeRow } from './entities.js';
import { runAll, type Statement } from './statement.js';

export type Change = Pick<ChangeRow, 'orderId' | 'unitId' | 'seq'>;

/** By which units or orders are noted to have moved, in the transaction that moved them. */
export const changesNoted = (changes: readonly Change[]): Statement => [
  `INSERT INTO line_change (orderId, unitId, seq, at) VALUES ${changes.map(() => '(?, ?, ?, UTC_TIMESTAMP(3))').join(', ')}`,
  changes.flatMap(({ orderId, unitId, seq }) => [orderId, unitId, seq]),
];

export const noteChange = (manager: EntityManager, change: Change): Promise<void> =>
  runAll(manager, [changesNoted([change])]);

export const noteOrderChange = (manager: EntityManager, orderId: string): Promise<void> =>
  noteChange(manager, { orderId, unitId: null, seq: 0 });

const SQL = 'SELECT id, orderId, unitId, seq FROM line_change WHERE id > ? ORDER BY id LIMIT ?';

/** Changes after the one with this number, oldest first. */
export async function changesAfter(source: DataSource, id: number, most: number): Promise<readonly ChangeSeen[]> {
  const rows = await source.query<(Omit<ChangeSeen, 'id'> & { readonly id: string })[]>(SQL, [id, most]);
  return rows.map((row) => ({ ...row, id: Number(row.id) }));
}

export async function newestChange(source: DataSource): Promise<number> {
  const [row] = await source.query<{ id: string | null }[]>('SELECT MAX(id) AS id FROM line_change');
  return Number(row?.id ?? 0);
}

const KEPT_HOURS = 24;

export const forgetOldChanges = (source: DataSource): Promise<unknown> =>
  source.manager
    .createQueryBuilder()
    .delete()
    .from(Changes)
    .where(`at < UTC_TIMESTAMP(3) - INTERVAL ${KEPT_HOURS} HOUR`)
    .execute();
