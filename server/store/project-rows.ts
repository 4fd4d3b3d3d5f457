import { projectVisit, type VisitState } from '@decurio/core';
import type { UnitRow, VisitRow } from './entities.js';
import { changesNoted, type Change } from './changes.js';
import type { Statement } from './statement.js';

type Columns = Readonly<Record<string, unknown>>;

/** What is to be written of a visit and its unit in the transaction that adds its entries. */
export interface Projection {
  /** For lists. */
  readonly rows: readonly Statement[];
  /** For whoever watches. */
  readonly change: Change;
}

/** By which projections of some visits are written. */
export const projected = (all: readonly Projection[]): readonly Statement[] => [
  ...all.flatMap(({ rows }) => rows),
  ...(all.length > 0 ? [changesNoted(all.map(({ change }) => change))] : []),
];

/**
 * What is to be written of a visit and its unit: of their rows only what became another.
 * @param visit its columns as they are to be, beside those that were read; null where the visit was only just written
 */
export function projectionOf(
  unit: UnitRow,
  state: VisitState,
  visit: { readonly was: VisitRow; readonly is: Partial<VisitRow> } | null,
): Projection {
  const now = projectVisit(state);
  const isOnLine = now.status !== 'sealed' && now.status !== 'withdrawn';
  const ofUnit = changed(unit, {
    ...now,
    ...foundBy(unit, state),
    ...provedBy(unit, state),
    ...(now.status === 'sealed' ? {} : { handedTo: null, handedOverAt: null, stored: null }),
    visitId: state.visitId,
    openSerial: isOnLine ? unit.serial : null,
  } satisfies Partial<UnitRow>);
  const ofVisit = visit === null ? {} : changed(visit.was, visit.is);
  const columns = [...named('v', ofVisit), ...named('u', ofUnit)];
  const [key, id] = Object.keys(ofVisit).length > 0 ? ['v.id', state.visitId] : ['u.id', unit.id];
  const rows: Statement = [
    `UPDATE ${tablesOf(ofVisit, ofUnit)} SET ${columns.map(([name]) => `${name} = ?`).join(', ')} WHERE ${key} = ?`,
    [...columns.map(([, value]) => value), id],
  ];
  const gained = (status: UnitRow['status']) => Number(now.status === status) - Number(unit.status === status);
  const [sealed, held] = [gained('sealed'), gained('held')];
  const order: Statement = [
    'UPDATE customer_order SET sealed = sealed + ?, held = held + ? WHERE id = ?',
    [sealed, held, unit.orderId],
  ];
  return {
    rows: [...(columns.length > 0 ? [rows] : []), ...(sealed !== 0 || held !== 0 ? [order] : [])],
    change: { orderId: unit.orderId, unitId: unit.id, seq: state.seq },
  };
}

const tablesOf = (ofVisit: Columns, ofUnit: Columns): string =>
  Object.keys(ofVisit).length === 0
    ? 'unit u'
    : Object.keys(ofUnit).length === 0
      ? 'visit v'
      : 'visit v JOIN unit u ON u.id = v.unitId';

/** Their names are our own, never what was sent. */
const named = (of: 'v' | 'u', columns: Columns): readonly (readonly [string, unknown])[] =>
  Object.entries(columns).map(([name, value]) => [`${of}.${name}`, value]);

function changed(was: object, is: object): Columns {
  const before = was as Columns;
  return Object.fromEntries(Object.entries(is).filter(([name, value]) => !isSame(before[name], value)));
}

const isSame = (a: unknown, b: unknown): boolean =>
  a === b || (a instanceof Date && b instanceof Date && a.getTime() === b.getTime());

/** When it was proved: what the next units of its batch are sampled by. */
function provedBy(unit: UnitRow, { done, proving }: VisitState): Pick<UnitRow, 'provedAt' | 'proofsFailed'> {
  const isProved = done.some(({ step }) => step === 'prove');
  return {
    provedAt: isProved || proving.failed.length > 0 ? (unit.provedAt ?? new Date()) : null,
    proofsFailed: proving.failed.length,
  };
}

/** When it was read as found: what the next units of its batch are sampled by. */
function foundBy(unit: UnitRow, { done, surprises }: VisitState): Pick<UnitRow, 'foundAt' | 'surprises'> {
  const isFound = done.some(({ step }) => step === 'asFound');
  return { foundAt: isFound ? (unit.foundAt ?? new Date()) : null, surprises: surprises.length };
}
