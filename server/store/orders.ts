import type {
  EndingAuthority,
  ExpectedUnits,
  LineUnit,
  LineView,
  OrderPageView,
  OrderView,
  Page,
  StoredUnit,
} from '@decurio/contract';
import { checkedLine, type ClassCheck } from '@decurio/core';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { OrderChanges, Orders, type OrderRow, type UnitRow } from './entities.js';
import { namesBehind } from './personal.js';
import { readCursor, writeCursor } from './page-cursor.js';
import { decidingFor, inputsFor, termsOf, wishesOf } from './setups.js';
import { withFamily } from './wheel-families.js';
import { today } from './house.js';

const PAGE = 50;

/*
 * What is read all day long is written as SQL: building these few questions anew for every reader cost more than asking them.
 */
/** No list of a delivery is longer; nobody works more at once, and the page of its order searches them all. */
export const MOST_ON_LINE = 3_000;
const ORDER_SQL = `SELECT o.id, o.number, o.customer, o.place, o.className, o.limitKmh, IF(o.isPrivateLand, o.terms, NULL) AS landTerms, o.dueAt, o.takenAt, o.units, o.sealed, o.held,
    o.classCheck FROM customer_order o`;
const LINE_SQL = `SELECT id, serial, typeName, isSpare, status, step, ladder, heldReason, heldWords, worker, station, visitId, returnedWhy, odd, waits, waitsUntil, handedTo, handedOverAt, stored, ownWishes
  FROM unit WHERE orderId = ? AND status <> 'withdrawn' ORDER BY position LIMIT ${MOST_ON_LINE}`;

/** Orders, newest first. */
export async function listOrders(source: DataSource, after?: string): Promise<Page<OrderView>> {
  const cursor = after === undefined ? null : readCursor(after);
  const from = cursor ? 'WHERE o.takenAt <= ? AND (o.takenAt < ? OR o.id < ?)' : '';
  const values = cursor ? [cursor.at, cursor.at, cursor.id] : [];
  const rows = await source.query<RawOrder[]>(
    `${ORDER_SQL} ${from} ORDER BY o.takenAt DESC, o.id DESC LIMIT ${PAGE + 1}`,
    values,
  );
  const items = rows.slice(0, PAGE);
  const day = await today(source.manager);
  const last = items.at(-1);
  return {
    items: items.map((row) => orderView(row, day)),
    next: rows.length > PAGE && last ? writeCursor({ at: last.takenAt, id: last.id }) : null,
  };
}

/** An authority is named so many days before it ends. */
const SOON_DAYS = 30;
const MOST_ENDING = 50;

/** Authorities for private land under which units are out and which have ended or will within thirty days, the first to end first. */
export async function endingAuthorities(source: DataSource): Promise<EndingAuthority[]> {
  const day = await today(source.manager);
  const soon = new Date(Date.parse(`${day}T00:00:00Z`) + SOON_DAYS * 86_400_000).toISOString().slice(0, 10);
  const rows = await source.query<(Omit<EndingAuthority, 'hasEnded'> & { readonly endsOn: string })[]>(
    `SELECT id, number, customer, sealed, JSON_VALUE(terms, '$.privateLand.label') AS label,
       JSON_VALUE(terms, '$.privateLand.endsOn') AS endsOn
     FROM customer_order WHERE isPrivateLand AND sealed > 0
     HAVING endsOn <= ? ORDER BY endsOn, number LIMIT ${MOST_ENDING}`,
    [soon],
  );
  return rows.map((row) => ({ ...row, hasEnded: row.endsOn < day }));
}

/** One order with all its units in the order they were taken in. */
export async function readLine(source: DataSource, orderId: string): Promise<LineView> {
  const [order] = await source.query<RawOrder[]>(`${ORDER_SQL} WHERE o.id = ?`, [orderId]);
  if (!order) throw new HttpProblem('notFound', { message: 'There is no such order.' });
  return {
    order: orderView(order, await today(source.manager)),
    units: (await source.query<RawUnit[]>(LINE_SQL, [orderId])).map(({ ownWishes, handedOverAt, stored, ...unit }) => ({
      ...unit,
      isSpare: Boolean(unit.isSpare),
      ladder: withHandover(unit.ladder, { status: unit.status, handedOverAt }),
      handedOverAt: handedOverAt?.toISOString() ?? null,
      stored: storedOf({ stored }),
      own: wishesOf({ ownWishes }),
    })),
  };
}

/** The last of the ten steps lies after the seal, in a chain of its own. */
const withHandover = (ladder: string, { status, handedOverAt }: Pick<UnitRow, 'status' | 'handedOverAt'>): string =>
  `${ladder.slice(0, -1)}${status !== 'sealed' ? 't' : handedOverAt ? 'd' : 'n'}`;

