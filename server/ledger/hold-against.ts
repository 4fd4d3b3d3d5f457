import {
  compileSetup,
  isAnythingMoved,
  movedRules,
  reasonsOf,
  type MovedRules,
  type SetupInputs,
  type WorkedOut,
} from '@decurio/core';
import type { HeldLine, MovingKind, UnitMoved } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { today } from '../store/house.js';
import { getDocument } from '../store/library.js';
import { inputsFor, type Deciding } from '../store/setups.js';

/** Columns of what a sealed unit was worked out from, by the kind of document that may move. */
export const COLUMNS_OF: Readonly<Record<MovingKind, readonly [id: string, version: string]>> = {
  rulePack: ['packId', 'packVersion'],
  vehicleType: ['typeId', 'typeVersion'],
  houseRules: ['houseId', 'houseVersion'],
  displayMap: ['mapId', 'mapVersion'],
};

/** Units that are out, as they left last: from where, and which of them. */
export const OUT = {
  from: 'left_visit l JOIN unit u ON u.id = l.unitId',
  where:
    'l.isNewest = 1 AND l.packId IS NOT NULL AND u.handedOverAt IS NOT NULL AND u.visitId = l.visitId AND u.isSpare = 0',
} as const;

/** What a unit was worked out from: units of which all of it is the same are worked out once. */
interface WorkedFrom {
  readonly typeId: string;
  readonly typeVersion: number;
  readonly mapId: string;
  readonly mapVersion: number;
  readonly packId: string;
  readonly packVersion: number;
  readonly houseId: string;
  readonly houseVersion: number;
  readonly ownWishes: string | null;
  readonly classId: string;
  readonly className: string;
  readonly terms: string;
}

interface OutUnit extends WorkedFrom {
  readonly visitId: string;
  readonly serial: string;
  readonly customer: string;
  readonly orderNumber: string;
  readonly worstKmh: number | null;
  readonly decided: string | null;
  readonly words: string | null;
  readonly decidedBy: string | null;
}

interface Moving {
  readonly kind: MovingKind;
  readonly id: string;
  readonly version: number;
}

const PAGE = 1000;

/**
 * Holds every unit that is out, and was prepared under an earlier version of a document, against its newest: all else as
 * it was then. Units set up alike are worked out once. Ends with a line that says so; without it, it was stopped.
 * @param signal stops it between two pages
 */
export async function* holdAgainst(
  source: DataSource,
  { kind, id }: { readonly kind: MovingKind; readonly id: string },
  signal?: AbortSignal,
): AsyncGenerator<HeldLine> {
  const newest = await getDocument(source.manager, kind, id);
  const moving: Moving = { kind, id, version: newest.version };
  const [idColumn, versionColumn] = COLUMNS_OF[kind];
  const behind = `l.${idColumn} = ? AND l.${versionColumn} < ?`;
  const [all] = await source.query<{ n: string }[]>(
    `SELECT COUNT(*) AS n FROM ${OUT.from} WHERE ${OUT.where} AND ${behind}`,
    [id, newest.version],
  );
  const units = Number(all?.n ?? 0);
  yield { line: 'begun', version: newest.version, name: newest.name, units };
  const rulesFor = await rulesOnce(source, moving);
  let [sofar, moved, unreadable, after] = [0, 0, 0, ''];
  for (let page: readonly OutUnit[] = []; sofar === 0 || page.length === PAGE;) {
    if (signal?.aborted) return;
    page = await outPage(source, moving, behind, after);
    if (page.length === 0) break;
    const held: { unit: OutUnit; rules: MovedRules }[] = [];
    for (const unit of page) {
      const rules = await rulesFor(unit);
      if (rules === null) unreadable += 1;
      else if (isAnythingMoved(rules)) held.push({ unit, rules });
    }
    const left = await valuesOf(source, held);
    for (const { unit, rules } of held) {
      const reasons = reasonsOf(rules, { values: left.get(unit.visitId) ?? {}, worstKmh: unit.worstKmh });
      if (reasons.length === 0) continue;
      moved += 1;
      yield { line: 'unit', unit: { ...shown(unit), reasons } };
    }
    sofar += page.length;
    after = page.at(-1)?.visitId ?? after;
    yield { line: 'sofar', units: sofar };
  }
  yield { line: 'ended', units, moved, unreadable };
}

/** By the primary key, one page after another: the whole of it is walked through once. */
const outPage = (
  source: DataSource,
  { kind, id, version }: Moving,
  behind: string,
  after: string,
): Promise<OutUnit[]> =>
  source.query<OutUnit[]>(
    `SELECT l.visitId, l.serial, l.customer, l.orderNumber, l.worstKmh, l.typeId, l.typeVersion, l.mapId, l.mapVersion,
       l.packId, l.packVersion, l.houseId, l.houseVersion, u.ownWishes, o.classId, o.className, o.terms,
       d.decided, d.words, a.displayName AS decidedBy
     FROM left_visit l FORCE INDEX (PRIMARY) JOIN unit u ON u.id = l.unitId JOIN customer_order o ON o.id = l.orderId
       LEFT JOIN moved_decision d ON d.visitId = l.visitId AND d.kind = ? AND d.docId = ? AND d.version = ?
       LEFT JOIN account a ON a.id = d.decidedBy
     WHERE ${OUT.where} AND ${behind} AND l.visitId > ? ORDER BY l.visitId LIMIT ${PAGE}`,
    [kind, id, version, id, version, after],
  );

