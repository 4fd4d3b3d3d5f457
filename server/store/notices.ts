import { isNamed, type NoticedUnit, type VisitState } from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import type { EntityManager } from 'typeorm';
import type { UnitRow } from './entities.js';
import { newestDocuments } from './library.js';

/** Notices that name a unit and of which its visit does not know yet, at this version. */
export async function unseenNotices(
  manager: EntityManager,
  unit: Pick<UnitRow, 'id' | 'serial' | 'typeId' | 'mapId'>,
  { notices }: Pick<VisitState, 'notices'>,
): Promise<readonly LibraryEntry<'notice'>[]> {
  const all = await newestDocuments(manager, 'notice');
  if (all.length === 0) return [];
  const [pack] = await manager.query<{ number: string }[]>(
    "SELECT number FROM part_number WHERE unitId = ? AND part = 'pack'",
    [unit.id],
  );
  const named: NoticedUnit = { ...unit, packNumber: pack?.number ?? null };
  return all.filter(
    ({ id, version, document }) =>
      isNamed(document, named) && !notices.some((seen) => seen.id === id && seen.version === version),
  );
}
