import { findCode, mayHold, overshootProposed, type Evidence, type VisitState } from '@decurio/core';
import type { DisputeView, NewDispute } from '@decurio/contract';
import { IsNull, type DataSource, type EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Disputes, type DisputeRow } from './entities.js';
import { namedDocument } from './library.js';
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
export async function raiseDispute(
  manager: EntityManager,
  { id, mapId, mapVersion, label, kind, says, serial }: NewDispute,
  by: string,
  at = new Date(),
): Promise<DisputeView> {
  const known = await manager.findOneBy(Disputes, { id });
  if (known) return disputeView(known);
  const row: DisputeRow = {
    id,
    mapId,
    mapVersion,
    label,
    kind,
    says,
    serial,
    raisedBy: by,
    raisedAt: at,
    settledBy: null,
    settledAt: null,
    settledWords: null,
  };
  await manager.insert(Disputes, row);
  return disputeView(row);
}

/**
 * What a bench met that its map does not say, put on record in the transaction of the entry: a code that will not move,
 * a value outside the map, a code that is not shown. Once for each code, kind and version while it is open.
 */
export async function disputeFrom(
  manager: EntityManager,
  entry: Evidence,
  state: VisitState,
  mapVersion: number,
): Promise<void> {
  const met = await unlikeTheMap(manager, entry, state, mapVersion);
  if (!met) return;
  const { map } = state.opened.versions;
  const open = await manager.countBy(Disputes, {
    mapId: map.id,
    mapVersion,
    label: met.label ?? IsNull(),
    kind: met.kind,
    ...(met.label === null ? { says: met.says } : {}),
    settledAt: IsNull(),
  });
  if (open > 0) return;
  await raiseDispute(
    manager,
    { id: entry.id, mapId: map.id, mapVersion, ...met, serial: state.opened.serial },
    entry.by.name,
    new Date(entry.at),
  );
}

type Met = Pick<NewDispute, 'kind' | 'says'> & { readonly label: string | null };

async function unlikeTheMap(
  manager: EntityManager,
  entry: Evidence,
  state: VisitState,
  mapVersion: number,
): Promise<Met | null> {
  if (entry.kind === 'strayFound')
    return {
      label: null,
      kind: 'other',
      says: `The glass shows ${entry.data.shown} at ${entry.data.value}, which is not on the map.`,
    };
  if (entry.kind === 'proved') {
    const { document } = await namedDocument(manager, 'displayMap', state.opened.versions.map.id, mapVersion);
    const says = overshootProposed(state, document.speed?.overshootKmh ?? null);
    const cap = state.opened.setup.targets.find((target) => target.function === 'speedCap');
    return says === null ? null : { label: cap?.label ?? null, kind: 'overshoot', says };
  }
  if (
    entry.kind !== 'codeStuck' &&
    entry.kind !== 'codeSeen' &&
    entry.kind !== 'codeRead' &&
    entry.kind !== 'asFoundRead'
  )
    return null;
  const { label, raw } = entry.data;
  const target = state.opened.setup.targets.find((t) => t.label === label);
  if (!target) return null;
  if (entry.kind === 'codeStuck')
    return target.locked
      ? null
      : { label, kind: 'doesNotChange', says: `Shows ${raw} and does not change to ${target.raw}.` };
  if (raw === null)
    return {
      label,
      kind: 'notShown',
      says: `Not shown on the glass ${entry.kind === 'codeRead' ? 'at read-back' : 'as found'}.`,
    };
  const { document: map } = await namedDocument(manager, 'displayMap', state.opened.versions.map.id, mapVersion);
  const code = findCode(map, label);
  return code && !mayHold(code, raw)
    ? { label, kind: 'otherRange', says: `Shows ${raw}, outside what the map says.` }
    : null;
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
  settled:
    row.settledAt && row.settledBy !== null
      ? { by: row.settledBy, at: row.settledAt.toISOString(), words: row.settledWords ?? '' }
      : null,
});
