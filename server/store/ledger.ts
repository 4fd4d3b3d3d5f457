import { makeRecord, type Evidence, type VisitRecord } from '@decurio/core';
import type { LedgerRecordView, LedgerRow, Page } from '@decurio/contract';
import { In, type DataSource, type SelectQueryBuilder } from 'typeorm';
import { inclusionOf } from '../ledger/inclusions.js';
import { unprintable } from '../papers/paper-text.js';
import { HttpProblem } from '../problems.js';
import { Visits, type VisitRow } from './entities.js';
import { readEvidence } from './evidence-rows.js';
import { getDocument } from './library.js';
import { saltsOf } from './personal.js';
import { readCursor, writeCursor, type Cursor } from './page-cursor.js';

const PAGE = 50;
const FIELDS = ['serial', 'orderNumber', 'customer'] as const;

export interface LedgerQuery {
  readonly after?: string;
  /** The beginning of a serial, an order number or a customer. */
  readonly search?: string;
}

/** Sealed visits, newest first. */
export async function listLedger(source: DataSource, { after, search }: LedgerQuery): Promise<Page<LedgerRow>> {
  const cursor = after === undefined ? null : readCursor(after);
  const rows = search ? await searchPage(source, cursor, search) : await sealedPage(source, cursor).getMany();
  const items = rows.slice(0, PAGE);
  const last = items.at(-1);
  return {
    items: items.map(ledgerRow),
    next: rows.length > PAGE && last?.sealedAt ? writeCursor({ at: last.sealedAt, id: last.id }) : null,
  };
}

function sealedPage(source: DataSource, cursor: Cursor | null): SelectQueryBuilder<VisitRow> {
  const query = source
    .createQueryBuilder(Visits, 'v')
    .where('v.sealedAt IS NOT NULL')
    .orderBy('v.sealedAt', 'DESC')
    .addOrderBy('v.id', 'DESC')
    .limit(PAGE + 1);
  if (cursor)
    query.andWhere('v.sealedAt <= :at AND (v.sealedAt < :at OR v.id < :id)', { at: cursor.at, id: cursor.id });
  return query;
}

/** Which index finds each field by its beginning. Each holds all that choosing the page needs, so no row is read for it. */
const INDEX_OF = {
  serial: 'visitBySerial',
  orderNumber: 'visitByOrder',
  customer: 'visitByCustomer',
} as const satisfies Record<(typeof FIELDS)[number], string>;

/**
 * A page per field, each by its own index, merged: one condition over three fields would read the whole table. The index
 * is named, since the database else walks from the newest visit on, past all that do not match.
 */
async function searchPage(source: DataSource, cursor: Cursor | null, search: string): Promise<VisitRow[]> {
  const beginning = `${search.replace(/[\\%_]/g, '\\$&')}%`;
  const ids = await Promise.all(
    FIELDS.map((field) => {
      const from = cursor ? 'AND sealedAt <= ? AND (sealedAt < ? OR id < ?)' : '';
      const values = cursor ? [cursor.at, cursor.at, cursor.id] : [];
      const sql = `SELECT id FROM visit FORCE INDEX (${INDEX_OF[field]}) WHERE ${field} LIKE ? AND sealedAt IS NOT NULL ${from} ORDER BY sealedAt DESC, id DESC LIMIT ${PAGE + 1}`;
      return source.query<{ id: string }[]>(sql, [beginning, ...values]);
    }),
  );
  const found = await source.manager.findBy(Visits, { id: In([...new Set(ids.flat().map(({ id }) => id))]) });
  const newestFirst = (a: VisitRow, b: VisitRow) => Number(b.sealedAt) - Number(a.sealedAt) || (a.id < b.id ? 1 : -1);
  return found.sort(newestFirst).slice(0, PAGE + 1);
}

/** A visit with every entry, sealed or not. */
export async function readRecord(source: DataSource, visitId: string): Promise<LedgerRecordView> {
  const visit = await findVisit(source, visitId);
  const evidence = await wholeEvidence(source, visitId);
  const first = evidence[0];
  if (first?.kind !== 'opened') throw new HttpProblem('recordDamaged');
  const { document: map } = await getDocument(source.manager, 'displayMap', visit.mapId, visit.mapVersion);
  return {
    ...ledgerRow(visit),
    unitId: visit.unitId,
    className: first.data.order.className,
    map,
    evidence,
    unprintable: unprintable({ evidence }),
  };
}

/** A sealed visit as a file that stands on its own. */
export async function exportRecord(source: DataSource, visitId: string): Promise<VisitRecord> {
  const visit = await findVisit(source, visitId);
  if (!visit.sealedAt)
    throw new HttpProblem('notSealed', {
      message: 'This visit is not signed off yet; there is nothing sealed to export.',
    });
  const evidence = await wholeEvidence(source, visitId);
  const inclusion = await inclusionOf(source.manager, visitId, visit.headHash);
  return makeRecord(evidence, await saltsOf(source.manager, evidence), inclusion ?? undefined);
}

/** Rows that somebody damaged are a finding, not a fault of the server. */
async function wholeEvidence(source: DataSource, visitId: string): Promise<readonly Evidence[]> {
  const evidence = await readEvidence(source.manager, visitId);
  if (evidence[0]?.kind !== 'opened') throw new HttpProblem('recordDamaged');
  return evidence;
}

async function findVisit(source: DataSource, visitId: string): Promise<VisitRow> {
  const visit = await source.manager.findOneBy(Visits, { id: visitId });
  if (!visit) throw new HttpProblem('visitNotFound');
  return visit;
}

const ledgerRow = (row: VisitRow): LedgerRow => ({
  visitId: row.id,
  serial: row.serial,
  typeName: row.typeName,
  orderNumber: row.orderNumber,
  customer: row.customer,
  sealedAt: row.sealedAt?.toISOString() ?? '',
  sealedBy: row.sealedBy ?? '',
  seal: row.headHash,
});
