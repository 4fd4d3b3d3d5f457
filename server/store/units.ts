import type { BenchView, UnitFound } from '@decurio/contract';
import { checkedLine } from '@decurio/core';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Orders, Units, Visits } from './entities.js';
import { getDocument } from './library.js';
import { lineUnit } from './orders.js';
import { readEvidence } from './visits.js';

/** Finds a unit by its serial: the one in an open order, else the one that left with the newest order. */
export async function findUnit(source: DataSource, serial: string): Promise<UnitFound> {
  const found = await source
    .createQueryBuilder(Units, 'u')
    .innerJoin(Orders.options.name, 'o', 'o.id = u.orderId')
    .select(['u.id AS id', 'u.serial AS serial', 'u.status AS status', 'u.visitId AS visitId', 'o.id AS orderId', 'o.number AS orderNumber'])
    .where('u.serial = :serial', { serial })
    .orderBy('u.openSerial IS NULL')
    .addOrderBy('o.takenAt', 'DESC')
    .limit(1)
    .getRawOne<UnitFound>();
  if (!found) throw new HttpProblem('unitNotFound', { message: `No unit ${serial} is in an order. Check the label, or take it in with an order file.` });
  return found;
}

/** Everything the bench needs for one unit; the map at the version its visit uses. */
export async function readBench(source: DataSource, unitId: string): Promise<BenchView> {
  const { manager } = source;
  const unit = await manager.findOneBy(Units, { id: unitId });
  if (!unit) throw new HttpProblem('notFound', { message: 'There is no such unit.' });
  const order = await manager.findOneByOrFail(Orders, { id: unit.orderId });
  const visit = unit.visitId === null ? null : await manager.findOneBy(Visits, { id: unit.visitId });
  const type = (await getDocument(manager, 'vehicleType', unit.typeId)).document;
  const map = (await getDocument(manager, 'displayMap', unit.mapId, visit?.mapVersion)).document;
  const rulePack = (await getDocument(manager, 'rulePack', order.rulePackId)).document;
  return {
    unit: lineUnit(unit),
    orderId: order.id,
    orderNumber: order.number,
    customer: order.customer,
    className: order.className,
    classChecked: checkedLine(rulePack),
    type: { id: type.id, title: type.title, pack: type.pack, cautions: type.cautions, cutPower: type.cutPower },
    map,
    evidence: visit ? await readEvidence(manager, visit.id) : [],
  };
}
