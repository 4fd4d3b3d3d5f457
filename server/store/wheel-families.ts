import {
  calibrateTermsFor,
  circumferenceMm,
  compileSetup,
  comparable,
  familyAdvice,
  familyRatioKnown,
  oddInFamily,
  usedReadings,
  type CalibrateTerms,
  type DisplayMap,
  type Evidence,
  type EvidenceData,
  type Family,
  type SetupInputs,
  type SpeedTerms,
  type UnitRun,
  type VehicleType,
  type VisitState,
} from '@decurio/core';
import type { LearntFamily } from '@decurio/contract';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Visits, type UnitRow } from './entities.js';
import { getDocument, getDocuments } from './library.js';
import { namesBehind } from './personal.js';
import { farthestOvershoot, farthestSeen, overshootKey } from './overshoots.js';

interface RunRow {
  readonly visitId: string;
  readonly serial: string;
  readonly how: 'runs' | 'learnt';
  readonly k: number;
  readonly u: number;
  readonly uCommon: number;
  readonly wheelRaw: number | null;
  readonly pulsesRaw: number | null;
  readonly leftOutWords: string | null;
  readonly leftOutBy: string | null;
  readonly at: Date;
}

const RUN_COLUMNS = 'visitId, serial, how, k, u, uCommon, wheelRaw, pulsesRaw, leftOutWords, leftOutBy, at';
const KEEP_SQL = `INSERT INTO wheel_run (visitId, serial, typeId, mapId, revision, tyre, how, k, u, uCommon, wheelRaw, pulsesRaw, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, UTC_TIMESTAMP(3))
  ON DUPLICATE KEY UPDATE how = VALUES(how), k = VALUES(k), u = VALUES(u), uCommon = VALUES(uCommon), wheelRaw = VALUES(wheelRaw), pulsesRaw = VALUES(pulsesRaw), at = VALUES(at)`;

/** Keeps what a unit was calibrated to beside its family. A unit whose tyre or motor was changed is of no family but its own. */
export async function keepRun(
  manager: EntityManager,
  unit: UnitRow,
  state: VisitState,
  entry: Evidence,
): Promise<void> {
  const { speed } = state.opened.setup;
  if (entry.kind === 'undone' && state.calibration.result === null)
    await manager.query('DELETE FROM wheel_run WHERE visitId = ?', [state.visitId]);
  if (entry.kind !== 'calibrated' || speed === undefined || state.wheelFamily > 1) return;
  const { how, ratio, atWheelRaw, atPulsesRaw } = entry.data;
  const uCommon = Math.max(0, ...usedReadings(state.calibration).map((reading) => reading.uCommon));
  const { map } = state.opened.versions;
  await manager.query(KEEP_SQL, [
    state.visitId,
    unit.serial,
    unit.typeId,
    map.id,
    map.revision,
    speed.tyre,
    how,
    ratio.k,
    ratio.u,
    uCommon,
    atWheelRaw,
    atPulsesRaw,
  ]);
}

const BATCH_SQL = 'SELECT MAX(startsAt) AS startsAt FROM tyre_batch WHERE typeId = ? AND tyre = ?';
/** Nothing older than so many runs tells of the next unit. */
const MOST_RUNS = 500;
const RUNS_SQL = `SELECT ${RUN_COLUMNS} FROM wheel_run
  WHERE typeId = ? AND mapId = ? AND revision = ? AND tyre = ? AND at >= ? ORDER BY at DESC, visitId LIMIT ${MOST_RUNS}`;

interface FamilyKey {
  readonly typeId: string;
  readonly map: Pick<DisplayMap, 'id' | 'revision'>;
  readonly tyre: string;
}

/**
 * What was run of a family since its newest tyre batch began, oldest first.
 * @param lock  waits for runs that others are just keeping, and has them wait
 */
async function runsOf(
  manager: EntityManager,
  { typeId, map, tyre }: FamilyKey,
  lock?: 'locked',
): Promise<Pick<Family, 'runs' | 'learntSince'>> {
  const [batch] = await manager.query<{ startsAt: Date | null }[]>(BATCH_SQL, [typeId, tyre]);
  const rows = await manager.query<RunRow[]>(`${RUNS_SQL}${lock === 'locked' ? ' LOCK IN SHARE MODE' : ''}`, [
    typeId,
    map.id,
    map.revision,
    tyre,
    batch?.startsAt ?? new Date(0),
  ]);
  return familyOf(rows);
}

