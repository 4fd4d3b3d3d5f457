import { randomUUID } from 'node:crypto';
import { hashOf, inKmh, shortened, type OrderTerms, type VehicleClass } from '@decurio/core';
import type {
  AddUnitsRequest,
  AmendRequest,
  DecideRequest,
  NewOrderRequest,
  OrderActed,
  RecompileRequest,
  TakenView,
  WishesRequest,
  WithdrawRequest,
} from '@decurio/contract';
import { In, type DataSource, type EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { acting, actingOnUnits, actedWords, onceEach, record } from './acting-on-orders.js';
import { noteChange } from './changes.js';
import { may } from '../security/roles.js';
import { OrderChanges, Orders, Units, type OrderRow } from './entities.js';
import { isAsked } from './asked-decisions.js';
import { getDocument } from './library.js';
import { amendmentWords, decisionWords } from './order-words.js';
import { lockUnitWithVisit, nextRevision } from './behind-units.js';
import { reviseUnit, type Revision } from './revise-units.js';
import { classOf, termsOf } from './setups.js';
import { today } from './house.js';
import { insertUnits, typeAndMap } from './take-units.js';
import { inTransaction } from './transaction.js';
import { appendIn } from './append-entries.js';
import { lockVisit } from './locked-rows.js';
import type { Writer } from './writer.js';

const NOTHING_DONE: OrderActed = { revised: 0, returned: [] };

/** Who checked a class, as lists of orders keep it. */
export const checkOf = ({ checked }: VehicleClass): string | null => checked && JSON.stringify(checked);

/** Lowest of what site and order ask, km/h, as lists show it. */
export function limitOf({ siteLimit, orderLimit }: Pick<OrderTerms, 'siteLimit' | 'orderLimit'>): number | null {
  const asked = [siteLimit, orderLimit].flatMap((speed) => (speed === null ? [] : [inKmh(speed)]));
  return asked.length === 0 ? null : Math.min(...asked);
}

/** Takes an order in by hand. Sent twice under one id it is taken once. */
export async function takeByHand(source: DataSource, request: NewOrderRequest, writer: Writer): Promise<TakenView> {
  return onceEach(async () =>
    inTransaction(source, async (manager) => {
      const earlier = await manager.findOneBy(Orders, { id: request.id });
      if (earlier) return { orderId: earlier.id, number: earlier.number, unitsTaken: earlier.units };
      if (await manager.existsBy(Orders, { number: request.number })) throw new HttpProblem('orderExists');
      const { vehicleClass, place } = await placeAndClass(manager, request, writer);
      const expected = await Promise.all(
        request.expected.map(async ({ typeId, mapId, count }) => ({
          ...(await typeAndMap(manager, typeId, mapId, vehicleClass)),
          count,
        })),
      );
      const order: OrderRow = {
        id: request.id,
        number: request.number,
        customer: request.customer,
        place,
        rulePackId: request.rulePackId,
        classId: request.classId,
        className: vehicleClass.title,
        houseRulesId: request.houseRulesId,
        limitKmh: limitOf(request.terms),
        terms: JSON.stringify(termsFrom(request.terms, writer, [])),
        notes: request.notes,
        expected: '[]',
        isPrivateLand: request.terms.privateLand !== null,
        classCheck: checkOf(vehicleClass),
        dueAt: request.dueAt,
        takenAt: new Date(),
        takenBy: writer.by.userId,
        units: 0,
        sealed: 0,
        held: 0,
        revision: 0,
        revisionWords: null,
      };
      await manager.insert(Orders, order);
      const unitsTaken = await insertUnits(manager, order, request.units, vehicleClass);
      // Units named now are not among those still to come.
      await manager.update(Orders, { id: order.id }, { expected: JSON.stringify(expected) });
      await record(manager, order.id, 'taken', writer, request.notes, [`Taken in by hand with ${unitsTaken} units.`]);
      return { orderId: order.id, number: order.number, unitsTaken };
    }),
  );
}

/** Changes what was promised. Units under way are worked out anew; those that were done and differ come back. */
export async function amendOrder(
  source: DataSource,
  orderId: string,
  request: AmendRequest,
  writer: Writer,
): Promise<OrderActed> {
  return actingOnUnits(source, orderId, request.id, writer, async (manager, order) => {
    const { vehicleClass, place } = await placeAndClass(manager, request, writer);
    const before = termsOf(order);
    const terms = termsFrom(request.terms, writer, before.decisions);
    const kept =
      before.privateLand &&
      terms.privateLand &&
      hashOf({ ...before.privateLand, authorityBy: '' }) === hashOf({ ...terms.privateLand, authorityBy: '' });
    const fields = {
      customer: request.customer,
      place,
      rulePackId: request.rulePackId,
      classId: request.classId,
      className: vehicleClass.title,
      houseRulesId: request.houseRulesId,
      dueAt: request.dueAt,
      notes: request.notes,
      terms: JSON.stringify(kept ? { ...terms, privateLand: before.privateLand } : terms),
      limitKmh: limitOf(request.terms),
      isPrivateLand: request.terms.privateLand !== null,
      classCheck: checkOf(vehicleClass),
    } satisfies Partial<OrderRow>;
    const next: OrderRow = { ...order, ...fields };
    const says = amendmentWords(order, next);
    if (says.length === 0) throw new HttpProblem('nothingChanged');
    await manager.update(
      Orders,
      { id: orderId },
      {
        ...fields,
        ...(await nextRevision(manager, order, {
          why: `Order amended: ${request.reason}`,
          writer,
          sealedUnits: becomesOf(order, next),
        })),
      },
    );
    await record(manager, orderId, 'amended', writer, request.reason, says, request.id);
  });
}

/** What an amendment makes of units that are done. */
function becomesOf(was: OrderRow, is: OrderRow): Revision['sealedUnits'] {
  if (was.isPrivateLand && !is.isPrivateLand) return 'restore';
  return decidesSetup(was, is) ? 'compare' : 'leave';
}

/** Whether an amendment moves anything that a code follows from; another due time or note brings nobody back. */
const decidesSetup = (was: OrderRow, is: OrderRow): boolean =>
  was.rulePackId !== is.rulePackId ||
  was.classId !== is.classId ||
  was.houseRulesId !== is.houseRulesId ||
  hashOf(termsOf(was)) !== hashOf(termsOf(is));

/** A lead's written choice on a finding, for one type of the order. */
export async function decide(
  source: DataSource,
  orderId: string,
  request: DecideRequest,
  writer: Writer,
): Promise<OrderActed> {
  return actingOnUnits(source, orderId, request.id, writer, async (manager, order) => {
    const terms = termsOf(order);
    const type = await getDocument(manager, 'vehicleType', request.typeId);
    if (!(await isAsked(manager, order, request.typeId, request.finding))) throw new HttpProblem('notAsked');
    const decisions = [
      ...terms.decisions.filter(({ finding, typeId }) => !(finding === request.finding && typeId === request.typeId)),
      {
        finding: request.finding,
        typeId: request.typeId,
        words: request.words,
        by: writer.by.name,
        on: await today(manager),
      },
    ];
    await manager.update(
      Orders,
      { id: orderId },
      {
        terms: JSON.stringify({ ...terms, decisions }),
        ...(await nextRevision(manager, order, { why: `Decided: ${request.words}`, writer, sealedUnits: 'compare' })),
      },
    );
    await record(
      manager,
      orderId,
      'decided',
      writer,
      request.words,
      [decisionWords(request.finding, type.name)],
      request.id,
    );
  });
}

/** Works every setup of the order out anew, as when a map, type or rule changed. */
export async function recompileOrder(
  source: DataSource,
  orderId: string,
  request: RecompileRequest,
  writer: Writer,
): Promise<OrderActed> {
  return actingOnUnits(source, orderId, request.id, writer, async (manager, order) => {
    const pack = await getDocument(manager, 'rulePack', order.rulePackId);
    await manager.update(
      Orders,
      { id: orderId },
      {
        className: classOf(pack, order.classId).title,
        ...(await nextRevision(manager, order, {
          why: `Worked out anew: ${request.reason}`,
          writer,
          sealedUnits: 'compare',
        })),
      },
    );
    await record(manager, orderId, 'recompiled', writer, request.reason, [], request.id);
  });
}

/** Adds units, as when they are scanned on arrival; units of the type that were expected become fewer. */
export async function addUnits(
  source: DataSource,
  orderId: string,
  request: AddUnitsRequest,
  writer: Writer,
): Promise<OrderActed> {
  await onceEach(() =>
    acting(source, orderId, request.id, async (manager, order) => {
      const pack = await getDocument(manager, 'rulePack', order.rulePackId);
      const added = await insertUnits(manager, order, request.units, classOf(pack, order.classId));
      const serials = request.units.map(({ serial }) => serial);
      const says = [
        added === 1
          ? `${serials[0]} added.`
          : `${added} units added: ${serials.slice(0, 6).join(', ')}${added > 6 ? ' and more' : ''}.`,
      ];
      await record(manager, orderId, 'unitsAdded', writer, '', says, request.id);
    }),
  );
  return NOTHING_DONE;
}

/** Takes units out of the order, one at a time. Those that were sealed have left and stay in the record. */
export async function withdrawUnits(
  source: DataSource,
  orderId: string,
  request: WithdrawRequest,
  writer: Writer,
): Promise<OrderActed> {
  await acting(source, orderId, request.id, async (manager) => {
    const rows = await manager.findBy(Units, { orderId, id: In(request.unitIds) });
    if (
      rows.length !== request.unitIds.length ||
      rows.some(({ status }) => status === 'sealed' || status === 'withdrawn')
    )
      throw new HttpProblem('notInOrder');
    await record(
      manager,
      orderId,
      'withdrawn',
      writer,
      request.reason,
      [shortened(`Withdrawn: ${rows.map(({ serial }) => serial).join(', ')}.`, 480)],
      request.id,
    );
  });
  const stayed = [];
  for (const unitId of request.unitIds)
    stayed.push(...(await inTransaction(source, (manager) => withdraw(manager, unitId, request.reason, writer))));
  return { ...NOTHING_DONE, stayed };
}

/** @returns the unit with what kept it where it was sealed meanwhile */
async function withdraw(
  manager: EntityManager,
  unitId: string,
  words: string,
  writer: Writer,
): Promise<NonNullable<OrderActed['stayed']>> {
  const unit = await lockUnitWithVisit(manager, unitId);
  if (unit.status === 'withdrawn') return [];
  if (unit.status === 'sealed') return [{ serial: unit.serial, says: 'It was signed off meanwhile.' }];
  if (unit.visitId === null) {
    await manager.update(Units, { id: unit.id }, { status: 'withdrawn', openSerial: null });
    await noteChange(manager, { orderId: unit.orderId, unitId: unit.id, seq: 0 });
  } else {
    const { lastSeq } = await lockVisit(manager, unit.id, unit.visitId);
    await appendIn(
      manager,
      unit.id,
      unit.visitId,
      { id: randomUUID(), seq: lastSeq + 1, kind: 'withdrawn', at: new Date().toISOString(), data: { words } },
      writer,
    );
  }
  await manager.decrement(Orders, { id: unit.orderId }, 'units', 1);
  return [];
}

/** What one unit is to have otherwise than its order, with the reason; null takes it back. */
export async function setWishes(
  source: DataSource,
  unitId: string,
  request: WishesRequest,
  writer: Writer,
): Promise<OrderActed> {
  return inTransaction(source, async (manager) => {
    const unit = await lockUnitWithVisit(manager, unitId);
    if (await manager.existsBy(OrderChanges, { id: request.id })) return NOTHING_DONE;
    if (unit.status === 'withdrawn') throw new HttpProblem('withdrawn');
    const order = await manager.findOneByOrFail(Orders, { id: unit.orderId });
    const wishes = request.wishes && { ...request.wishes, by: writer.by.name };
    const next = { ...unit, ownWishes: wishes && JSON.stringify(wishes) };
    await manager.update(Units, { id: unitId }, { ownWishes: next.ownWishes });
    const why = wishes?.why ?? 'As the order has it again.';
    const acted = await reviseUnit(manager, order, next, {
      why: `This unit otherwise: ${why}`,
      writer,
      sealedUnits: 'compare',
    });
    await record(
      manager,
      order.id,
      'wishes',
      writer,
      why,
      [
        `${unit.serial} ${wishes ? 'is set otherwise than the order' : 'is set as the order again'}.`,
        ...actedWords(acted),
      ],
      request.id,
    );
    return acted;
  });
}

async function placeAndClass(
  manager: EntityManager,
  {
    rulePackId,
    classId,
    houseRulesId,
    terms,
  }: Pick<NewOrderRequest, 'rulePackId' | 'classId' | 'houseRulesId' | 'terms'>,
  { by }: Writer,
): Promise<{ readonly vehicleClass: VehicleClass; readonly place: string }> {
  const pack = await getDocument(manager, 'rulePack', rulePackId);
  await getDocument(manager, 'houseRules', houseRulesId);
  const vehicleClass = classOf(pack, classId);
  const isPrivate = vehicleClass.regime === 'privateLand';
  if (isPrivate && !may(by.role, 'decide')) throw new HttpProblem('needsAuthority');
  if (isPrivate !== (terms.privateLand !== null)) {
    const message = isPrivate
      ? "This class is for private land: it wants the customer's acknowledgement, a label and a day on which it ends."
      : `The class "${vehicleClass.title}" is for public roads: private land does not go with it.`;
    throw new HttpProblem('badFields', { message, fields: { privateLand: message } });
  }
  return { vehicleClass, place: pack.document.place };
}

const termsFrom = (
  { siteLimit, orderLimit, throttle, privateLand }: NewOrderRequest['terms'],
  { by }: Writer,
  decisions: OrderTerms['decisions'],
): OrderTerms => ({
  siteLimit,
  orderLimit,
  throttle,
  privateLand: privateLand && { ...privateLand, authorityBy: by.name },
  decisions,
});
