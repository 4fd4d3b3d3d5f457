import type { ExpectedUnits, LineUnit, LineView, OrderPageView, OrderView, Page } from '@decurio/contract';
import { checkedLine, type VehicleClass } from '@decurio/core';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { OrderChanges, Orders, type UnitRow } from './entities.js';
import { readJson } from './json-column.js';
import { readCursor, writeCursor } from './page-cursor.js';
import { termsOf, today } from './setups.js';

const PAGE = 50;

/*
 * What is read all day long is written as SQL: building these few questions anew for every reader cost more than asking them.
 */
const ORDER_SQL = `SELECT o.id, o.number, o.customer, o.place, o.className, o.limitKmh, IF(o.isPrivateLand, o.terms, NULL) AS landTerms, o.dueAt, o.takenAt, o.units, o.sealed, o.held,
    o.rulePackId, o.classId FROM customer_order o`;
const CLASSES_SQL = `SELECT l.docId, JSON_EXTRACT(l.body, '$.classes') AS classes FROM library_document l
  WHERE l.kind = 'rulePack' AND l.docId IN (?) AND l.version = (SELECT MAX(n.version) FROM library_document n WHERE n.kind = 'rulePack' AND n.docId = l.docId)`;
const LINE_SQL = `SELECT id, serial, typeName, status, step, ladder, heldReason, heldWords, worker, station, visitId, returnedWhy
  FROM unit WHERE orderId = ? AND status <> 'withdrawn' ORDER BY position`;

/** Orders, newest first. */
export async function listOrders(source: DataSource, after?: string): Promise<Page<OrderView>> {
  const cursor = after === undefined ? null : readCursor(after);
  const from = cursor ? 'WHERE o.takenAt <= ? AND (o.takenAt < ? OR o.id < ?)' : '';
  const values = cursor ? [cursor.at, cursor.at, cursor.id] : [];
  const rows = await source.query<RawOrder[]>(`${ORDER_SQL} ${from} ORDER BY o.takenAt DESC, o.id DESC LIMIT ${PAGE + 1}`, values);
  const items = rows.slice(0, PAGE);
  const last = items.at(-1);
  return {
    items: await orderViews(source, items),
    next: rows.length > PAGE && last ? writeCursor({ at: last.takenAt, id: last.id }) : null,
  };
}

/** One order with all its units in the order they were taken in. */
export async function readLine(source: DataSource, orderId: string): Promise<LineView> {
  const [order] = await source.query<RawOrder[]>(`${ORDER_SQL} WHERE o.id = ?`, [orderId]);
  if (!order) throw new HttpProblem('notFound', { message: 'There is no such order.' });
  const [view] = await orderViews(source, [order]);
  if (!view) throw new HttpProblem('notFound');
  return { order: view, units: await source.query<LineUnit[]>(LINE_SQL, [orderId]) };
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
  returnedWhy: row.returnedWhy,
});

type RawOrder = Omit<OrderView, 'takenAt' | 'classChecked' | 'privateLand'> & { readonly takenAt: Date; readonly landTerms: string | null; readonly rulePackId: string; readonly classId: string };

/** Orders as lists show them, each with the standing of its class today. */
async function orderViews(source: DataSource, rows: readonly RawOrder[]): Promise<OrderView[]> {
  const packIds = [...new Set(rows.map((row) => row.rulePackId))];
  const packs = packIds.length === 0 ? [] : await source.query<{ docId: string; classes: unknown }[]>(CLASSES_SQL, [packIds]);
  const checks = new Map(packs.flatMap(({ docId, classes }) => readJson<readonly VehicleClass[]>(classes).map((each) => [`${docId} ${each.id}`, each.checked] as const)));
  const day = today();
  return rows.map(({ rulePackId, classId, takenAt, landTerms, ...row }) => ({
    ...row,
    privateLand: landTerms === null ? null : landOf(landTerms),
    takenAt: takenAt.toISOString(),
    classChecked: checkedLine(checks.get(`${rulePackId} ${classId}`) ?? null, day),
  }));
}

function landOf(terms: string): OrderView['privateLand'] {
  const land = termsOf({ terms }).privateLand;
  return land && { label: land.label, endsOn: land.endsOn };
}

const GROUPS_SQL = `SELECT typeId, typeName, mapId, COUNT(*) AS units, SUM(status = 'sealed') AS sealed
  FROM unit WHERE orderId = ? AND status <> 'withdrawn' GROUP BY typeId, typeName, mapId ORDER BY MIN(position)`;
const CHANGES_SHOWN = 200;

/** One order with what was promised, its units by type, and how it was changed. */
export async function readOrder(source: DataSource, orderId: string): Promise<OrderPageView> {
  const row = await source.manager.findOneBy(Orders, { id: orderId });
  if (!row) throw new HttpProblem('notFound', { message: 'There is no such order.' });
  const { order } = await readLine(source, orderId);
  const groups = await source.query<{ typeId: string; typeName: string; mapId: string; units: string; sealed: string }[]>(GROUPS_SQL, [orderId]);
  const changes = await source.manager.find(OrderChanges, { where: { orderId }, order: { at: 'DESC' }, take: CHANGES_SHOWN });
  return {
    order,
    terms: termsOf(row),
    notes: row.notes,
    rulePackId: row.rulePackId,
    classId: row.classId,
    houseRulesId: row.houseRulesId,
    groups: groups.map((group) => ({ ...group, units: Number(group.units), sealed: Number(group.sealed) })),
    expected: JSON.parse(row.expected) as ExpectedUnits[],
    changes: changes.map(({ kind, at, byName, reason, body }) => ({ kind, at: at.toISOString(), by: byName, reason, says: JSON.parse(body) as string[] })),
  };
}
