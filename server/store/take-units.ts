import { randomUUID } from 'node:crypto';
import { SPARE_STEPS, STEPS_OFFERED, untouchedLadder, type VehicleClass } from '@decurio/core';
import type { ExpectedUnits, NewUnit } from '@decurio/contract';
import { In, type EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Orders, Units, type OrderRow, type UnitRow } from './entities.js';
import { getDocument } from './library.js';

/** Units that come into an order, one row each. */
export function unitRows(
  order: Pick<OrderRow, 'id' | 'units' | 'revision'>,
  units: readonly {
    readonly serial: string;
    readonly typeId: string;
    readonly typeName: string;
    readonly mapId: string;
    readonly isSpare?: boolean;
  }[],
): UnitRow[] {
  return units.map(({ serial, typeId, typeName, mapId, isSpare = false }, i) => ({
    id: randomUUID(),
    orderId: order.id,
    position: order.units + i + 1,
    serial,
    openSerial: serial,
    typeId,
    typeName,
    mapId,
    status: 'waiting',
    step: null,
    ladder: untouchedLadder(isSpare ? SPARE_STEPS : STEPS_OFFERED),
    isSpare,
    heldReason: null,
    heldWords: null,
    worker: null,
    station: null,
    visitId: null,
    displayFoundAt: null,
    ownWishes: null,
    returnedWhy: null,
    odd: null,
    lastVisitId: null,
    foundAt: null,
    surprises: 0,
    waits: null,
    waitsUntil: null,
    provedAt: null,
    proofsFailed: 0,
    handedTo: null,
    handedOverAt: null,
    stored: null,
    revision: order.revision,
  }));
}

/** The last place in an order that a unit has, withdrawn ones included; 0 while it has none. */
export const lastPosition = async (manager: EntityManager, orderId: string): Promise<number> =>
  (await manager.maximum(Units, 'position', { orderId })) ?? 0;

/** Puts units into an order: new ones at its end, those withdrawn before where they were. Nothing is changed where one cannot come. */
export async function insertUnits(
  manager: EntityManager,
  order: OrderRow,
  units: readonly NewUnit[],
  vehicleClass: VehicleClass,
): Promise<number> {
  if (units.length === 0) return 0;
  const kinds = new Map<string, Omit<ExpectedUnits, 'count'>>();
  for (const { typeId, mapId } of units) {
    const key = `${typeId} ${mapId}`;
    if (!kinds.has(key)) kinds.set(key, await typeAndMap(manager, typeId, mapId, vehicleClass));
  }
  const resolved = units.flatMap(({ serial, typeId, mapId, isSpare = false }) => {
    const kind = kinds.get(`${typeId} ${mapId}`);
    return kind ? [{ serial, isSpare, ...kind }] : [];
  });
  const twice = resolved.find(
    ({ serial }, i) => resolved.findIndex((other) => other.serial.toLowerCase() === serial.toLowerCase()) !== i,
  );
  if (twice)
    throw new HttpProblem('serialTaken', { message: `${twice.serial} is in the list twice. Nothing was changed.` });
  const taken = await manager.findBy(Units, { openSerial: In(resolved.map(({ serial }) => serial)) });
  const [first] = taken;
  if (first)
    throw new HttpProblem('serialTaken', {
      message: `${first.serial} is in ${first.orderId === order.id ? 'this order' : 'an open order'} already. Nothing was changed.`,
    });
  const again = await manager.findBy(Units, { orderId: order.id, serial: In(resolved.map(({ serial }) => serial)) });
  const left = new Map(again.map((row) => [row.serial.toLowerCase(), row]));
  for (const row of left.values()) {
    if (row.status !== 'withdrawn')
      throw new HttpProblem('serialTaken', { message: `${row.serial} has left with this order already.` });
    await manager.update(
      Units,
      { id: row.id },
      {
        ...unitRows({ ...order, units: row.position - 1 }, [row])[0],
        id: row.id,
        lastVisitId: row.visitId ?? row.lastVisitId,
      },
    );
  }
  const fresh = resolved.filter(({ serial }) => !left.has(serial.toLowerCase()));
  const rows = unitRows({ ...order, units: await lastPosition(manager, order.id) }, fresh);
  for (let from = 0; from < rows.length; from += 1000)
    await manager
      .createQueryBuilder()
      .insert()
      .into(Units)
      .values(rows.slice(from, from + 1000))
      .updateEntity(false)
      .execute();
  await manager.update(
    Orders,
    { id: order.id },
    {
      expected: JSON.stringify(
        arrived(
          JSON.parse(order.expected) as ExpectedUnits[],
          resolved.filter(({ isSpare }) => !isSpare),
        ),
      ),
    },
  );
  await manager.increment(Orders, { id: order.id }, 'units', resolved.length);
  return resolved.length;
}

/** What is still to come after these arrived. */
function arrived(
  expected: readonly ExpectedUnits[],
  units: readonly { readonly typeId: string }[],
): readonly ExpectedUnits[] {
  return expected
    .map((group) => ({ ...group, count: group.count - units.filter(({ typeId }) => typeId === group.typeId).length }))
    .filter(({ count }) => count > 0);
}

/** A type and the display it carries in this order, checked against each other and the class. */
export async function typeAndMap(
  manager: EntityManager,
  typeId: string,
  mapId: string | null,
  vehicleClass: VehicleClass,
): Promise<Omit<ExpectedUnits, 'count'>> {
  const type = (await getDocument(manager, 'vehicleType', typeId)).document;
  if (vehicleClass.kind !== 'any' && vehicleClass.kind !== type.kind)
    throw new HttpProblem('unknownHere', {
      message: `${type.name} is a ${type.kind}; the class "${vehicleClass.title}" is for a ${vehicleClass.kind}.`,
    });
  const chosen = mapId ?? type.maps[0];
  if (chosen === undefined || !type.maps.includes(chosen))
    throw new HttpProblem('unknownHere', {
      message: `${type.name} does not carry the display "${mapId}". It carries: ${type.maps.join(', ')}.`,
    });
  await getDocument(manager, 'displayMap', chosen);
  return { typeId: type.id, typeName: type.name, mapId: chosen };
}
