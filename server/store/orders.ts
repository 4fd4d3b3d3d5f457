import type { LineUnit, LineView, OrderView, Page } from '@decurio/contract';
import { checkedLine } from '@decurio/core';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Orders, Units, type OrderRow, type UnitRow } from './entities.js';
import { newestDocuments } from './library.js';
import { readCursor, writeCursor } from './page-cursor.js';

const PAGE = 50;

/** Orders, newest first. */
export async function listOrders(source: DataSource, after?: string): Promise<Page<OrderView>> {
  const query = source.createQueryBuilder(Orders, 'o').orderBy('o.takenAt', 'DESC').addOrderBy('o.id', 'DESC').limit(PAGE + 1);
  if (after !== undefined) {
    const cursor = readCursor(after);
    query.where('(o.takenAt < :at OR (o.takenAt = :at AND o.id < :id))', { at: cursor.at, id: cursor.id });
  }
  const [rows, checked] = await Promise.all([query.getMany(), checkedLines(source)]);
  const items = rows.slice(0, PAGE);
  const last = items.at(-1);
  return {
    items: items.map((row) => orderView(row, checked)),
    next: rows.length > PAGE && last ? writeCursor({ at: last.takenAt, id: last.id }) : null,
  };
}

/** One order with all its units in the order they were taken in. */
export async function readLine(source: DataSource, orderId: string): Promise<LineView> {
  const unitQuery = source
    .createQueryBuilder(Units, 'u')
    .select(LINE_COLUMNS.map((column) => `u.${column} AS ${column}`))
    .where('u.orderId = :orderId', { orderId })
    .orderBy('u.position');
  const [order, units, checked] = await Promise.all([
    source.manager.findOneBy(Orders, { id: orderId }),
    unitQuery.getRawMany<LineUnit>(),
    checkedLines(source),
  ]);
  if (!order) throw new HttpProblem('notFound', { message: 'There is no such order.' });
  return { order: orderView(order, checked), units };
}

const LINE_COLUMNS = ['id', 'serial', 'typeName', 'status', 'step', 'ladder', 'heldReason', 'heldWords', 'worker', 'station', 'visitId'] as const;

export const lineUnit = (row: UnitRow): LineUnit => ({
  id: row.id,
  serial: row.serial,
  typeName: row.typeName,
  status: row.status,
  step: row.step,
  ladder: row.ladder,
  heldReason: row.heldReason,
  heldWords: row.heldWords,
  worker: row.worker,
  station: row.station,
  visitId: row.visitId,
});

/** By rule pack id: who checked its values, as every screen says it. */
async function checkedLines(source: DataSource): Promise<ReadonlyMap<string, string>> {
  const packs = await newestDocuments(source.manager, 'rulePack');
  return new Map(packs.map((pack) => [pack.id, checkedLine(pack.document)]));
}

const orderView = (row: OrderRow, checked: ReadonlyMap<string, string>): OrderView => ({
  id: row.id,
  number: row.number,
  customer: row.customer,
  place: row.place,
  className: row.className,
  classChecked: checked.get(row.rulePackId) ?? 'not checked',
  limitKmh: row.limitKmh,
  dueAt: row.dueAt,
  takenAt: row.takenAt.toISOString(),
  units: row.units,
  sealed: row.sealed,
  held: row.held,
});
