import { isCodeFunction, mapTitle, type LedgerQuestion } from '@decurio/core';
import type { LedgerAnswer, LedgerChoices } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { getDocument } from './library.js';
import { readCursor, writeCursor } from './page-cursor.js';

const PAGE = 50;
/** Up to so many visits that hold a code's condition it is asked from them; more are met soon enough on the way. */
const FEW = 1_000;

interface Sql {
  readonly where: readonly string[];
  readonly values: readonly (string | number | Date)[];
}

interface FoundRow {
  readonly visitId: string;
  readonly serial: string;
  readonly typeName: string;
  readonly orderNumber: string;
  readonly customer: string;
  readonly sealedAt: Date;
  readonly sealedBy: string | null;
  readonly headHash: string;
  readonly isOut: number;
}

/**
 * Sealed units that a question asks for, newest first, a page at a time by the last one's time and id. All of it stands
 * in rows written with the seal; no record is opened.
 */
export async function askLedger(
  source: DataSource,
  question: LedgerQuestion,
  after: string | undefined,
  most = PAGE,
): Promise<LedgerAnswer> {
  const cursor = after === undefined ? null : readCursor(after);
  const all: Sql[] = [
    ...conditions(question),
    ...(await narrowed(source, codeIds(question))),
    ...(await narrowed(source, serialIds(question))),
    ...(await narrowed(source, wordsIds(question))),
    ...(await narrowed(source, proofIds(question))),
    ...(cursor
      ? [
          {
            where: ['l.sealedAt <= ? AND (l.sealedAt < ? OR l.visitId < ?)'],
            values: [cursor.at, cursor.at, cursor.id],
          },
        ]
      : []),
  ];
  const rows = await source.query<FoundRow[]>(
    // Left to itself the database gathers all that hold a code's condition before it looks at the first.
    `SET STATEMENT optimizer_switch = 'exists_to_in=off' FOR
     SELECT l.visitId, l.serial, l.typeName, l.orderNumber, l.customer, l.sealedAt, v.sealedBy, v.headHash,
       (l.isNewest = 1 AND u.handedOverAt IS NOT NULL) AS isOut
     FROM left_visit l JOIN visit v ON v.id = l.visitId JOIN unit u ON u.id = l.unitId
     WHERE ${all.flatMap(({ where }) => where).join(' AND ') || '1 = 1'}
     ORDER BY l.sealedAt DESC, l.visitId DESC LIMIT ${most + 1}`,
    all.flatMap(({ values }) => [...values]),
  );
  const items = rows.slice(0, most);
  const last = items.at(-1);
  const codes = await codesOf(source, items, question);
  return {
    items: items.map(({ headHash, isOut, sealedAt, sealedBy, ...row }) => ({
      ...row,
      sealedAt: sealedAt.toISOString(),
      sealedBy: sealedBy ?? '',
      seal: headHash,
      isOut: Number(isOut) === 1,
      codes: codes.get(row.visitId) ?? [],
    })),
    next: rows.length > most && last ? writeCursor({ at: last.sealedAt, id: last.visitId }) : null,
  };
}

function conditions({
  where = 'newest',
  order,
  customer,
  type,
  map,
  className,
  from,
  to,
  by,
  worked,
  finding,
}: LedgerQuestion): readonly Sql[] {
  const plain = (sql: string): Sql => ({ where: [sql], values: [] });
  const equal = (column: string, value: string | undefined): readonly Sql[] =>
    value === undefined ? [] : [{ where: [`${column} = ?`], values: [value] }];
  return [
    ...(where === 'every' || where === 'back' || where === 'moved' ? [] : [plain('l.isNewest = 1')]),
    ...(where === 'out' ? [plain('u.handedOverAt IS NOT NULL')] : []),
    ...(where === 'house' ? [plain('u.handedOverAt IS NULL')] : []),
    ...(where === 'moved' ? [plain('l.isMoved = 1')] : []),
    // It was read when it came back, or was taken up again since.
    ...(where === 'back'
      ? [
          plain(
            "(l.isNewest = 0 OR u.status <> 'sealed' OR EXISTS (SELECT 1 FROM handover_entry h WHERE h.visitId = l.visitId AND h.kind = 'cameBack'))",
          ),
        ]
      : []),
    ...equal('l.orderNumber', order),
    ...equal('l.customer', customer),
    ...equal('l.typeName', type),
    ...equal('l.mapId', map),
    ...equal('l.className', className),
    ...equal('l.signedBy', by),
    ...(from === undefined ? [] : [{ where: ['l.sealedAt >= ?'], values: [dayStart(from)] }]),
    ...(to === undefined ? [] : [{ where: ['l.sealedAt < ?'], values: [new Date(dayStart(to).getTime() + DAY_MS)] }]),
    ...(worked === undefined
      ? []
      : [
          {
            where: ['EXISTS (SELECT 1 FROM left_person p WHERE p.visitId = l.visitId AND p.userId = ?)'],
            values: [worked],
          },
        ]),
    ...(finding === 'accepted' ? [plain('l.accepted > 0')] : []),
    ...(finding === 'unproved' ? [plain('l.unproved > 0')] : []),
  ];
}