/** @param rows newest first */
function familyOf(rows: readonly RunRow[]): Pick<Family, 'runs' | 'learntSince'> {
  const learntSince = rows.findIndex(({ how }) => how === 'runs');
  return {
    runs: rows
      .filter(({ how }) => how === 'runs')
      .map(runIn)
      .toReversed(),
    learntSince: learntSince < 0 ? rows.length : learntSince,
  };
}

const runIn = ({
  visitId,
  serial,
  k,
  u,
  uCommon,
  wheelRaw,
  pulsesRaw,
  leftOutWords,
  leftOutBy,
  at,
}: RunRow): UnitRun => ({
  visitId,
  serial,
  k,
  u: Math.sqrt(Math.max(0, u ** 2 - (k * uCommon) ** 2)),
  uCommon,
  wheelRaw,
  pulsesRaw,
  leftOut: leftOutWords === null ? null : { words: leftOutWords, by: leftOutBy ?? '' },
  at: at.toISOString(),
});

/** What is odd of a unit that has just been run, by those of its family before it; null where nothing is. */
export async function oddOf(
  manager: EntityManager,
  { visitId }: Pick<Evidence, 'visitId'>,
): Promise<EvidenceData['outOfFamily'] | null> {
  const [own] = await manager.query<{ typeId: string; mapId: string; revision: string; tyre: string }[]>(
    "SELECT typeId, mapId, revision, tyre FROM wheel_run WHERE visitId = ? AND how = 'runs'",
    [visitId],
  );
  if (!own) return null;
  const visit = await manager.findOneByOrFail(Visits, { id: visitId });
  const { document: map } = await getDocument(manager, 'displayMap', visit.mapId, visit.mapVersion);
  const { document: type } = await getDocument(manager, 'vehicleType', own.typeId);
  const { runs } = await runsOf(manager, { typeId: own.typeId, map, tyre: own.tyre }, 'locked');
  return oddInFamily({ map, terms: anyTerms(type, own.tyre), runs }, visitId);
}

/** Whether a unit with this promise is run, and the promise with what its family was learnt to be. */
export async function withFamily(
  manager: EntityManager,
  inputs: SetupInputs,
): Promise<{ readonly inputs: SetupInputs; readonly calibrate: CalibrateTerms }> {
  const { speed: terms } = compileSetup(inputs);
  const { map, type, houseRules, unit } = inputs;
  if (terms === undefined) return { inputs, calibrate: { runs: 'full', why: '', family: null } };
  const runs = await runsOf(manager, { typeId: type.id, map, tyre: terms.tyre });
  const overshootKmh = await farthestOvershoot(manager, type.id, map);
  const calibrate = calibrateTermsFor({ map, terms, ...runs, rule: houseRules.choices.runs, overshootKmh });
  return {
    calibrate,
    inputs: {
      ...inputs,
      unit: {
        ...unit,
        familyOvershootKmh: overshootKmh,
        ...(calibrate.family && unit.ratio === null ? { ratio: familyRatioKnown(calibrate.family) } : {}),
      },
    },
  };
}

const MOST_FAMILIES = 200;
const FAMILIES_SQL = `SELECT typeId, mapId, revision, tyre, MAX(at) AS newestAt FROM wheel_run GROUP BY typeId, mapId, revision, tyre ORDER BY newestAt DESC LIMIT ${MOST_FAMILIES}`;
const ALL_RUNS_SQL = `SELECT f.*, b.words AS batchWords, b.byName AS batchBy, b.startsAt FROM (
    SELECT typeId, mapId, revision, tyre, ${RUN_COLUMNS}, ROW_NUMBER() OVER (PARTITION BY typeId, mapId, revision, tyre ORDER BY at DESC, visitId) AS nth FROM wheel_run
  ) f LEFT JOIN tyre_batch b ON b.id = (SELECT MAX(id) FROM tyre_batch t WHERE t.typeId = f.typeId AND t.tyre = f.tyre)
  WHERE f.nth <= ${MOST_RUNS} ORDER BY f.typeId, f.mapId, f.revision, f.tyre, f.nth`;

interface FamilyRow extends RunRow {
  readonly typeId: string;
  readonly mapId: string;
  readonly revision: string;
  readonly tyre: string;
  readonly batchWords: string | null;
  readonly batchBy: string | null;
  readonly startsAt: Date | null;
}

const keyOf = ({ typeId, mapId, revision, tyre }: Pick<FamilyRow, 'typeId' | 'mapId' | 'revision' | 'tyre'>): string =>
  JSON.stringify([typeId, mapId, revision, tyre]);

