import { randomUUID } from 'node:crypto';
import { checkStanding, shortened, type RulePack } from '@decurio/core';
import type {
  Lapsing,
  MovedDocument,
  MovedView,
  MovingKind,
  Recalled,
  RecallRequest,
  StayRequest,
} from '@decurio/contract';
import { In, type DataSource, type EntityManager } from 'typeorm';
import { COLUMNS_OF, OUT } from '../ledger/hold-against.js';
import { HttpProblem } from '../problems.js';
import { onceEach, record } from './acting-on-orders.js';
import { Orders, Units, type OrderRow, type UnitRow } from './entities.js';
import { today } from './house.js';
import { getDocument, libraryHeads, newestDocuments } from './library.js';
import { checkOf } from './order-acts.js';
import { classOf, termsOf } from './setups.js';
import { insertUnits } from './take-units.js';
import { inTransaction } from './transaction.js';
import type { Writer } from './writer.js';

/** Ends within so many days are told before they come. */
const SOON_DAYS = 60;
const DAY_MS = 86_400_000;

/** Documents that moved since units left under them, and what ends before long. */
export async function movedView(source: DataSource): Promise<MovedView> {
  const kinds = Object.keys(COLUMNS_OF) as MovingKind[];
  const documents = await Promise.all(kinds.map((kind) => behind(source, kind)));
  return { documents: documents.flat(), lapsing: await lapsing(source) };
}

async function behind(source: DataSource, kind: MovingKind): Promise<readonly MovedDocument[]> {
  const [id, version] = COLUMNS_OF[kind];
  const rows = await source.query<{ id: string; version: number; n: string }[]>(
    `SELECT l.${id} AS id, l.${version} AS version, COUNT(*) AS n FROM ${OUT.from} WHERE ${OUT.where} GROUP BY l.${id}, l.${version}`,
  );
  const heads = await libraryHeads(source.manager, kind);
  return heads.flatMap(({ id: own, name, version: newest }) => {
    const unitsBehind = rows
      .filter((row) => row.id === own && row.version < newest)
      .reduce((sum, { n }) => sum + Number(n), 0);
    return unitsBehind > 0 ? [{ kind, id: own, name, version: newest, unitsBehind }] : [];
  });
}

async function lapsing(source: DataSource): Promise<readonly Lapsing[]> {
  const day = await today(source.manager);
  const until = new Date(Date.parse(day) + SOON_DAYS * DAY_MS).toISOString().slice(0, 10);
  const rows = await source.query<{ packId: string; classId: string; n: string }[]>(
    `SELECT l.packId, o.classId, COUNT(*) AS n FROM ${OUT.from} JOIN customer_order o ON o.id = l.orderId WHERE ${OUT.where} AND o.isPrivateLand = 0 GROUP BY l.packId, o.classId`,
  );
  const packs = await newestDocuments(source.manager, 'rulePack');
  const classes = packs.flatMap(({ id, document }) =>
    ending(document, until, day).map((each) => ({ ...each, packId: id })),
  );
  const land = await source.query<{ number: string; customer: string; terms: string; n: string }[]>(
    `SELECT o.number, o.customer, o.terms, COUNT(*) AS n FROM ${OUT.from} JOIN customer_order o ON o.id = l.orderId WHERE ${OUT.where} AND o.isPrivateLand = 1 GROUP BY o.id`,
  );
  return [
    ...classes.flatMap(({ packId, classId, ...each }) => {
      const out = rows.find((row) => row.packId === packId && row.classId === classId);
      return out ? [{ what: 'class' as const, ...each, unitsOut: Number(out.n) }] : [];
    }),
    ...land.flatMap(({ number, customer, terms, n }) => {
      const endsOn = termsOf({ terms }).privateLand?.endsOn ?? '';
      return endsOn !== '' && endsOn <= until
        ? [{ what: 'privateLand' as const, title: `Order ${number}`, of: customer, endsOn, unitsOut: Number(n) }]
        : [];
    }),
  ].sort((a, b) => (a.endsOn < b.endsOn ? -1 : 1));
}

