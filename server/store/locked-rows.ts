import type { EntityManager, EntitySchema, EntitySchemaColumnOptions } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { readJson } from './json-column.js';
import { Units, Visits, type UnitRow, type VisitRow } from './entities.js';
import type { Statement } from './statement.js';

/*
 * Rows are locked until the transaction ends, the visit before its unit, whoever locks them: entries of one visit follow
 * one another whichever process takes them.
 */

export async function lockVisit(manager: EntityManager, unitId: string, visitId: string): Promise<VisitRow> {
  const [visit] = await manager.query<VisitRow[]>('SELECT * FROM visit WHERE id = ? FOR UPDATE', [visitId]);
  if (!visit) throw new HttpProblem('visitNotFound');
  if (visit.unitId !== unitId) throw new HttpProblem('otherVisit');
  return visit;
}

export async function lockUnit(manager: EntityManager, unitId: string): Promise<UnitRow> {
  const [unit] = await manager.query<UnitRow[]>('SELECT * FROM unit WHERE id = ? FOR UPDATE', [unitId]);
  if (!unit) throw new HttpProblem('notFound', { message: 'There is no such unit.' });
  return unit;
}

/** A row as one JSON text: to read every column by itself takes longer than all else about it. */
const asJson = (of: string, { options }: EntitySchema): string =>
  `JSON_OBJECT(${Object.keys(options.columns)
    .map((name) => `'${name}', ${of}.${name}`)
    .join(', ')})`;

const BOTH_SQL = `SELECT ${asJson('v', Visits)} AS visit, ${asJson('u', Units)} AS unit
  FROM visit v JOIN unit u ON u.id = v.unitId WHERE v.id IN (?) FOR UPDATE`;

function rowIn<Row extends object>(json: unknown, { options }: EntitySchema<Row>): Row {
  const row = { ...readJson<Record<string, unknown>>(json) };
  for (const [name, column] of Object.entries<EntitySchemaColumnOptions | undefined>(options.columns)) {
    const said = row[name];
    if (column?.type === 'datetime' && typeof said === 'string') row[name] = new Date(`${said.replace(' ', 'T')}Z`);
  }
  return row as Row;
}

export interface LockedRows {
  readonly visit: VisitRow;
  readonly unit: UnitRow;
}

type Row = Readonly<Record<string, unknown>>;

/** By which a visit and its unit are locked, in one go, once whoever has them lets go of them. */
export const bothLocked = (visitId: string): Statement => [BOTH_SQL, [[visitId]]];

/** By which those of some visits that nobody has now are locked, each with its unit: this waits for nobody. */
export const freeOnesLocked = (visitIds: readonly string[]): Statement => [`${BOTH_SQL} SKIP LOCKED`, [visitIds]];

/** The rows that `bothLocked` reads. Throws `visitNotFound`, or `otherVisit` where it is not one of this unit. */
export function lockedRows([row]: readonly Row[], unitId: string): LockedRows {
  if (!row) throw new HttpProblem('visitNotFound');
  const both = bothIn(row);
  if (both.visit.unitId !== unitId) throw new HttpProblem('otherVisit');
  return both;
}

/** The rows that `freeOnesLocked` reads, by visit. */
export const freeOnes = (rows: readonly Row[]): ReadonlyMap<string, LockedRows> =>
  new Map(rows.map(bothIn).map((both) => [both.visit.id, both]));

const bothIn = (row: Row): LockedRows => ({ visit: rowIn(row['visit'], Visits), unit: rowIn(row['unit'], Units) });

export async function lockVisitWithUnit(manager: EntityManager, unitId: string, visitId: string): Promise<LockedRows> {
  const [sql, values] = bothLocked(visitId);
  return lockedRows(await manager.query<Record<string, unknown>[]>(sql, [...values]), unitId);
}
