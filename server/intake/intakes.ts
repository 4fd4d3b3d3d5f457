import { randomUUID } from 'node:crypto';
import { checkedLine, promiseDifferences } from '@decurio/core';
import { PROBLEMS_SHOWN, type IntakeProblem, type IntakeReport, type TakenView } from '@decurio/contract';
import { In, LessThan, QueryFailedError, type DataSource, type EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Intakes, Orders, Units, type OrderRow, type UnitRow } from '../store/entities.js';
import { noteOrderChange } from '../store/changes.js';
import { getDocument, newestDocuments } from '../store/library.js';
import { checkOf, limitOf } from '../store/order-acts.js';
import { promiseOf } from '../store/order-words.js';
import { lastPosition, unitRows } from '../store/take-units.js';
import { nowInHouse } from '../store/house.js';
import { classOf } from '../store/setups.js';
import { inTransaction } from '../store/transaction.js';
import { orderDoubts } from './order-doubts.js';
import type { Readers } from '../reading/readers.js';
import { intakeLibrary, type CheckedFile, type OrderDraft, type UnitDraft } from './check-order-file.js';

const DAY_MS = 86_400_000;
const CHUNK = 1000;

interface IntakeBody {
  readonly order: OrderDraft;
  readonly units: readonly UnitDraft[];
}

/**
 * Checks a dropped order file and keeps its good rows under `intakeId` for a day, so that they can be taken with one
 * click. Nothing is in an order yet.
 */
export async function checkIntake(
  source: DataSource,
  file: { readonly intakeId: string; readonly fileName: string; readonly bytes: Buffer },
  accountId: string,
  { readers, signal }: { readonly readers: Readers; readonly signal?: AbortSignal },
): Promise<IntakeReport> {
  const { manager } = source;
  const { intakeId, fileName } = file;
  const library = {
    types: await newestDocuments(manager, 'vehicleType'),
    maps: await newestDocuments(manager, 'displayMap'),
    rulePacks: await newestDocuments(manager, 'rulePack'),
    houseRules: await newestDocuments(manager, 'houseRules'),
  };
  const read = await readers.orderFile(file.bytes, intakeLibrary(library), signal);
  if (!read.ok) return { ...NOTHING, intakeId, fileName, problems: [read.problem], problemsInAll: 1 };
  const { checked } = read;
  const known = await againstDatabase(manager, checked);
  const problems = [...checked.problems, ...known.problems, ...(read.broken ? [read.broken] : [])].sort(
    (a, b) => a.line - b.line || a.column - b.column,
  );
  const { order } = checked;
  const good = known.orderConflict ? [] : known.fresh;
  const now = await nowInHouse(manager);
  const vehicleClass = library.rulePacks
    .find((pack) => pack.id === order?.rulePackId)
    ?.document.classes.find((each) => each.id === order?.classId);
  if (order) {
    await manager.delete(Intakes, { createdAt: LessThan(new Date(Date.now() - DAY_MS)) });
    await keepIntake(manager, intakeId, accountId, { order, units: good });
  }
  return {
    intakeId,
    fileName,
    order: order && {
      number: order.number,
      customer: order.customer,
      place: order.place,
      className: order.className,
      classChecked: checkedLine(vehicleClass?.checked ?? null, now.slice(0, 10)),
      dueAt: order.dueAt,
      isNew: known.existingOrder === null,
    },
    doubts: order && vehicleClass ? orderDoubts(order, vehicleClass, now) : [],
    rowsRead: checked.rowsRead,
    rowsGood: good.length,
    rowsAlreadyTaken: known.alreadyHere,
    rowsBad: checked.rowsRead - good.length - known.alreadyHere,
    types: countTypes(good),
    problems: problems.slice(0, PROBLEMS_SHOWN),
    problemsInAll: problems.length,
  };
}

const NOTHING = {
  order: null,
  doubts: [],
  rowsRead: 0,
  rowsGood: 0,
  rowsAlreadyTaken: 0,
  rowsBad: 0,
  types: [],
} as const;

const countTypes = (units: readonly UnitDraft[]) =>
  [...new Set(units.map((unit) => unit.typeName))].map((name) => ({
    name,
    count: units.filter((unit) => unit.typeName === name).length,
  }));

/** A file sent again under the same id replaces what was kept, unless it was taken meanwhile. */
async function keepIntake(manager: EntityManager, id: string, accountId: string, body: IntakeBody): Promise<void> {
  const earlier = await manager.findOneBy(Intakes, { id });
  if (earlier && (earlier.accountId !== accountId || earlier.takenOrderId !== null)) throw new HttpProblem('idReused');
  await manager.save(Intakes, {
    id,
    accountId,
    createdAt: new Date(),
    body: JSON.stringify(body),
    takenOrderId: null,
    unitsTaken: 0,
  });
}

interface Known {
  readonly existingOrder: OrderRow | null;
  readonly orderConflict: boolean;
  readonly fresh: readonly UnitDraft[];
  readonly alreadyHere: number;
  readonly problems: readonly IntakeProblem[];
}

