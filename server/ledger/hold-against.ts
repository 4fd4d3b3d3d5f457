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
import { Orders, type OrderRow } from '../store/entities.js';
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

/** Units that are out: as they left last, and handed over. */
export const OUT_SQL =
  'left_visit l JOIN unit u ON u.id = l.unitId WHERE l.isNewest = 1 AND l.packId IS NOT NULL AND u.handedOverAt IS NOT NULL AND u.visitId = l.visitId AND u.isSpare = 0';

/** Units that were worked out from the same. */
interface Alike {
  readonly orderId: string;
  readonly typeId: string;
  readonly typeVersion: number;
  readonly mapId: string;
  readonly mapVersion: number;
  readonly packId: string;
  readonly packVersion: number;
  readonly houseId: string;
  readonly houseVersion: number;
  readonly ownWishes: string | null;
  readonly n: string;
}
const ALIKE = [
  'l.orderId',
  'l.typeId',
  'l.typeVersion',
  'l.mapId',
  'l.mapVersion',
  'l.packId',
  'l.packVersion',
  'l.houseId',
  'l.houseVersion',
  'u.ownWishes',
] as const;

interface OutUnit {
  readonly visitId: string;
  readonly serial: string;
  readonly customer: string;
  readonly orderNumber: string;
  readonly worstKmh: number | null;
  readonly decided: string | null;
  readonly words: string | null;
  readonly decidedBy: string | null;
}

const PAGE = 1000;

/**
 * Holds every unit that is out, and was prepared under an earlier version of a document, against its newest: all else as
 * it was then. Units set up alike are worked out once. Ends with a line that says so; without it, it was stopped.
 * @param signal stops it between two groups
 */
export async function* holdAgainst(
  source: DataSource,
  { kind, id }: { readonly kind: MovingKind; readonly id: string },
  signal?: AbortSignal,
): AsyncGenerator<HeldLine> {
  const newest = await getDocument(source.manager, kind, id);
  const [idColumn, versionColumn] = COLUMNS_OF[kind];
  const groups = await source.query<Alike[]>(
    `SELECT ${ALIKE.join(', ')}, COUNT(*) AS n FROM ${OUT_SQL} AND l.${idColumn} = ? AND l.${versionColumn} < ?
     GROUP BY ${ALIKE.join(', ')} ORDER BY l.orderId`,
    [id, newest.version],
  );
  const units = groups.reduce((sum, { n }) => sum + Number(n), 0);
  yield { line: 'begun', version: newest.version, name: newest.name, units };
  const documents = documentsOnce(source);
  const day = await today(source.manager);
  let [sofar, moved, unreadable] = [0, 0, 0];
  for (const group of groups) {
    if (signal?.aborted) return;
    const rules = await between(source, documents, group, { kind, version: newest.version }, day).catch(() => null);
    if (rules === null) unreadable += Number(group.n);
    else if (isAnythingMoved(rules))
      for await (const unit of unitsMoved(source, group, rules, { kind, id, version: newest.version })) {
        moved += 1;
        yield { line: 'unit', unit };
      }
    sofar += Number(group.n);
    yield { line: 'sofar', units: sofar };
  }
  yield { line: 'ended', units, moved, unreadable };
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

/** What lies between the version that a group was prepared under and the newest. */
async function between(
  source: DataSource,
  documents: Documents,
  group: Alike,
  moving: { readonly kind: MovingKind; readonly version: number },
  day: string,
): Promise<MovedRules> {
  const order = await source.manager.findOneByOrFail(Orders, { id: group.orderId });
  const versions = {
    vehicleType: group.typeVersion,
    displayMap: group.mapVersion,
    rulePack: group.packVersion,
    houseRules: group.houseVersion,
  };
  const was = await decidingBy(documents, group, versions, day);
  const before = workedOut(was, order, group);
  const is = await decidingBy(documents, group, { ...versions, [moving.kind]: moving.version }, day);
  if (!is.rulePack.document.classes.some((each) => each.id === order.classId)) {
    const stop = `Its class, ${order.className}, is not in version ${is.rulePack.version} any more.`;
    return { ...movedRules(before, before), stops: [stop] };
  }
  return movedRules(before, workedOut(is, order, group));
}

async function decidingBy(
  documents: Documents,
  { typeId, mapId, packId, houseId }: Alike,
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

function workedOut(deciding: Deciding, order: OrderRow, { ownWishes }: Alike): WorkedOut {
  const inputs: SetupInputs = inputsFor(deciding, order, { ownWishes });
  return { setup: compileSetup(inputs), map: inputs.map };
}

async function* unitsMoved(
  source: DataSource,
  group: Alike,
  rules: MovedRules,
  { kind, id, version }: { readonly kind: MovingKind; readonly id: string; readonly version: number },
): AsyncGenerator<UnitMoved> {
  const same = ALIKE.map((column) => `${column} <=> ?`).join(' AND ');
  const values = ALIKE.map((column) => group[column.slice(2) as keyof Alike]);
  let after = '';
  for (;;) {
    const page = await source.query<OutUnit[]>(
      `SELECT l.visitId, l.serial, l.customer, l.orderNumber, l.worstKmh, d.decided, d.words, a.displayName AS decidedBy
       FROM ${OUT_SQL.replace(
         ' WHERE ',
         ' LEFT JOIN moved_decision d ON d.visitId = l.visitId AND d.kind = ? AND d.docId = ? AND d.version = ? LEFT JOIN account a ON a.id = d.decidedBy WHERE ',
       )} AND ${same} AND l.visitId > ? ORDER BY l.visitId LIMIT ${PAGE}`,
      [kind, id, version, ...values, after],
    );
    const left = await valuesOf(source, page, rules);
    for (const { visitId, serial, customer, orderNumber, worstKmh, decided, words, decidedBy } of page) {
      const reasons = reasonsOf(rules, { values: left.get(visitId) ?? {}, worstKmh });
      if (reasons.length > 0)
        yield {
          visitId,
          serial,
          customer,
          orderNumber,
          reasons,
          decided:
            decided === null
              ? null
              : {
                  what: decided === 'recalled' ? 'recalled' : 'stays',
                  words: words ?? '',
                  by: decidedBy ?? 'whoever has no account any more',
                },
        };
    }
    if (page.length < PAGE) return;
    after = page.at(-1)?.visitId ?? after;
  }
}

/** What was read back of each unit, of the codes that matter alone. */
async function valuesOf(
  source: DataSource,
  units: readonly OutUnit[],
  { targets, was, is }: MovedRules,
): Promise<ReadonlyMap<string, Readonly<Record<string, number>>>> {
  const isMapMoved = was.map !== is.map;
  const found = new Map<string, Record<string, number>>();
  if (units.length === 0 || (targets.length === 0 && !isMapMoved)) return found;
  const labels = isMapMoved ? is.map.codes.map(({ label }) => label) : targets.map(({ label }) => label);
  const marks = (n: readonly unknown[]): string => n.map(() => '?').join(', ');
  const rows = await source.query<{ visitId: string; label: string; raw: number }[]>(
    `SELECT visitId, label, raw FROM left_code WHERE visitId IN (${marks(units)}) AND label IN (${marks(labels)})`,
    [...units.map(({ visitId }) => visitId), ...labels],
  );
  for (const { visitId, label, raw } of rows) {
    const own = found.get(visitId) ?? {};
    own[label] = raw;
    found.set(visitId, own);
  }
  return found;
}
