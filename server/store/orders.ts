import type { LineUnit, LineView, OrderView, Page } from '@decurio/contract';
import { checkedLine, type RulePack } from '@decurio/core';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import type { UnitRow } from './entities.js';
import { readJson } from './json-column.js';
import { readCursor, writeCursor } from './page-cursor.js';

const PAGE = 50;

/*
 * What is read all day long is written as SQL: building these few questions anew for every reader cost more than asking them.
 */
const ORDER_SQL = `SELECT o.id, o.number, o.customer, o.place, o.className, o.limitKmh, o.dueAt, o.takenAt, o.units, o.sealed, o.held,
    (SELECT JSON_EXTRACT(l.body, '$.checked') FROM library_document l
      WHERE l.kind = 'rulePack' AND l.docId = o.rulePackId ORDER BY l.version DESC LIMIT 1) AS checked
  FROM customer_order o`;
const LINE_SQL = `SELECT id, serial, typeName, status, step, ladder, heldReason, heldWords, worker, station, visitId
  FROM unit WHERE orderId = ? ORDER BY position`;

/** Orders, newest first. */
export async function listOrders(source: DataSource, after?: string): Promise<Page<OrderView>> {
  const cursor = after === undefined ? null : readCursor(after);
  const from = cursor ? 'WHERE o.takenAt <= ? AND (o.takenAt < ? OR o.id < ?)' : '';
  const values = cursor ? [cursor.at, cursor.at, cursor.id] : [];
  const rows = await source.query<RawOrder[]>(`${ORDER_SQL} ${from} ORDER BY o.takenAt DESC, o.id DESC LIMIT ${PAGE + 1}`, values);
  const items = rows.slice(0, PAGE);
  const last = items.at(-1);
  return {
    items: items.map(orderView),
    next: rows.length > PAGE && last ? writeCursor({ at: last.takenAt, id: last.id }) : null,
  };
}

/** One order with all its units in the order they were taken in. */
export async function readLine(source: DataSource, orderId: string): Promise<LineView> {
  const [order] = await source.query<RawOrder[]>(`${ORDER_SQL} WHERE o.id = ?`, [orderId]);
  if (!order) throw new HttpProblem('notFound', { message: 'There is no such order.' });
  return { order: orderView(order), units: await source.query<LineUnit[]>(LINE_SQL, [orderId]) };
}

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
type RawOrder = OrderFields & { readonly takenAt: Date; readonly checked: unknown };

const orderView = ({ checked, takenAt, ...row }: RawOrder): OrderView => ({
  ...row,
  takenAt: takenAt.toISOString(),
  classChecked: checkedLine({ checked: readJson<RulePack['checked']>(checked) }),
});
