import type { DataSource } from 'typeorm';
import type { TakeUpRequest } from '@decurio/contract';
import { HttpProblem } from '../problems.js';
import { lockUnitWithVisit } from './behind-units.js';
import { noteChange } from './changes.js';
import { Orders, Units, Visits } from './entities.js';
import { onceEach, record } from './acting-on-orders.js';
import { OrderChanges } from './entities.js';
import { takeUpAgain } from './revise-units.js';
import { inTransaction } from './transaction.js';
import type { Writer } from './writer.js';

/**
 * Takes a unit that came back up again: it stands on the line of its order, to be prepared from what its last visit left
 * it at. Sent twice under one id it is done once.
 * @returns the unit that is to be prepared
 */
export async function takeUp(
  source: DataSource,
  visitId: string,
  { id, why }: TakeUpRequest,
  writer: Writer,
): Promise<{ readonly unitId: string }> {
  return onceEach(async () =>
    inTransaction(source, async (manager) => {
      const visit = await manager.findOneBy(Visits, { id: visitId });
      if (!visit) throw new HttpProblem('visitNotFound');
      if (visit.sealedAt === null) throw new HttpProblem('notSealed');
      const known = await manager.findOneByOrFail(Units, { id: visit.unitId });
      const order = await manager.findOneOrFail(Orders, {
        where: { id: known.orderId },
        lock: { mode: 'pessimistic_write' },
      });
      if (await manager.existsBy(OrderChanges, { id })) return { unitId: known.id };
      const unit = await lockUnitWithVisit(manager, known.id);
      if (unit.visitId !== visitId || unit.status !== 'sealed')
        throw new HttpProblem('notHandedOver', { message: 'It is being prepared already, or left again since.' });
      if (unit.handedOverAt !== null)
        throw new HttpProblem('notHandedOver', { message: 'It is out: read it first, when it is back.' });
      const { returned } = await takeUpAgain(manager, order, unit, why);
      await record(
        manager,
        order.id,
        'amended',
        writer,
        why,
        returned.map(({ serial, says }) => `${serial}: ${says}`),
        id,
      );
      await noteChange(manager, { orderId: order.id, unitId: unit.id, seq: visit.lastSeq });
      return { unitId: unit.id };
    }),
  );
}
