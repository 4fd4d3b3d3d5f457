import { compileSetup, type Finding } from '@decurio/core';
import type { ExpectedUnits } from '@decurio/contract';
import type { EntityManager } from 'typeorm';
import { Units, type OrderRow, type UnitRow } from './entities.js';
import { decidingFor, inputsFor } from './setups.js';
import { foldAccepted } from './visit-columns.js';
import { readEvidence } from './evidence-rows.js';

/**
 * Whether the setup of some unit of this type asks a lead about this finding: as the order has it, as a unit has it
 * otherwise, or by what was found on one that is under way.
 */
export async function isAsked(
  manager: EntityManager,
  order: OrderRow,
  typeId: string,
  finding: string,
): Promise<boolean> {
  const units = await manager.findBy(Units, { orderId: order.id, typeId });
  const standing = units.filter(({ status }) => status !== 'withdrawn');
  const expected = (JSON.parse(order.expected) as ExpectedUnits[])
    .filter((group) => group.typeId === typeId)
    .map(({ mapId }) => ({ typeId, mapId, ownWishes: null }));
  const kinds = new Map<string, Pick<UnitRow, 'typeId' | 'mapId' | 'ownWishes'>>(
    [...expected, ...standing].map((kind) => [`${kind.mapId} ${kind.ownWishes ?? ''}`, kind]),
  );
  for (const kind of kinds.values()) {
    const deciding = await decidingFor(manager, kind, order);
    if (asks(compileSetup(inputsFor(deciding, order, kind)).findings, finding)) return true;
  }
  for (const { visitId, status } of standing) {
    if (visitId === null || status === 'sealed') continue;
    if (asks(foldAccepted(await readEvidence(manager, visitId)).opened.setup.findings, finding)) return true;
  }
  return false;
}

const asks = (findings: readonly Finding[], id: string): boolean =>
  findings.some((each) => each.level === 'decide' && each.id === id);
