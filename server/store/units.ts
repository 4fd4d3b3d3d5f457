import { SERIAL_SHAPE, type BenchView, type UnitFound } from '@decurio/contract';
import { checkedLine, checkStanding } from '@decurio/core';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Orders, Units, Visits, type UnitRow } from './entities.js';
import { lookAlikes } from './find-display.js';
import { lineUnit } from './orders.js';
import { acceptanceSays } from './acceptance.js';
import { classOf, decidingFor, groundOf, termsOf } from './setups.js';
import { readEvidence } from './evidence-rows.js';

const FIND_SQL = `SELECT u.id, u.serial, u.status, u.visitId, u.handedTo, o.id AS orderId, o.number AS orderNumber
  FROM unit u JOIN customer_order o ON o.id = u.orderId
  WHERE u.serial = ? ORDER BY u.openSerial IS NULL, o.takenAt DESC LIMIT 1`;

/** Finds a unit by its serial: the one in an open order, else the one that left with the newest order. */
export async function findUnit(source: DataSource, serial: string): Promise<UnitFound> {
  // What no serial can hold no unit has; the database would not even compare it.
  if (!SERIAL_SHAPE.test(serial)) throw new HttpProblem('unitNotFound');
  const [found] = await source.query<UnitFound[]>(FIND_SQL, [serial]);
  if (!found)
    throw new HttpProblem('unitNotFound', {
      message: `No unit ${serial} is in an order. Check the label, or take it in with an order file.`,
    });
  return found;
}

/** Everything the bench needs for one unit; the map at the version its visit uses. */
export async function readBench(source: DataSource, unitId: string): Promise<BenchView> {
  const { manager } = source;
  const unit = await manager.findOneBy(Units, { id: unitId });
  if (!unit) throw new HttpProblem('notFound', { message: 'There is no such unit.' });
  const order = await manager.findOneByOrFail(Orders, { id: unit.orderId });
  const visit = unit.visitId === null ? null : await manager.findOneBy(Visits, { id: unit.visitId });
  const deciding = await decidingFor(manager, unit, order, visit?.mapVersion);
  const type = deciding.type.document;
  const map = deciding.map.document;
  const vehicleClass = classOf(deciding.rulePack, order.classId);
  const { privateLand } = termsOf(order);
  const day = deciding.today;
  const evidence = visit ? await readEvidence(manager, visit.id) : [];
  return {
    unit: lineUnit(unit),
    orderId: order.id,
    orderNumber: order.number,
    customer: order.customer,
    className: order.className,
    classChecked: checkedLine(vehicleClass.checked, day),
    classCheck: vehicleClass.checked,
    classStanding: checkStanding(vehicleClass.checked, day),
    privateLand: privateLand && { label: privateLand.label, endsOn: privateLand.endsOn },
    notes: order.notes,
    type: { id: type.id, title: type.title, pack: type.pack, cautions: type.cautions, cutPower: type.cutPower },
    map,
    lookAlikes: isToldLater(unit) ? await lookAlikes(manager, unit) : [map],
    batch: isToldLater(unit) ? await batchBefore(source, unit) : null,
    evidence,
    ground: visit === null || visit.sealedAt !== null ? null : groundOf(deciding, order, unit),
    ifAccepted: await acceptanceSays(manager, unit, evidence),
  };
}

/** Whether the display's revision may still be told: before check in is through. */
const isToldLater = (unit: UnitRow): boolean => unit.status === 'waiting' || unit.step === 'checkIn';

const BATCH_SQL = `SELECT mapId, serial FROM unit
  WHERE orderId = ? AND typeId = ? AND displayFoundAt IS NOT NULL AND id <> ? ORDER BY displayFoundAt DESC LIMIT 1`;

/** What was told of the unit of this order and type before this one. */
async function batchBefore(source: DataSource, unit: UnitRow): Promise<BenchView['batch']> {
  const [before] = await source.query<{ mapId: string; serial: string }[]>(BATCH_SQL, [
    unit.orderId,
    unit.typeId,
    unit.id,
  ]);
  return before ?? null;
}