const DAY_MS = 86_400_000;

function dayStart(day: string): Date {
  const at = new Date(`${day}T00:00:00.000Z`);
  if (Number.isNaN(at.getTime()))
    throw new HttpProblem('badRequest', { message: `There is no day ${day}. Write it as 2026-03-01.` });
  return at;
}

/** Visits that hold a condition which an index of its own finds: by their ids where they are few, else asked of each on the way. */
interface Ids {
  readonly few: Sql & { readonly from: string };
  readonly onTheWay: Sql;
}

async function narrowed(source: DataSource, ids: Ids | null): Promise<readonly Sql[]> {
  if (ids === null) return [];
  const { from, where, values } = ids.few;
  // As one text: some thousand rows take longer to be sent and read than to be found.
  const [all] = await source.query<{ n: string; ids: string | null }[]>(
    `SET STATEMENT group_concat_max_len = ${100 * FEW} FOR
     SELECT COUNT(*) AS n, GROUP_CONCAT(visitId) AS ids
     FROM (SELECT visitId FROM ${from} WHERE ${where.join(' AND ')} LIMIT ${FEW + 1}) found`,
    [...values],
  );
  if (Number(all?.n ?? 0) > FEW) return [ids.onTheWay];
  const found = [...new Set(all?.ids?.split(','))];
  return found.length === 0
    ? [{ where: ['1 = 0'], values: [] }]
    : [{ where: [`l.visitId IN (${found.map(() => '?').join(', ')})`], values: found }];
}

/** Any part of a serial, wild signs as they stand. */
function serialIds({ serial }: LedgerQuestion): Ids | null {
  if (serial === undefined) return null;
  const values = [`%${serial.replace(/[\\%_]/g, '\\$&')}%`];
  return {
    few: { from: 'left_visit FORCE INDEX (leftBySerial)', where: ['serial LIKE ?'], values },
    onTheWay: { where: ['l.serial LIKE ?'], values },
  };
}

/** Any part of what was found or decided, wild signs as they stand. */
function wordsIds({ words }: LedgerQuestion): Ids | null {
  if (words === undefined) return null;
  const values = [`%${words.replace(/[\\%_]/g, '\\$&')}%`];
  return {
    few: { from: 'left_finding', where: ['says LIKE ?'], values },
    onTheWay: {
      where: ['EXISTS (SELECT 1 FROM left_finding f WHERE f.visitId = l.visitId AND f.says LIKE ?)'],
      values,
    },
  };
}

/** What came of a test; that it was asked at all where no outcome is named. */
function proofIds({ proof, proved }: LedgerQuestion): Ids | null {
  if (proof === undefined) return null;
  const [where, values] =
    proved === undefined
      ? [['test = ?'], [proof]]
      : [
          ['test = ?', 'verdict = ?'],
          [proof, proved],
        ];
  return {
    few: { from: 'left_proof', where, values },
    onTheWay: {
      where: [
        `EXISTS (SELECT 1 FROM left_proof p WHERE p.visitId = l.visitId AND ${where.map((each) => `p.${each}`).join(' AND ')})`,
      ],
      values,
    },
  };
}

