import type { LineUnit, LineView, OrderView, Page } from '@decurio/contract';
import { checkedLine, type RulePack } from '@decurio/core';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Library, Orders, Units, type UnitRow } from './entities.js';
import { readCursor, writeCursor } from './page-cursor.js';

const PAGE = 50;

/** Orders, newest first. */
export async function listOrders(source: DataSource, after?: string): Promise<Page<OrderView>> {
  const query = orderQuery(source).orderBy('o.takenAt', 'DESC').addOrderBy('o.id', 'DESC').limit(PAGE + 1);
  if (after !== undefined) {
    const cursor = readCursor(after);
    query.where('(o.takenAt < :at OR (o.takenAt = :at AND o.id < :id))', { at: cursor.at, id: cursor.id });
  }
  const rows = await query.getRawMany<RawOrder>();
  const items = rows.slice(0, PAGE);
  const last = items.at(-1);
  return {
    items: items.map(orderView),
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
  const order = await orderQuery(source).where('o.id = :orderId', { orderId }).getRawOne<RawOrder>();
  if (!order) throw new HttpProblem('notFound', { message: 'There is no such order.' });
  return { order: orderView(order), units: await unitQuery.getRawMany<LineUnit>() };
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

type OrderFields = Omit<OrderView, 'takenAt' | 'classChecked'>;
type RawOrder = OrderFields & { readonly takenAt: Date; readonly checked: string | null };

const ORDER_COLUMNS = ['id', 'number', 'customer', 'place', 'className', 'limitKmh', 'dueAt', 'takenAt', 'units', 'sealed', 'held'] as const;
const NEWEST_CHECK = `(SELECT JSON_EXTRACT(l.body, '$.checked') FROM ${Library.options.name} l
  WHERE l.kind = 'rulePack' AND l.docId = o.rulePackId ORDER BY l.version DESC LIMIT 1)`;

/** Orders together with who checked their rule pack, in one question. */
const orderQuery = (source: DataSource) =>
  source
    .createQueryBuilder(Orders, 'o')
    .select(ORDER_COLUMNS.map((column) => `o.${column} AS ${column}`))
    .addSelect(NEWEST_CHECK, 'checked');

const orderView = ({ checked, takenAt, ...row }: RawOrder): OrderView => ({
  ...row,
  takenAt: takenAt.toISOString(),
  classChecked: checkedLine({ checked: JSON.parse(checked ?? 'null') as RulePack['checked'] }),
});
