import type { OrderActed } from '@decurio/contract';
import { LessThan, type DataSource, type EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Orders, Units, type OrderRow, type UnitRow } from './entities.js';
import { reviseUnit, type Revision } from './revise-units.js';
import { inTransaction } from './transaction.js';
import { lockUnit, lockVisit } from './locked-rows.js';
import type { Writer } from './writer.js';

/*
 * What is promised of an order changes at once, in a short transaction that gives the order its next revision. Its units
 * follow one at a time, each in a transaction of its own, so that no bench waits for an order and no order for a bench.
 * A unit behind its order is not signed off; a process that dies half-way leaves units behind, and the next one goes on.
 */

/** Why an order was given its newest revision, for the units that have still to follow. */
export type RevisionWords = Pick<Revision, 'why' | 'sealedUnits'> & { readonly writer: Writer };

/**
 * What goes into an order's row so that its units follow; its row is locked. Units that had not followed the revision
 * before follow both at once.
 */
export async function nextRevision(
  manager: EntityManager,
  order: OrderRow,
  words: RevisionWords,
): Promise<Pick<OrderRow, 'revision' | 'revisionWords'>> {
  const before = order.revisionWords === null ? null : (JSON.parse(order.revisionWords) as RevisionWords);
  const isBehind = await manager.existsBy(Units, { orderId: order.id, revision: LessThan(order.revision) });
  return {
    revision: order.revision + 1,
    revisionWords: JSON.stringify({
      ...words,
      sealedUnits: isBehind && before?.sealedUnits === 'compare' ? 'compare' : words.sealedUnits,
    }),
  };
}

const BEHIND_SQL = `SELECT u.id FROM unit u JOIN customer_order o ON o.id = u.orderId WHERE o.id = ? AND u.revision < o.revision ORDER BY u.position`;
const ORDERS_BEHIND_SQL =
  'SELECT DISTINCT u.orderId AS id FROM unit u JOIN customer_order o ON o.id = u.orderId WHERE u.revision < o.revision LIMIT 50';

/** Works out anew, one after another, the units of an order that are behind it. */
export async function catchUp(source: DataSource, orderId: string): Promise<OrderActed> {
  const units = await source.query<{ id: string }[]>(BEHIND_SQL, [orderId]);
  let revised = 0;
  const returned: OrderActed['returned'][number][] = [];
  for (const { id } of units) {
    const acted = await catchUpUnit(source, id);
    revised += acted.revised;
    returned.push(...acted.returned);
  }
  return { revised, returned };
}

/** Goes on with orders whose units were left behind. */
export async function catchUpAll(source: DataSource): Promise<void> {
  for (const { id } of await source.query<{ id: string }[]>(ORDERS_BEHIND_SQL)) await catchUp(source, id);
}

/** One unit, in a transaction of its own. */
export function catchUpUnit(source: DataSource, unitId: string): Promise<OrderActed> {
  return inTransaction(source, async (manager) => {
    const unit = await lockUnitWithVisit(manager, unitId);
    const order = await manager.findOneByOrFail(Orders, { id: unit.orderId });
    if (unit.revision >= order.revision || order.revisionWords === null) return { revised: 0, returned: [] };
    const acted = await reviseUnit(manager, order, unit, JSON.parse(order.revisionWords) as RevisionWords);
    await manager.update(Units, { id: unitId }, { revision: order.revision });
    return acted;
  });
}

/** The row of a unit with that of its visit, locked in the order in which benches lock them: the visit first. */
export async function lockUnitWithVisit(manager: EntityManager, unitId: string): Promise<UnitRow> {
  for (;;) {
    const seen = await manager.findOneBy(Units, { id: unitId });
    if (!seen) throw new HttpProblem('notFound', { message: 'There is no such unit.' });
    if (seen.visitId !== null) await lockVisit(manager, unitId, seen.visitId);
    const unit = await lockUnit(manager, unitId);
    if (unit.visitId === seen.visitId) return unit;
  }
}