function ending({ classes, place }: RulePack, until: string, day: string) {
  return classes.flatMap(({ id, title, checked }) =>
    checked !== null && (checked.expiresOn <= until || checkStanding(checked, day) === 'expired')
      ? [{ classId: id, title, of: place, endsOn: checked.expiresOn }]
      : [],
  );
}

/** Units of these visits, locked: those that are still out as they left, and the others. */
async function outUnits(
  manager: EntityManager,
  visitIds: readonly string[],
): Promise<{ readonly out: readonly UnitRow[]; readonly back: readonly UnitRow[] }> {
  const rows = await manager.find(Units, {
    where: { visitId: In([...new Set(visitIds)]) },
    order: { id: 'ASC' },
    lock: { mode: 'pessimistic_write' },
  });
  const isOut = ({ handedOverAt, status }: UnitRow): boolean => handedOverAt !== null && status === 'sealed';
  return { out: rows.filter(isOut), back: rows.filter((row) => !isOut(row)) };
}

interface About {
  readonly kind: MovingKind;
  readonly id: string;
}

async function decided(
  manager: EntityManager,
  { kind, id }: About,
  version: number,
  visitIds: readonly string[],
  decision: { readonly what: 'stays' | 'recalled'; readonly words: string; readonly recallId: string | null },
  { by }: Writer,
): Promise<void> {
  if (visitIds.length === 0) return;
  await manager.query(
    `INSERT INTO moved_decision (kind, docId, version, visitId, decided, words, recallId, decidedBy, at)
     VALUES ${visitIds.map(() => '(?, ?, ?, ?, ?, ?, ?, ?, UTC_TIMESTAMP(3))').join(', ')}
     ON DUPLICATE KEY UPDATE decided = VALUES(decided), words = VALUES(words), recallId = VALUES(recallId), decidedBy = VALUES(decidedBy), at = VALUES(at)`,
    visitIds.flatMap((visitId) => [
      kind,
      id,
      version,
      visitId,
      decision.what,
      decision.words,
      decision.recallId,
      by.userId,
    ]),
  );
}

async function newestVersion(manager: EntityManager, { kind, id }: About, version: number): Promise<void> {
  const newest = await getDocument(manager, kind, id);
  if (newest.version !== version)
    throw new HttpProblem('staleVersion', {
      message: `${newest.name} has moved on to version ${newest.version} meanwhile. Hold the units against that one.`,
    });
}

/** Writes down that units may stay as they are under a version, and why. */
export async function letStay(source: DataSource, about: About, request: StayRequest, writer: Writer): Promise<void> {
  await inTransaction(source, async (manager) => {
    await newestVersion(manager, about, request.version);
    const { out } = await outUnits(manager, request.visitIds);
    const visitIds = out.flatMap(({ visitId }) => (visitId === null ? [] : [visitId]));
    await decided(
      manager,
      about,
      request.version,
      visitIds,
      { what: 'stays', words: request.words, recallId: null },
      writer,
    );
  });
}

/**
 * Calls units back: an order for each customer and promise among them, into which they are taken to be prepared from what
 * they left with. A unit that came back meanwhile, or is in an open order, is left and named. Sent twice it is done once.
 */
export async function recall(
  source: DataSource,
  about: About,
  request: RecallRequest,
  writer: Writer,
): Promise<Recalled> {
  return onceEach(async () =>
    inTransaction(source, async (manager) => {
      const before = await recalledBefore(manager, request.id);
      if (before.length > 0) return { orders: before, left: [] };
      await newestVersion(manager, about, request.version);
      const { out, back } = await outUnits(manager, request.visitIds);
      const open = await openElsewhere(manager, out);
      const due = out.filter(({ serial }) => !open.has(serial.toLowerCase()));
      const groups = await byPromise(manager, due);
      if (groups.length === 0) throw new HttpProblem('nothingChanged', { message: 'None of them is out any more.' });
      const orders: { orderId: string; number: string; units: number }[] = [];
      for (const [i, group] of groups.entries())
        orders.push(await recallOrder(manager, group, { request, writer, i, of: groups.length }));
      const visitIds = due.flatMap(({ visitId }) => (visitId === null ? [] : [visitId]));
      const words = { what: 'recalled' as const, words: request.words, recallId: request.id };
      await decided(manager, about, request.version, visitIds, words, writer);
      const left = [
        ...back.map(({ serial }) => ({ serial, says: 'It is back, or was taken up again.' })),
        ...out
          .filter(({ serial }) => open.has(serial.toLowerCase()))
          .map(({ serial }) => ({ serial, says: 'It is in an open order already.' })),
      ];
      return { orders, left };
    }),
  );
}

