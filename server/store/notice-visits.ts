import { randomUUID } from 'node:crypto';
import type { Evidence, FleetNotice } from '@decurio/core';
import type { DataSource, EntityManager } from 'typeorm';
import { Units, Visits, type UnitRow } from './entities.js';
import { unseenNotices } from './notices.js';
import { inTransaction } from './transaction.js';
import { foldAccepted } from './visit-columns.js';
import { readEvidence } from './evidence-rows.js';
import { appendIn } from './append-entries.js';
import type { Writer } from './writer.js';

/**
 * Writes into a visit what the notices that name its unit say; how many there were.
 * @param cause the entry that they follow from, where one is
 */
export async function noticeVisit(
  manager: EntityManager,
  unit: UnitRow,
  visitId: string,
  writer: Writer,
  cause?: Evidence,
): Promise<number> {
  const state = foldAccepted(await readEvidence(manager, visitId));
  if (state.step === null) return 0;
  const unseen = await unseenNotices(manager, unit, state);
  for (const [i, { id, version, name, document }] of unseen.entries())
    await appendIn(
      manager,
      unit.id,
      visitId,
      {
        id: randomUUID(),
        seq: state.seq + 1 + i,
        kind: 'noticed',
        at: new Date().toISOString(),
        data: {
          notice: { id, version, name },
          says: `${document.says} ${document.cure}`.trim(),
          ...(cause ? { cause: cause.id } : {}),
        },
      },
      writer,
    );
  return unseen.length;
}

/** The same for one unit by itself. */
export const noticeUnit = (source: DataSource, unitId: string, writer: Writer): Promise<number> =>
  inTransaction(source, async (manager) => {
    const unit = await manager.findOneByOrFail(Units, { id: unitId });
    if (unit.visitId === null) return 0;
    // Its entries follow one another: what is read to decide is read under the lock of the visit.
    await manager.findOne(Visits, { where: { id: unit.visitId }, lock: { mode: 'pessimistic_write' } });
    return noticeVisit(manager, unit, unit.visitId, writer);
  });

/** Holds every unit under way that a new notice names. One that is missed, as when the server stops, is held when it is signed. */
export async function noticeAll(source: DataSource, notice: FleetNotice, writer: Writer): Promise<void> {
  if (notice.isOver) return;
  const { types, maps } = notice.names;
  const units = await source.manager.findBy(Units, [{ status: 'open' }, { status: 'held' }]);
  for (const unit of units)
    if ((types.length === 0 || types.includes(unit.typeId)) && (maps.length === 0 || maps.includes(unit.mapId)))
      await noticeUnit(source, unit.id, writer);
}
