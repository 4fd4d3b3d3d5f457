import { randomUUID } from 'node:crypto';
import type { PinLookRequest, PinView } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { openPin, randomPin, sealPin } from '../security/pin-cipher.js';
import { Orders, PinLooks, Pins, Units, type OrderRow, type PinRow } from './entities.js';
import { getDocument, getDocuments } from './library.js';
import { namesBehind, writtenBy } from './personal.js';
import { wishesOf } from './setups.js';
import { inTransaction } from './transaction.js';
import type { Writer } from './writer.js';

const USUAL_DIGITS = 4;

/**
 * Shows the PIN that policy sets for an order or one of its units, made at the first look; what starts a ride never has
 * the digits that open a menu of the same order. Every look is recorded
 * before the digits are given out.
 */
export async function lookAtPin(
  source: DataSource,
  orderId: string,
  { opens, unitId, why }: PinLookRequest,
  { by }: Writer,
  secrets: PinSecrets,
): Promise<PinView> {
  return inTransaction(source, async (manager) => {
    const order = await manager.findOne(Orders, { where: { id: orderId }, lock: { mode: 'pessimistic_write' } });
    if (!order) throw new HttpProblem('notFound', { message: 'There is no such order.' });
    const whose = { opens, owner: await ownerOf(manager, order, opens, unitId) };
    const pin = (await manager.findOneBy(Pins, whose)) ?? (await makePin(manager, order, whose, secrets));
    const looks = await manager.find(PinLooks, { where: { pinId: pin.id }, order: { at: 'DESC' }, take: 50 });
    await manager.insert(PinLooks, { id: randomUUID(), pinId: pin.id, byName: writtenBy(by), at: new Date(), why });
    const nameOf = await namesBehind(
      manager,
      looks.map((look) => look.byName),
    );
    return {
      digits: digitsOf(pin, secrets),
      madeAt: pin.madeAt.toISOString(),
      looks: looks.map((look) => ({ by: nameOf(look.byName), at: look.at.toISOString(), why: look.why })),
    };
  });
}

type Whose = Pick<PinRow, 'owner' | 'opens'>;

/** What a PIN is bound to as it is sealed. */
const bound = ({ owner, opens }: Whose): string => (opens === 'menu' ? owner : `${owner}.${opens}`);

/** By which PINs are sealed now, and those by which they may have been before. */
export interface PinSecrets {
  readonly now: string;
  readonly before: string | null;
}

function digitsOf(pin: PinRow, { now, before }: PinSecrets): string {
  for (const secret of before === null ? [now] : [now, before]) {
    try {
      return openPin(pin.sealedDigits, bound(pin), secret);
    } catch {
      // Sealed by the other, or by neither.
    }
  }
  throw new HttpProblem('pinLocked');
}

/**
 * Seals every PIN anew that was sealed by the secret before.
 * @returns how many were, how many had been, and how many neither secret opens
 */
export async function sealPinsAnew(
  source: DataSource,
  secrets: PinSecrets,
): Promise<{ readonly sealed: number; readonly wereNew: number; readonly locked: number }> {
  return inTransaction(source, async (manager) => {
    const pins = await manager.find(Pins, { lock: { mode: 'pessimistic_write' } });
    const counts = { sealed: 0, wereNew: 0, locked: 0 };
    for (const pin of pins) {
      if (isOpenedBy(pin, secrets.now)) counts.wereNew++;
      else if (secrets.before === null || !isOpenedBy(pin, secrets.before)) counts.locked++;
      else {
        const sealedDigits = sealPin(digitsOf(pin, secrets), bound(pin), secrets.now);
        await manager.update(Pins, { id: pin.id }, { sealedDigits });
        counts.sealed++;
      }
    }
    return counts;
  });
}

function isOpenedBy(pin: PinRow, secret: string): boolean {
  try {
    openPin(pin.sealedDigits, bound(pin), secret);
    return true;
  } catch {
    return false;
  }
}

/** Whose PIN it is by the house rules: the order's, or this unit's own. */
async function ownerOf(
  manager: EntityManager,
  order: OrderRow,
  opens: PinRow['opens'],
  unitId: string | null,
): Promise<string> {
  const { document } = await getDocument(manager, 'houseRules', order.houseRulesId);
  const unit = unitId === null ? null : await manager.findOneBy(Units, { id: unitId, orderId: order.id });
  if (unitId !== null && !unit) throw new HttpProblem('notInOrder');
  const choice = opens === 'menu' ? 'pin' : 'startPin';
  const policy = (unit && wishesOf(unit)?.choices[choice]) ?? document.choices[choice];
  if (policy === 'asFound') throw new HttpProblem('noPin');
  if (policy === 'perOrder') return order.id;
  if (unit === null) throw new HttpProblem('noPin', { message: 'Each unit has a PIN of its own. Choose the unit.' });
  return unit.id;
}

async function makePin(manager: EntityManager, order: OrderRow, whose: Whose, secrets: PinSecrets): Promise<PinRow> {
  const { owner, opens } = whose;
  const units = await manager.find(Units, {
    where: owner === order.id ? { orderId: order.id } : { id: owner },
    select: { mapId: true },
  });
  const mapIds = [...new Set(units.map((unit) => unit.mapId))];
  const maps = await getDocuments(manager, 'displayMap', mapIds);
  const codes = maps.flatMap(({ document }) => document.codes.filter(({ function: fn }) => fn === FUNCTIONS[opens]));
  const length = Math.min(USUAL_DIGITS, ...codes.map(({ range }) => String(range.max).length));
  const delivered = [
    ...codes.map(({ factory }) => String(factory).padStart(length, '0')),
    ...maps.flatMap(({ document }) => (document.menu?.pin ? [document.menu.pin.factory] : [])),
  ];
  const others = (await manager.findBy(Pins, { orderId: order.id })).filter((pin) => pin.opens !== opens);
  const taken = others.map((pin) => digitsOf(pin, secrets));
  const row: PinRow = {
    id: randomUUID(),
    orderId: order.id,
    unitId: owner === order.id ? null : owner,
    owner,
    opens,
    sealedDigits: sealPin(randomPin(length, [...delivered, ...taken]), bound(whose), secrets.now),
    madeAt: new Date(),
  };
  await manager.insert(Pins, row);
  return row;
}

const FUNCTIONS = { menu: 'accessPin', start: 'startupPin' } as const;
