import type { Evidence, VisitState } from '@decurio/core';
import type { DisputeView, NewDispute } from '@decurio/contract';
import { IsNull, type DataSource, type EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Disputes, type DisputeRow } from './entities.js';
import { inTransaction } from './transaction.js';

const MOST = 200;

/** Disputes on one map, or on all, open ones first and the newest before. */
export async function listDisputes(source: DataSource, mapId?: string): Promise<DisputeView[]> {
  const rows = await source.manager
    .createQueryBuilder(Disputes, 'd')
    .where(mapId === undefined ? '1 = 1' : 'd.mapId = :mapId', { mapId })
    .orderBy('d.settledAt IS NOT NULL', 'ASC')
    .addOrderBy('d.raisedAt', 'DESC')
    .limit(MOST)
    .getMany();
  return rows.map(disputeView);
}

/** Puts a dispute on record; sending it twice is harmless. */
export async function raiseDispute(manager: EntityManager, { id, mapId, mapVersion, label, kind, says, serial }: NewDispute, by: string, at = new Date()): Promise<DisputeView> {
  const known = await manager.findOneBy(Disputes, { id });
  if (known) return disputeView(known);
  const row: DisputeRow = { id, mapId, mapVersion, label, kind, says, serial, raisedBy: by, raisedAt: at, settledBy: null, settledAt: null, settledWords: null };
  await manager.insert(Disputes, row);
  return disputeView(row);
}

/** A code that will not move although its map says it does disputes the map, in the transaction of the entry. */
export async function disputeFrom(manager: EntityManager, entry: Evidence, state: VisitState, mapVersion: number): Promise<void> {
  if (entry.kind !== 'codeStuck') return;
  const target = state.opened.setup.targets.find((t) => t.label === entry.data.label);
  if (!target || target.locked) return;
  const { label, raw } = entry.data;
  const open = await manager.countBy(Disputes, { mapId: state.opened.versions.map.id, mapVersion, label, settledAt: IsNull() });
  if (open > 0) return;
  const dispute = { id: entry.id, mapId: state.opened.versions.map.id, mapVersion, label, kind: 'doesNotChange', says: `Shows ${raw} and does not change to ${target.raw}.`, serial: state.opened.serial } as const;
  await raiseDispute(manager, dispute, entry.by.name, new Date(entry.at));
}

export async function settleDispute(source: DataSource, id: string, words: string, by: string): Promise<DisputeView> {
  return inTransaction(source, async (manager) => {
    const row = await manager.findOne(Disputes, { where: { id }, lock: { mode: 'pessimistic_write' } });
    if (!row) throw new HttpProblem('disputeGone');
    if (row.settledAt) throw new HttpProblem('settledAlready');
    const settled = { settledBy: by, settledAt: new Date(), settledWords: words };
    await manager.update(Disputes, { id }, settled);
    return disputeView({ ...row, ...settled });
  });
}

const disputeView = (row: DisputeRow): DisputeView => ({
  id: row.id,
  mapId: row.mapId,
  mapVersion: row.mapVersion,
  label: row.label,
  kind: row.kind,
  says: row.says,
  serial: row.serial,
  by: row.raisedBy,
  at: row.raisedAt.toISOString(),
  settled: row.settledAt && row.settledBy !== null ? { by: row.settledBy, at: row.settledAt.toISOString(), words: row.settledWords ?? '' } : null,
});