/** Every family of which a unit was run, newest first, with what it tells of its next one under no limit in particular. */
export async function learntFamilies(manager: EntityManager): Promise<readonly LearntFamily[]> {
  const keys = await manager.query<Pick<FamilyRow, 'typeId' | 'mapId' | 'revision' | 'tyre'>[]>(FAMILIES_SQL);
  if (keys.length === 0) return [];
  const rows = new Map<string, FamilyRow[]>();
  const runs = await manager.query<FamilyRow[]>(ALL_RUNS_SQL);
  const nameOf = await namesBehind(
    manager,
    runs.map(({ batchBy }) => batchBy),
  );
  for (const run of runs) {
    const row = { ...run, batchBy: run.batchBy === null ? null : nameOf(run.batchBy) };
    (rows.get(keyOf(row)) ?? rows.set(keyOf(row), []).get(keyOf(row)))?.push(row);
  }
  const typeIds = keys.map(({ typeId }) => typeId);
  const mapIds = keys.map(({ mapId }) => mapId);
  const types = new Map((await getDocuments(manager, 'vehicleType', typeIds)).map((one) => [one.id, one.document]));
  const maps = new Map((await getDocuments(manager, 'displayMap', mapIds)).map((one) => [one.id, one.document]));
  const overshoots = await farthestSeen(manager);
  return keys.flatMap((key) => {
    const [type, map] = [types.get(key.typeId), maps.get(key.mapId)];
    if (!type || !map) return [];
    const family = learntFamily(key, type, { ...map, revision: key.revision }, rows.get(keyOf(key)) ?? []);
    const said = map.speed?.overshootKmh ?? 0;
    const seen = overshoots.get(overshootKey(key)) ?? [];
    return [{ ...family, overshoots: seen.filter(({ kmh, leftOut }) => leftOut !== null || kmh > said) }];
  });
}

function learntFamily(
  { typeId, mapId, revision, tyre }: Pick<FamilyRow, 'typeId' | 'mapId' | 'revision' | 'tyre'>,
  type: VehicleType,
  map: DisplayMap,
  rows: readonly FamilyRow[],
): Omit<LearntFamily, 'overshoots'> {
  const [first] = rows;
  const since = first?.startsAt
    ? { words: first.batchWords ?? '', by: first.batchBy ?? '', at: first.startsAt.toISOString() }
    : null;
  const family: Family = {
    map,
    terms: anyTerms(type, tyre),
    ...familyOf(rows.filter(({ at, startsAt }) => startsAt === null || at >= startsAt)),
    rule: 'sample',
  };
  const wheelRaw = family.runs.at(-1)?.wheelRaw ?? null;
  const wheel = map.codes.find((code) => code.function === 'wheelSize');
  return {
    typeId,
    typeTitle: type.title,
    mapId,
    mapName: map.name,
    revision,
    tyre,
    since,
    runs: comparable(family),
    advice: familyAdvice(family),
    wheelRaw,
    wheelMm: (wheel && wheelRaw !== null ? circumferenceMm(wheel, wheelRaw) : undefined) ?? null,
  };
}

/** Terms of a promise that limits nothing: what a family is, whatever is promised of its next unit. */
const anyTerms = (type: VehicleType, tyre: string): SpeedTerms => ({
  limit: null,
  tolerance: 0,
  shown: 'neverUnder',
  isFixed: false,
  mayTrim: false,
  attainableKmh: type.attainableKmh,
  pulses: type.wheelPulses,
  tyre,
  kmhPerRaw: {},
});

/** A lead leaves a run out of what its family is learnt from, or takes it in again where no reason is given. */
export async function leaveRunOut(
  manager: EntityManager,
  { visitId, words, by }: { readonly visitId: string; readonly words: string; readonly by: string },
): Promise<void> {
  const { affectedRows } = await manager.query<{ affectedRows: number }>(
    "UPDATE wheel_run SET leftOutWords = ?, leftOutBy = ?, leftOutAt = UTC_TIMESTAMP(3) WHERE visitId = ? AND how = 'runs'",
    [words === '' ? null : words, words === '' ? null : by, visitId],
  );
  if (affectedRows === 0) throw new HttpProblem('noSuchRun');
}

/** From now on units of this type with this tyre are learnt anew. */
export const beginBatch = (
  manager: EntityManager,
  {
    typeId,
    tyre,
    words,
    by,
  }: { readonly typeId: string; readonly tyre: string; readonly words: string; readonly by: string },
): Promise<unknown> =>
  manager.query(
    'INSERT INTO tyre_batch (typeId, tyre, words, byName, startsAt) VALUES (?, ?, ?, ?, UTC_TIMESTAMP(3))',
    [typeId, tyre, words, by],
  );
