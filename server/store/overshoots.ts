import { overshootForFamily, type DisplayMap, type Evidence, type VisitState } from '@decurio/core';
import type { SeenOvershoot } from '@decurio/contract';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import type { UnitRow, VisitRow } from './entities.js';
import { namedDocument } from './library.js';

/** Entries after which what a visit shows of its overshoot may be another. */
const TELLS: ReadonlySet<Evidence['kind']> = new Set(['calibrated', 'proved', 'undone']);

/** What a lead left out stays out for as long as it is the same figure. */
const KEEP_SQL = `INSERT INTO overshoot_seen (visitId, typeId, mapId, revision, kmh, at) VALUES (?, ?, ?, ?, ?, UTC_TIMESTAMP(3))
  ON DUPLICATE KEY UPDATE leftOutWords = IF(kmh = VALUES(kmh), leftOutWords, NULL), kmh = VALUES(kmh), at = VALUES(at)`;

/** Keeps how far beyond its cap drive was seen to act on a unit, for the next ones of its type and display. */
export async function keepOvershoot(
  manager: EntityManager,
  unit: Pick<UnitRow, 'typeId'>,
  { mapId, mapVersion }: Pick<VisitRow, 'mapId' | 'mapVersion'>,
  state: VisitState,
  entry: Evidence,
): Promise<void> {
  if (!TELLS.has(entry.kind)) return;
  const { document: map } = await namedDocument(manager, 'displayMap', mapId, mapVersion);
  const kmh = overshootForFamily(state, map);
  if (kmh === null) await manager.query('DELETE FROM overshoot_seen WHERE visitId = ?', [state.visitId]);
  else await manager.query(KEEP_SQL, [state.visitId, unit.typeId, map.id, map.revision, kmh]);
}

/** The farthest that was seen on units of this type and display and counts, km/h as shown; null where none does. */
export async function farthestOvershoot(
  manager: EntityManager,
  typeId: string,
  { id, revision }: Pick<DisplayMap, 'id' | 'revision'>,
): Promise<number | null> {
  const [row] = await manager.query<{ kmh: number | null }[]>(
    'SELECT MAX(kmh) AS kmh FROM overshoot_seen WHERE typeId = ? AND mapId = ? AND revision = ? AND leftOutWords IS NULL',
    [typeId, id, revision],
  );
  return row?.kmh ?? null;
}

/** A page of them; what lies beyond is nearer to the cap and decides nothing. */
const MOST_SHOWN = 5;
const FARTHEST_SQL = `SELECT * FROM (
    SELECT o.typeId, o.mapId, o.revision, o.visitId, u.serial, o.kmh, o.leftOutWords, o.leftOutBy, ROW_NUMBER() OVER (
      PARTITION BY o.typeId, o.mapId, o.revision, o.leftOutWords IS NULL ORDER BY o.kmh DESC, o.at DESC, o.visitId
    ) AS nth FROM overshoot_seen o JOIN visit v ON v.id = o.visitId JOIN unit u ON u.id = v.unitId
  ) f WHERE nth <= ${MOST_SHOWN} ORDER BY kmh DESC, visitId`;

/** The farthest of each type, display and revision, those that a lead left out apart. @returns keyed by `overshootKey` */
export async function farthestSeen(manager: EntityManager): Promise<ReadonlyMap<string, readonly SeenOvershoot[]>> {
  const rows = await manager.query<
    (Pick<SeenOvershoot, 'visitId' | 'serial' | 'kmh'> & {
      readonly typeId: string;
      readonly mapId: string;
      readonly revision: string;
      readonly leftOutWords: string | null;
      readonly leftOutBy: string | null;
    })[]
  >(FARTHEST_SQL);
  const seen = new Map<string, SeenOvershoot[]>();
  for (const { visitId, serial, kmh, leftOutWords, leftOutBy, ...key } of rows) {
    const leftOut = leftOutWords === null ? null : { words: leftOutWords, by: leftOutBy ?? '' };
    seen.set(overshootKey(key), [...(seen.get(overshootKey(key)) ?? []), { visitId, serial, kmh, leftOut }]);
  }
  return seen;
}

export const overshootKey = ({
  typeId,
  mapId,
  revision,
}: Pick<UnitRow, 'typeId'> & { readonly mapId: string; readonly revision: string }): string =>
  JSON.stringify([typeId, mapId, revision]);

/** A lead has what a unit showed count no more for the next ones, or count again where no reason is given. */
export async function leaveOvershootOut(
  manager: EntityManager,
  { visitId, words, by }: { readonly visitId: string; readonly words: string; readonly by: string },
): Promise<void> {
  const { affectedRows } = await manager.query<{ affectedRows: number }>(
    'UPDATE overshoot_seen SET leftOutWords = ?, leftOutBy = ?, leftOutAt = UTC_TIMESTAMP(3) WHERE visitId = ?',
    [words === '' ? null : words, words === '' ? null : by, visitId],
  );
  if (affectedRows === 0) throw new HttpProblem('noSuchRun');
}
