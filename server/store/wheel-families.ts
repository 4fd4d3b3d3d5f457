import {
  calibrateTermsFor,
  circumferenceMm,
  compileSetup,
  comparable,
  familyAdvice,
  familyRatioKnown,
  usedReadings,
  type CalibrateTerms,
  type DisplayMap,
  type Evidence,
  type Family,
  type SetupInputs,
  type UnitRun,
  type VehicleType,
  type VisitState,
} from '@decurio/core';
import type { LearntFamily } from '@decurio/contract';
import type { EntityManager } from 'typeorm';
import type { UnitRow } from './entities.js';
import { newestDocuments } from './library.js';

interface RunRow {
  readonly serial: string;
  readonly how: 'runs' | 'learnt';
  readonly k: number;
  readonly uCommon: number;
  readonly wheelRaw: number | null;
  readonly pulsesRaw: number | null;
  readonly at: Date;
}

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
const RUNS_SQL = `SELECT serial, how, k, uCommon, wheelRaw, pulsesRaw, at FROM wheel_run
  WHERE typeId = ? AND mapId = ? AND revision = ? AND tyre = ? AND at >= ? ORDER BY at DESC, visitId LIMIT 500`;

interface FamilyKey {
  readonly typeId: string;
  readonly map: Pick<DisplayMap, 'id' | 'revision'>;
  readonly tyre: string;
}

/** What was run of a family since its newest tyre batch began, oldest first. */
async function runsOf(
  manager: EntityManager,
  { typeId, map, tyre }: FamilyKey,
): Promise<Pick<Family, 'runs' | 'learntSince'>> {
  const [batch] = await manager.query<{ startsAt: Date | null }[]>(BATCH_SQL, [typeId, tyre]);
  const rows = await manager.query<RunRow[]>(RUNS_SQL, [
    typeId,
    map.id,
    map.revision,
    tyre,
    batch?.startsAt ?? new Date(0),
  ]);
  const learntSince = rows.findIndex(({ how }) => how === 'runs');
  const runs = rows
    .filter(({ how }) => how === 'runs')
    .map(({ serial, k, uCommon, wheelRaw, pulsesRaw, at }): UnitRun => ({
      serial,
      k,
      uCommon,
      wheelRaw,
      pulsesRaw,
      at: at.toISOString(),
    }));
  return { runs: runs.reverse(), learntSince: learntSince < 0 ? rows.length : learntSince };
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
  const calibrate = calibrateTermsFor({ map, terms, ...runs, rule: houseRules.choices.runs });
  return {
    calibrate,
    inputs:
      calibrate.family && unit.ratio === null
        ? { ...inputs, unit: { ...unit, ratio: familyRatioKnown(calibrate.family) } }
        : inputs,
  };
}

const FAMILIES_SQL = `SELECT typeId, mapId, revision, tyre, COUNT(*) AS units, MAX(at) AS newestAt FROM wheel_run GROUP BY typeId, mapId, revision, tyre ORDER BY newestAt DESC LIMIT 200`;
const BATCHES_SQL =
  'SELECT words, byName, startsAt FROM tyre_batch WHERE typeId = ? AND tyre = ? ORDER BY startsAt DESC LIMIT 1';

/** Every family of which a unit was run, newest first, with what it tells of its next one under no limit in particular. */
export async function learntFamilies(manager: EntityManager): Promise<readonly LearntFamily[]> {
  const keys = await manager.query<{ typeId: string; mapId: string; revision: string; tyre: string }[]>(FAMILIES_SQL);
  const types = await newestDocuments(manager, 'vehicleType');
  const maps = await newestDocuments(manager, 'displayMap');
  const families: LearntFamily[] = [];
  for (const { typeId, mapId, revision, tyre } of keys) {
    const type = types.find(({ id }) => id === typeId)?.document;
    const map = maps.find(({ id }) => id === mapId)?.document;
    if (!type || !map) continue;
    const [batch] = await manager.query<{ words: string; byName: string; startsAt: Date }[]>(BATCHES_SQL, [
      typeId,
      tyre,
    ]);
    const since = batch ? { words: batch.words, by: batch.byName, at: batch.startsAt.toISOString() } : null;
    families.push({
      typeId,
      typeTitle: type.title,
      mapId,
      mapName: map.name,
      revision,
      tyre,
      since,
      ...(await told(manager, type, { ...map, revision }, tyre)),
    });
  }
  return families;
}

async function told(
  manager: EntityManager,
  type: VehicleType,
  map: DisplayMap,
  tyre: string,
): Promise<Pick<LearntFamily, 'runs' | 'advice' | 'wheelRaw' | 'wheelMm'>> {
  const { runs, learntSince } = await runsOf(manager, { typeId: type.id, map, tyre });
  const terms = {
    limit: null,
    tolerance: 0,
    shown: 'neverUnder',
    isFixed: false,
    mayTrim: false,
    attainableKmh: type.attainableKmh,
    pulses: type.wheelPulses,
    tyre,
    kmhPerRaw: {},
  } as const;
  const family: Family = { map, terms, runs, learntSince, rule: 'sample' };
  const wheelRaw = runs.at(-1)?.wheelRaw ?? null;
  const wheel = map.codes.find((code) => code.function === 'wheelSize');
  return {
    runs: comparable(family),
    advice: familyAdvice(family),
    wheelRaw,
    wheelMm: (wheel && wheelRaw !== null ? circumferenceMm(wheel, wheelRaw) : undefined) ?? null,
  };
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