async function againstDatabase(manager: EntityManager, checked: CheckedFile): Promise<Known> {
  const { order, units } = checked;
  if (!order) return { existingOrder: null, orderConflict: false, fresh: [], alreadyHere: 0, problems: [] };
  const existingOrder = await manager.findOneBy(Orders, { number: order.number });
  const problems: IntakeProblem[] = existingOrder ? otherwise(existingOrder, order) : [];
  const orderConflict = problems.length > 0;
  const here = new Map<string, UnitRow>();
  const elsewhere = new Map<string, UnitRow>();
  for (let from = 0; from < units.length; from += CHUNK) {
    const serials = units.slice(from, from + CHUNK).map((unit) => unit.serial);
    for (const row of await manager.findBy(Units, { openSerial: In(serials) }))
      elsewhere.set(row.serial.toLowerCase(), row);
    if (existingOrder) {
      for (const row of await manager.findBy(Units, { orderId: existingOrder.id, serial: In(serials) }))
        here.set(row.serial.toLowerCase(), row);
    }
  }
  const orderNumbers = await numbersOf(manager, [...elsewhere.values()]);
  const fresh: UnitDraft[] = [];
  let alreadyHere = 0;
  for (const unit of units) {
    const key = unit.serial.toLowerCase();
    const other = elsewhere.get(key);
    if (here.has(key)) alreadyHere++;
    else if (other) {
      problems.push({
        line: unit.line,
        column: checked.serialColumn,
        columnName: 'serial',
        code: 'inOtherOrder',
        message: `${unit.serial} is in the open order ${orderNumbers.get(other.orderId)} already. It can be prepared for one order at a time.`,
      });
    } else fresh.push(unit);
  }
  return { existingOrder, orderConflict, fresh, alreadyHere, problems };
}

async function numbersOf(manager: EntityManager, units: readonly UnitRow[]): Promise<ReadonlyMap<string, string>> {
  const ids = [...new Set(units.map((unit) => unit.orderId))];
  const orders = ids.length === 0 ? [] : await manager.findBy(Orders, { id: In(ids) });
  return new Map(orders.map((order) => [order.id, order.number]));
}

/** Where a file promises otherwise than the order that stands under its number. */
function otherwise(existing: OrderRow, draft: OrderDraft): IntakeProblem[] {
  const standing = promiseOf(existing);
  const houseRulesId = draft.namesHouseRules ? draft.houseRulesId : standing.houseRulesId;
  return promiseDifferences(standing, { ...draft, houseRulesId }).map(({ what, was, is }) => ({
    line: 2,
    column: 0,
    columnName: what,
    code: 'orderDiffers',
    message: `Order ${existing.number} stands with ${what} "${was}"; this file says "${is}". Use another order number, say the same here, or add the units on the page of the order.`,
  }));
}

/** Takes the good rows of a checked file into their order: all of them or none, and never twice. */
export async function takeIntake(source: DataSource, intakeId: string, accountId: string): Promise<TakenView> {
  try {
    return await inTransaction(source, (manager) => take(manager, intakeId, accountId));
  } catch (error) {
    const duplicate =
      error instanceof QueryFailedError && (error.driverError as { code?: string }).code === 'ER_DUP_ENTRY';
    throw duplicate ? new HttpProblem('intakeStale') : error;
  }
}

async function take(manager: EntityManager, intakeId: string, accountId: string): Promise<TakenView> {
  const intake = await manager.findOne(Intakes, { where: { id: intakeId }, lock: { mode: 'pessimistic_write' } });
  if (!intake || intake.accountId !== accountId) throw new HttpProblem('intakeGone');
  const { order: draft, units } = JSON.parse(intake.body) as IntakeBody;
  if (intake.takenOrderId !== null)
    return { orderId: intake.takenOrderId, number: draft.number, unitsTaken: intake.unitsTaken };
  if (units.length === 0) throw new HttpProblem('intakeEmpty');
  const existing = await manager.findOne(Orders, {
    where: { number: draft.number },
    lock: { mode: 'pessimistic_write' },
  });
  // The order may have been amended since the file was checked: held against it again, under its lock.
  const [differs] = existing ? otherwise(existing, draft) : [];
  if (differs) throw new HttpProblem('orderDiffers', { message: `${differs.message} Nothing was taken.` });
  const order = existing ?? (await insertOrder(manager, draft, accountId));
  const rows = unitRows({ ...order, units: await lastPosition(manager, order.id) }, units);
  for (let from = 0; from < rows.length; from += CHUNK) {
    await manager
      .createQueryBuilder()
      .insert()
      .into(Units)
      .values(rows.slice(from, from + CHUNK))
      .updateEntity(false)
      .execute();
  }
  await manager.increment(Orders, { id: order.id }, 'units', rows.length);
  await noteOrderChange(manager, order.id);
  await manager.update(Intakes, { id: intakeId }, { takenOrderId: order.id, unitsTaken: rows.length });
  return { orderId: order.id, number: order.number, unitsTaken: rows.length };
}

async function insertOrder(manager: EntityManager, draft: OrderDraft, accountId: string): Promise<OrderRow> {
  const { number, customer, place, rulePackId, classId, className, houseRulesId, dueAt, notes, terms } = draft;
  const row: OrderRow = {
    id: randomUUID(),
    number,
    customer,
    place,
    rulePackId,
    classId,
    className,
    houseRulesId,
    dueAt,
    notes,
    limitKmh: limitOf(terms),
    terms: JSON.stringify(terms),
    expected: '[]',
    isPrivateLand: false,
    classCheck: checkOf(classOf(await getDocument(manager, 'rulePack', draft.rulePackId), draft.classId)),
    takenAt: new Date(),
    takenBy: accountId,
    units: 0,
    sealed: 0,
    held: 0,
    revision: 0,
    revisionWords: null,
  };
  await manager.insert(Orders, row);
  return row;
}