export const lineUnit = (row: UnitRow): LineUnit => ({
  id: row.id,
  serial: row.serial,
  typeName: row.typeName,
  isSpare: Boolean(row.isSpare),
  status: row.status,
  step: row.step,
  ladder: withHandover(row.ladder, row),
  heldReason: row.heldReason,
  heldWords: row.heldWords,
  worker: row.worker,
  station: row.station,
  visitId: row.visitId,
  returnedWhy: row.returnedWhy,
  odd: row.odd,
  waits: row.waits,
  waitsUntil: row.waitsUntil,
  handedTo: row.handedTo,
  handedOverAt: row.handedOverAt?.toISOString() ?? null,
  stored: storedOf(row),
  own: wishesOf(row),
});

const storedOf = ({ stored }: Pick<UnitRow, 'stored'>): StoredUnit | null =>
  stored === null ? null : (JSON.parse(stored) as StoredUnit);

type RawUnit = Omit<LineUnit, 'own' | 'handedOverAt' | 'stored'> & {
  readonly stored: string | null;
  readonly ownWishes: string | null;
  readonly handedOverAt: Date | null;
};

type RawOrder = Omit<OrderView, 'takenAt' | 'classChecked' | 'privateLand'> & {
  readonly takenAt: Date;
  readonly landTerms: string | null;
  readonly classCheck: string | null;
};

const orderView = ({ classCheck, takenAt, landTerms, ...row }: RawOrder, day: string): OrderView => ({
  ...row,
  privateLand: landTerms === null ? null : landOf(landTerms),
  takenAt: takenAt.toISOString(),
  classChecked: checkedLine(classCheck === null ? null : (JSON.parse(classCheck) as ClassCheck), day),
});

function landOf(terms: string): OrderView['privateLand'] {
  const land = termsOf({ terms }).privateLand;
  return land && { label: land.label, endsOn: land.endsOn };
}

const GROUPS_SQL = `SELECT typeId, typeName, mapId, COUNT(*) AS units, SUM(status = 'sealed') AS sealed
  FROM unit WHERE orderId = ? AND status <> 'withdrawn' GROUP BY typeId, typeName, mapId ORDER BY MIN(position)`;
const CHANGES_SHOWN = 200;

/** What a visit of each kind of unit would open with of its family. What the library does not hold any more teaches nothing. */
async function learntFor(
  manager: EntityManager,
  order: OrderRow,
  kinds: readonly { readonly typeId: string; readonly mapId: string }[],
): Promise<OrderPageView['learnt']> {
  const learnt = new Map<string, OrderPageView['learnt'][number]>();
  for (const { typeId, mapId } of kinds) {
    const key = JSON.stringify([typeId, mapId]);
    if (learnt.has(key)) continue;
    const facts = await familyFacts(manager, order, { typeId, mapId }).catch((error: unknown) => {
      if (error instanceof HttpProblem) return { ratio: null };
      throw error;
    });
    learnt.set(key, { typeId, mapId, facts });
  }
  return [...learnt.values()];
}

async function familyFacts(
  manager: EntityManager,
  order: OrderRow,
  kind: Pick<UnitRow, 'typeId' | 'mapId'>,
): Promise<OrderPageView['learnt'][number]['facts']> {
  const deciding = await decidingFor(manager, kind, order);
  const { inputs } = await withFamily(manager, inputsFor(deciding, order, { ownWishes: null }));
  const { ratio, familyOvershootKmh = null } = inputs.unit;
  return { ratio, familyOvershootKmh };
}

/** One order with what was promised, its units by type, and how it was changed. */
export async function readOrder(source: DataSource, orderId: string): Promise<OrderPageView> {
  const row = await source.manager.findOneBy(Orders, { id: orderId });
  if (!row) throw new HttpProblem('notFound', { message: 'There is no such order.' });
  const { order } = await readLine(source, orderId);
  const groups = await source.query<
    { typeId: string; typeName: string; mapId: string; units: string; sealed: string }[]
  >(GROUPS_SQL, [orderId]);
  const changes = await source.manager.find(OrderChanges, {
    where: { orderId },
    order: { at: 'DESC' },
    take: CHANGES_SHOWN,
  });
  const nameOf = await namesBehind(
    source.manager,
    changes.map(({ byName }) => byName),
  );
  const expected = JSON.parse(row.expected) as ExpectedUnits[];
  return {
    order,
    terms: termsOf(row),
    notes: row.notes,
    rulePackId: row.rulePackId,
    classId: row.classId,
    houseRulesId: row.houseRulesId,
    groups: groups.map((group) => ({ ...group, units: Number(group.units), sealed: Number(group.sealed) })),
    expected,
    learnt: await learntFor(source.manager, row, [...groups, ...expected]),
    changes: changes.map(({ kind, at, byName, reason, body }) => ({
      kind,
      at: at.toISOString(),
      by: nameOf(byName),
      reason,
      says: JSON.parse(body) as string[],
    })),
  };
}