const shown = ({
  visitId,
  serial,
  customer,
  orderNumber,
  decided,
  words,
  decidedBy,
}: OutUnit): Omit<UnitMoved, 'reasons'> => ({
  visitId,
  serial,
  customer,
  orderNumber,
  decided:
    decided === null
      ? null
      : {
          what: decided === 'recalled' ? 'recalled' : 'stays',
          words: words ?? '',
          by: decidedBy ?? 'whoever has no account any more',
        },
});

/** What lies between the version that a unit was prepared under and the newest: once for all that are alike, null where a document is gone. */
async function rulesOnce(
  source: DataSource,
  moving: Moving,
): Promise<(unit: WorkedFrom) => Promise<MovedRules | null>> {
  const documents = documentsOnce(source);
  const day = await today(source.manager);
  const kept = new Map<string, Promise<MovedRules | null>>();
  return (unit) => {
    const key = JSON.stringify([
      unit.typeId,
      unit.typeVersion,
      unit.mapId,
      unit.mapVersion,
      unit.packId,
      unit.packVersion,
      unit.houseId,
      unit.houseVersion,
      unit.ownWishes,
      unit.classId,
      unit.terms,
    ]);
    const rules = kept.get(key) ?? between(documents, unit, moving, day).catch(() => null);
    kept.set(key, rules);
    return rules;
  };
}

type Documents = ReturnType<typeof documentsOnce>;

/** Each version of a document is read once. */
function documentsOnce({ manager }: DataSource) {
  const kept = new Map<string, Promise<unknown>>();
  return <K extends MovingKind>(kind: K, id: string, version: number) => {
    const key = `${kind} ${id} ${version}`;
    const known = kept.get(key) ?? getDocument(manager, kind, id, version);
    kept.set(key, known);
    return known as ReturnType<typeof getDocument<K>>;
  };
}

async function between(documents: Documents, unit: WorkedFrom, moving: Moving, day: string): Promise<MovedRules> {
  const versions = {
    vehicleType: unit.typeVersion,
    displayMap: unit.mapVersion,
    rulePack: unit.packVersion,
    houseRules: unit.houseVersion,
  };
  const was = await decidingBy(documents, unit, versions, day);
  const before = workedOut(was, unit);
  const is = await decidingBy(documents, unit, { ...versions, [moving.kind]: moving.version }, day);
  if (!is.rulePack.document.classes.some((each) => each.id === unit.classId)) {
    const stop = `Its class, ${unit.className}, is not in version ${is.rulePack.version} any more.`;
    return { ...movedRules(before, before), stops: [stop] };
  }
  return movedRules(before, workedOut(is, unit));
}

async function decidingBy(
  documents: Documents,
  { typeId, mapId, packId, houseId }: WorkedFrom,
  versions: Readonly<Record<MovingKind, number>>,
  day: string,
): Promise<Deciding> {
  return {
    type: await documents('vehicleType', typeId, versions.vehicleType),
    map: await documents('displayMap', mapId, versions.displayMap),
    rulePack: await documents('rulePack', packId, versions.rulePack),
    houseRules: await documents('houseRules', houseId, versions.houseRules),
    today: day,
  };
}

function workedOut(deciding: Deciding, unit: WorkedFrom): WorkedOut {
  const inputs: SetupInputs = inputsFor(deciding, unit, unit);
  return { setup: compileSetup(inputs), map: inputs.map };
}

/** What was read back of each unit, of the codes that matter alone. */
async function valuesOf(
  source: DataSource,
  held: readonly { readonly unit: OutUnit; readonly rules: MovedRules }[],
): Promise<ReadonlyMap<string, Readonly<Record<string, number>>>> {
  const asked = held.filter(({ rules: { targets, was, is } }) => targets.length > 0 || was.map !== is.map);
  const labels = new Set(
    asked.flatMap(({ rules: { targets, was, is } }) =>
      was.map === is.map ? targets.map(({ label }) => label) : is.map.codes.map(({ label }) => label),
    ),
  );
  const found = new Map<string, Record<string, number>>();
  if (labels.size === 0) return found;
  const marks = (n: number): string => Array.from({ length: n }, () => '?').join(', ');
  const rows = await source.query<{ visitId: string; label: string; raw: number }[]>(
    `SELECT visitId, label, raw FROM left_code WHERE visitId IN (${marks(asked.length)}) AND label IN (${marks(labels.size)})`,
    [...asked.map(({ unit }) => unit.visitId), ...labels],
  );
  for (const { visitId, label, raw } of rows) {
    const own = found.get(visitId) ?? {};
    own[label] = raw;
    found.set(visitId, own);
  }
  return found;
}
