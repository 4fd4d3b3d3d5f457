import { randomUUID } from 'node:crypto';
import { shortened } from '@decurio/core';
import type { OrderActed, OrderChangeKind } from '@decurio/contract';
import { QueryFailedError, type DataSource, type EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { catchUp } from './behind-units.js';
import { noteOrderChange } from './changes.js';
import { OrderChanges, Orders, type OrderRow } from './entities.js';
import { writtenBy } from './personal.js';
import { inTransaction } from './transaction.js';
import type { Writer } from './writer.js';

/** Changes an order in one short transaction, then has its units follow; sent again, it goes on with those left behind. */
export async function actingOnUnits(
  source: DataSource,
  orderId: string,
  actId: string,
  writer: Writer,
  change: (manager: EntityManager, order: OrderRow) => Promise<void>,
): Promise<OrderActed> {
  await acting(source, orderId, actId, change);
  const acted = await catchUp(source, orderId);
  const says = actedWords(acted);
  if (says.length > 0) await inTransaction(source, (manager) => record(manager, orderId, 'followed', writer, '', says));
  return acted;
}

/** Runs one act on an order; an act that was done before under this id is not done again. */
export async function acting(
  source: DataSource,
  orderId: string,
  actId: string,
  act: (manager: EntityManager, order: OrderRow) => Promise<void>,
): Promise<void> {
  await inTransaction(source, async (manager) => {
    const order = await manager.findOne(Orders, { where: { id: orderId }, lock: { mode: 'pessimistic_write' } });
    if (!order) throw new HttpProblem('notFound', { message: 'There is no such order.' });
    if (!(await manager.existsBy(OrderChanges, { id: actId }))) await act(manager, order);
  });
}

/** A serial or an order number that came in meanwhile, told as what it is. */
export async function onceEach<T>(act: () => Promise<T>): Promise<T> {
  try {
    return await act();
  } catch (error) {
    const { code, sqlMessage = '' } =
      error instanceof QueryFailedError ? (error.driverError as { code?: string; sqlMessage?: string }) : {};
    if (code !== 'ER_DUP_ENTRY') throw error;
    throw new HttpProblem(sqlMessage.includes('orderByNumber') ? 'orderExists' : 'serialTaken');
  }
}

/** What an act did to units, in words. */
export const actedWords = ({ revised, returned }: OrderActed): readonly string[] => [
  ...(revised > 0 ? [`${revised} ${revised === 1 ? 'unit' : 'units'} under way worked out anew.`] : []),
  ...returned.map(({ serial, says }) => `${serial} came back to the line: ${says}`),
];

/** One line of the history of an order; noted as a change, so that screens see it. */
export async function record(
  manager: EntityManager,
  orderId: string,
  kind: OrderChangeKind,
  { by }: Writer,
  reason: string,
  says: readonly string[],
  id: string = randomUUID(),
): Promise<void> {
  await manager.insert(OrderChanges, {
    id,
    orderId,
    kind,
    at: new Date(),
    byName: writtenBy(by),
    reason: shortened(reason, 500),
    body: JSON.stringify(says.slice(0, 60)),
  });
  await noteOrderChange(manager, orderId);
}
