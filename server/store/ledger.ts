import { checkRecord, makeRecord, shortSeal, verifyChain, type VisitRecord } from '@decurio/core';
import type { LedgerRecordView, LedgerRow, Page, SealCheck } from '@decurio/contract';
import type { DataSource, SelectQueryBuilder } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Visits, type VisitRow } from './entities.js';
import { getDocument } from './library.js';
import { readCursor, writeCursor, type Cursor } from './page-cursor.js';
import { readEvidence } from './visits.js';

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
  if (cursor) query.andWhere('v.sealedAt <= :at AND (v.sealedAt < :at OR v.id < :id)', { at: cursor.at, id: cursor.id });
  return query;
}

/** A page per field, each by its own index, merged: one condition over three fields would read the whole table. */
async function searchPage(source: DataSource, cursor: Cursor | null, search: string): Promise<VisitRow[]> {
  const beginning = `${search.replace(/[\\%_]/g, '\\$&')}%`;
  const pages = await Promise.all(
    FIELDS.map((field) => sealedPage(source, cursor).andWhere(`v.${field} LIKE :beginning`, { beginning }).getMany()),
  );
  const found = new Map(pages.flat().map((row) => [row.id, row]));
  const newestFirst = (a: VisitRow, b: VisitRow) => Number(b.sealedAt) - Number(a.sealedAt) || (a.id < b.id ? 1 : -1);
  return [...found.values()].sort(newestFirst).slice(0, PAGE + 1);
}

/** A visit with every entry, sealed or not. */
export async function readRecord(source: DataSource, visitId: string): Promise<LedgerRecordView> {
  const visit = await findVisit(source, visitId);
  const evidence = await readEvidence(source.manager, visitId);
  const first = evidence[0];
  if (first?.kind !== 'opened') throw new Error(`visit ${visitId} has no opening entry`);
  const { document: map } = await getDocument(source.manager, 'displayMap', visit.mapId, visit.mapVersion);
  return { ...ledgerRow(visit), className: first.data.order.className, map, evidence };
}

/** A sealed visit as a file that stands on its own. */
export async function exportRecord(source: DataSource, visitId: string): Promise<VisitRecord> {
  const visit = await findVisit(source, visitId);
  if (!visit.sealedAt) throw new HttpProblem('notSealed', { message: 'This visit is not signed off yet; there is nothing sealed to export.' });
  return makeRecord(await readEvidence(source.manager, visitId));
}

/** Recomputes a visit's chain and holds its end against the seal kept beside it. */
export async function checkSeal(source: DataSource, visitId: string): Promise<SealCheck> {
  const visit = await findVisit(source, visitId);
  const chain = verifyChain(await readEvidence(source.manager, visitId), visit.headHash);
  return chain.ok
    ? { holds: true, says: `All ${chain.entries} entries are as they were written. Seal ${shortSeal(chain.headHash)}.`, visitId, serial: visit.serial, entries: chain.entries, seal: chain.headHash }
    : { holds: false, says: `The seal does not hold. ${chain.says}`, visitId, serial: visit.serial, entries: 0, seal: null };
}

/** Checks a record file by itself, then asks the ledger whether this house sealed it so. */
export async function checkRecordFile(source: DataSource, file: unknown): Promise<SealCheck> {
  const own = checkRecord(file);
  if (!own.ok) return { holds: false, says: own.says, visitId: null, serial: null, entries: 0, seal: null };
  const record = file as VisitRecord;
  const visit = await source.manager.findOneBy(Visits, { id: record.visitId });
  const seal = { visitId: visit ? record.visitId : null, serial: record.serial, entries: own.entries, seal: own.seal };
  if (!visit?.sealedAt) return { holds: false, says: 'The file is whole, but this ledger knows no such sealed visit.', ...seal };
  if (visit.headHash !== own.seal) return { holds: false, says: 'The file is whole in itself, but this ledger sealed that visit otherwise: the file was written anew.', ...seal };
  return { holds: true, says: `All ${own.entries} entries are as this ledger sealed them. Seal ${shortSeal(own.seal)}.`, ...seal };
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
