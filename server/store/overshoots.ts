import { overshootForFamily, type DisplayMap, type Evidence, type VisitState } from '@decurio/core';
import type { EntityManager } from 'typeorm';
import type { UnitRow, VisitRow } from './entities.js';
import { getDocument } from './library.js';

/** Entries after which what a visit shows of its overshoot may be another. */
const TELLS: ReadonlySet<Evidence['kind']> = new Set(['calibrated', 'proved', 'undone']);

/** Keeps how far beyond its cap drive was seen to act on a unit, for the next ones of its type and display. */
export async function keepOvershoot(
  manager: EntityManager,
  unit: Pick<UnitRow, 'typeId'>,
  { mapId, mapVersion }: Pick<VisitRow, 'mapId' | 'mapVersion'>,
  state: VisitState,
  entry: Evidence,
): Promise<void> {
  if (!TELLS.has(entry.kind)) return;
  const { document: map } = await getDocument(manager, 'displayMap', mapId, mapVersion);
  const kmh = overshootForFamily(state, map);
  if (kmh === null) await manager.query('DELETE FROM overshoot_seen WHERE visitId = ?', [state.visitId]);
  else
    await manager.query(
      'REPLACE INTO overshoot_seen (visitId, typeId, mapId, revision, kmh, at) VALUES (?, ?, ?, ?, ?, UTC_TIMESTAMP(3))',
      [state.visitId, unit.typeId, map.id, map.revision, kmh],
    );
}

/** The farthest that was seen on units of this type and display, km/h as shown; null where none was watched. */
export async function farthestOvershoot(
  manager: EntityManager,
  typeId: string,
  { id, revision }: Pick<DisplayMap, 'id' | 'revision'>,
): Promise<number | null> {
  const [row] = await manager.query<{ kmh: number | null }[]>(
    'SELECT MAX(kmh) AS kmh FROM overshoot_seen WHERE typeId = ? AND mapId = ? AND revision = ?',
    [typeId, id, revision],
  );
  return row?.kmh ?? null;
}
