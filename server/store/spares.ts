import { randomUUID } from 'node:crypto';
import { hashOf, lastShown, type EntryOf } from '@decurio/core';
import type { SpareView } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Units, Visits, type UnitRow } from './entities.js';
import { readEvidence } from './evidence-rows.js';
import { appendHandover } from './handovers.js';
import { foldAccepted } from './visit-columns.js';
import type { Writer } from './writer.js';

const MOST_SHOWN = 20;

/** Spare displays that may go on this unit: of its map, signed off, and on no vehicle yet; those of its order first. */
export async function sparesFor({ manager }: DataSource, unitId: string): Promise<readonly SpareView[]> {
  const unit = await manager.findOneBy(Units, { id: unitId });
  if (!unit) throw new HttpProblem('notFound', { message: 'There is no such unit.' });
  const rows = await manager.query<{ serial: string; visitId: string; sealedAt: Date; orderNumber: string }[]>(
    `SELECT u.serial, u.visitId, v.sealedAt, v.orderNumber FROM unit u JOIN visit v ON v.id = u.visitId
     WHERE u.isSpare AND u.status = 'sealed' AND u.handedTo IS NULL AND u.mapId = ? AND v.mapVersion =
       (SELECT mapVersion FROM visit WHERE id = ?) ORDER BY u.orderId <> ?, v.sealedAt LIMIT ${MOST_SHOWN}`,
    [unit.mapId, unit.visitId, unit.orderId],
  );
  return Promise.all(
    rows.map(async ({ sealedAt, ...row }) => ({
      ...row,
      sealedAt: sealedAt.toISOString(),
      values: await valuesOf(manager, row.visitId),
    })),
  );
}

const valuesOf = async (manager: EntityManager, visitId: string): Promise<Readonly<Record<string, number>>> =>
  lastShown(foldAccepted(await readEvidence(manager, visitId)));

/**
 * A spare goes on a unit: its record must be sealed, of the same display, and say what the entry says of it. Its own chain
 * then says where it went.
 * @throws `spareGone` where it is on a vehicle already or came back to the line, `spareDiffers` where it is another display
 */
export async function fitSpare(
  manager: EntityManager,
  unit: UnitRow,
  { data: { spare }, visitId }: EntryOf<'partReplaced'>,
  { by }: Writer,
): Promise<void> {
  if (!spare) return;
  const visit = await manager.findOne(Visits, { where: { id: spare.visitId }, lock: { mode: 'pessimistic_write' } });
  const own = await manager.findOneBy(Units, { visitId: spare.visitId, isSpare: true });
  if (!visit?.sealedAt || own?.status !== 'sealed' || own.handedTo !== null)
    throw new HttpProblem('spareGone', { message: `${spare.serial} is not ready any more. Look at the list again.` });
  const target = await manager.findOneByOrFail(Visits, { id: visitId });
  if (
    own.serial !== spare.serial ||
    visit.mapId !== target.mapId ||
    visit.mapVersion !== target.mapVersion ||
    hashOf(await valuesOf(manager, spare.visitId)) !== hashOf(spare.values)
  )
    throw new HttpProblem('spareDiffers');
  await appendHandover(
    manager,
    visit,
    { id: randomUUID(), kind: 'fitted', data: { serial: unit.serial, visitId } },
    by,
  );
}
