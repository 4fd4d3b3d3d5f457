import type { DisplayMap, Evidence } from '@decurio/core';
import type { DisplayFoundRequest } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { EvidenceLog, Orders, Units, type UnitRow } from './entities.js';
import { getDocument, getDocuments, libraryHeads } from './library.js';
import { inTransaction } from './transaction.js';
import { openingOf } from './setups.js';
import { appendIn } from './append-entries.js';
import { lockVisit } from './locked-rows.js';
import type { Writer } from './writer.js';

/**
 * Says which display a unit turned out to carry: the setup is worked out anew for it, in an entry of its own, and the
 * unit carries that map from now on. The display must be one that its type carries, or of the same family.
 */
export async function findDisplay(
  source: DataSource,
  unitId: string,
  visitId: string,
  request: DisplayFoundRequest,
  writer: Writer,
): Promise<Evidence> {
  return inTransaction(source, async (manager) => {
    const twin = await manager.findOneBy(EvidenceLog, { id: request.id });
    if (twin?.visitId === visitId && twin.kind === 'displayFound') return JSON.parse(twin.body) as Evidence;
    await lockVisit(manager, unitId, visitId);
    const unit = await manager.findOneBy(Units, { id: unitId });
    if (!unit) throw new HttpProblem('notFound', { message: 'There is no such unit.' });
    const order = await manager.findOneByOrFail(Orders, { id: unit.orderId });
    const fitted = await lookAlikes(manager, unit);
    if (!fitted.some((map) => map.id === request.mapId)) throw new HttpProblem('notFitted');
    const { data: opening } = await openingOf(manager, { ...unit, mapId: request.mapId }, order);
    const data = {
      told: request.told,
      map: opening.versions.map,
      factory: opening.factory,
      setup: opening.setup,
      ...(opening.bench ? { bench: opening.bench } : {}),
    };
    const { entry } = await appendIn(
      manager,
      unitId,
      visitId,
      { id: request.id, seq: request.seq, kind: 'displayFound', at: request.at, data },
      writer,
    );
    await manager.update(Units, { id: unitId }, { mapId: request.mapId, displayFoundAt: new Date() });
    return entry;
  });
}

/** Maps of displays that a unit may carry: those of its type, and those that look like one of them. */
export async function lookAlikes(
  manager: EntityManager,
  unit: Pick<UnitRow, 'typeId' | 'mapId'>,
): Promise<readonly DisplayMap[]> {
  const type = (await getDocument(manager, 'vehicleType', unit.typeId)).document;
  const heads = await libraryHeads(manager, 'displayMap');
  const named = new Set([...type.maps, unit.mapId]);
  const families = new Set(heads.flatMap(({ id, family }) => (named.has(id) && family !== null ? [family] : [])));
  const fitted = heads.filter(({ id, family }) => named.has(id) || (family !== null && families.has(family)));
  const entries = await getDocuments(
    manager,
    'displayMap',
    fitted.map(({ id }) => id),
  );
  return entries.map(({ document }) => document);
}