async function recalledBefore(manager: EntityManager, id: string): Promise<Recalled['orders'][number][]> {
  const rows = await manager.query<{ orderId: string; number: string; units: number }[]>(
    `SELECT o.id AS orderId, o.number, o.units FROM customer_order o WHERE o.id IN
       (SELECT n.orderId FROM moved_decision d JOIN unit n ON n.lastVisitId = d.visitId WHERE d.recallId = ?) ORDER BY o.number`,
    [id],
  );
  return rows;
}

async function openElsewhere(manager: EntityManager, units: readonly UnitRow[]): Promise<ReadonlySet<string>> {
  if (units.length === 0) return new Set();
  const open = await manager.findBy(Units, { openSerial: In(units.map(({ serial }) => serial)) });
  return new Set(open.map(({ serial }) => serial.toLowerCase()));
}

interface Promised {
  readonly order: OrderRow;
  readonly units: readonly UnitRow[];
}

/** Units that were promised alike, to one customer. */
async function byPromise(manager: EntityManager, units: readonly UnitRow[]): Promise<readonly Promised[]> {
  const ids = [...new Set(units.map(({ orderId }) => orderId))];
  const orders = ids.length === 0 ? [] : await manager.findBy(Orders, { id: In(ids) });
  const groups = new Map<string, { order: OrderRow; units: UnitRow[] }>();
  for (const unit of units) {
    const order = orders.find(({ id }) => id === unit.orderId);
    if (!order) continue;
    const { customer, rulePackId, classId, houseRulesId, terms } = order;
    const key = JSON.stringify([customer, rulePackId, classId, houseRulesId, terms]);
    const group = groups.get(key) ?? { order, units: [] };
    group.units.push(unit);
    groups.set(key, group);
  }
  return [...groups.values()].sort((a, b) => (a.order.customer < b.order.customer ? -1 : 1));
}

interface Making {
  readonly request: RecallRequest;
  readonly writer: Writer;
  readonly i: number;
  readonly of: number;
}

async function recallOrder(
  manager: EntityManager,
  { order: was, units }: Promised,
  { request, writer, i, of }: Making,
): Promise<Recalled['orders'][number]> {
  const vehicleClass = classOf(await getDocument(manager, 'rulePack', was.rulePackId), was.classId);
  const order: OrderRow = {
    ...was,
    id: i === 0 ? request.id : randomUUID(),
    number: of === 1 ? request.number : `${request.number}-${i + 1}`,
    className: vehicleClass.title,
    classCheck: checkOf(vehicleClass),
    notes: shortened(`Recall: ${request.words}`, 1000),
    expected: '[]',
    dueAt: request.dueAt,
    takenAt: new Date(),
    takenBy: writer.by.userId,
    units: 0,
    sealed: 0,
    held: 0,
    revision: 0,
    revisionWords: null,
  };
  if (await manager.existsBy(Orders, { number: order.number })) throw new HttpProblem('orderExists');
  await manager.insert(Orders, order);
  const wanted = units.map(({ serial, typeId, mapId }) => ({ serial, typeId, mapId }));
  const count = await insertUnits(manager, order, wanted, vehicleClass);
  for (const { serial, visitId, ownWishes } of units)
    await manager.update(
      Units,
      { orderId: order.id, serial },
      { lastVisitId: visitId, ownWishes, returnedWhy: shortened(`Recall: ${request.words}`, 500) },
    );
  const says = [`Recall of ${count} ${count === 1 ? 'unit' : 'units'} that left with order ${was.number} and alike.`];
  await record(manager, order.id, 'taken', writer, request.words, says);
  return { orderId: order.id, number: order.number, units: count };
}
