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
  const noted = await manager.query<{ part: string; number: string }[]>(
    "SELECT part, number FROM part_number WHERE unitId = ? AND part IN ('pack', 'firmware')",
    [unit.id],
  );
  const numberOf = (part: string) => noted.find((each) => each.part === part)?.number ?? null;
  const named: NoticedUnit = { ...unit, packNumber: numberOf('pack'), firmware: numberOf('firmware') };
  return all.filter(
    ({ id, version, document }) =>
      isNamed(document, named) && !notices.some((seen) => seen.id === id && seen.version === version),
  );
}