/** How a code was left: its meaning by number where one is asked for, else its word. */
function codeIds({ code, is = 'at', value }: LedgerQuestion): Ids | null {
  if (code === undefined || value === undefined || value === '') return null;
  if (!isCodeFunction(code)) throw new HttpProblem('badRequest', { message: `Nothing is called ${String(code)}.` });
  const number = Number(value.replace(',', '.'));
  if (is !== 'means' && !Number.isFinite(number))
    throw new HttpProblem('badRequest', {
      message: `"${value}" is no number. Ask for its meaning, or type a number.`,
    });
  const compare = { over: 'value > ?', under: 'value < ?', at: 'value = ?', means: 'word = ?' }[is];
  const where = ['fn = ?', compare];
  const values = [code, is === 'means' ? value : number];
  return {
    few: { from: 'left_code', where, values },
    onTheWay: {
      where: [`EXISTS (SELECT 1 FROM left_code c WHERE c.visitId = l.visitId AND c.fn = ? AND c.${compare})`],
      values,
    },
  };
}

/** The codes that were asked for, of every visit found. */
async function codesOf(
  source: DataSource,
  items: readonly FoundRow[],
  { code }: LedgerQuestion,
): Promise<ReadonlyMap<string, LedgerAnswer['items'][number]['codes']>> {
  const found = new Map<string, { label: string; shown: string; says: string }[]>();
  if (code === undefined || items.length === 0) return found;
  const rows = await source.query<{ visitId: string; label: string; shown: string; says: string }[]>(
    `SELECT visitId, label, shown, says FROM left_code WHERE fn = ? AND visitId IN (${items.map(() => '?').join(', ')}) ORDER BY visitId, label`,
    [code, ...items.map(({ visitId }) => visitId)],
  );
  for (const { visitId, ...each } of rows) found.set(visitId, [...(found.get(visitId) ?? []), each]);
  return found;
}

const wantingOf = async (source: DataSource): Promise<number> => {
  const [row] = await source.query<{ n: number }[]>(
    'SELECT (SELECT COUNT(*) FROM visit WHERE sealedAt IS NOT NULL) - (SELECT COUNT(*) FROM left_visit WHERE packId IS NOT NULL) AS n',
  );
  return Math.max(0, Number(row?.n ?? 0));
};

/** What there is to choose from in a question. */
export async function ledgerChoices(source: DataSource): Promise<LedgerChoices> {
  const distinct = async (column: string): Promise<readonly string[]> => {
    const rows = await source.query<{ name: string }[]>(
      `SELECT DISTINCT ${column} AS name FROM left_visit ORDER BY ${column} LIMIT 500`,
    );
    return rows.map(({ name }) => name);
  };
  const [customers, types, classes, maps, people, workers, proofs, codes] = await Promise.all([
    distinct('customer'),
    distinct('typeName'),
    distinct('className'),
    distinct('mapId'),
    source.query<{ id: string; name: string }[]>(
      'SELECT id, displayName AS name FROM account WHERE id IN (SELECT DISTINCT signedBy FROM left_visit) ORDER BY displayName',
    ),
    source.query<{ id: string; name: string }[]>(
      'SELECT id, displayName AS name FROM account WHERE id IN (SELECT DISTINCT userId FROM left_person) ORDER BY displayName',
    ),
    source.query<{ test: string; title: string }[]>(
      'SELECT test, MAX(title) AS title FROM left_proof GROUP BY test ORDER BY title LIMIT 500',
    ),
    source.query<{ code: string; word: string | null }[]>(
      'SELECT DISTINCT fn AS code, word FROM left_code ORDER BY fn, word LIMIT 2000',
    ),
  ]);
  const byCode = new Map<string, string[]>();
  for (const { code, word } of codes) byCode.set(code, [...(byCode.get(code) ?? []), ...(word === null ? [] : [word])]);
  return {
    customers,
    types,
    classes,
    maps: await Promise.all(
      maps.map(async (id) => ({ id, title: mapTitle((await getDocument(source.manager, 'displayMap', id)).document) })),
    ),
    people,
    workers,
    proofs,
    codes: [...byCode].map(([code, words]) => ({ code, words })),
    wanting: await wantingOf(source),
  };
}
