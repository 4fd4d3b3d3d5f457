import { STEPS } from '@decurio/core';
import type {
  QualityOfCode,
  QualityOfHold,
  QualityOfKind,
  QualityOfPerson,
  QualityOfStep,
  QualityQuestion,
  QualityView,
} from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { getDocument } from './library.js';

const MOST_CODES = 20;
/** Less than this is no work that anybody did: what a logarithm is taken of. */
const LEAST_MINUTES = 0.02;
const LEAST_HOURS = 0.01;

interface Sealed {
  readonly where: string;
  readonly values: readonly (string | Date)[];
}

/** How the work went, over visits sealed meanwhile. All of it stands in rows written with the seals. */
export async function qualityOf(source: DataSource, question: QualityQuestion): Promise<QualityView> {
  const sealed = sealedBy(question);
  const [[all], steps, types, displays, codes, holds, persons, [others]] = await Promise.all([
    source.query<{ n: string }[]>(`SELECT COUNT(*) AS n FROM left_visit l WHERE ${sealed.where}`, [...sealed.values]),
    stepsOf(source, sealed),
    kindsOf(source, sealed, 'l.typeName'),
    kindsOf(source, sealed, 'l.mapId'),
    codesOf(source, sealed),
    holdsOf(source, sealed),
    personsOf(source, sealed),
    source.query<{ n: string }[]>(
      `SELECT COUNT(DISTINCT p.userId) AS n FROM left_visit l JOIN left_person p ON p.visitId = l.visitId JOIN account a ON a.id = p.userId AND a.agreesToCount = 0 WHERE ${sealed.where}`,
      [...sealed.values],
    ),
  ]);
  const titles = new Map(
    await Promise.all(
      [...new Set([...displays.map(({ name }) => name), ...codes.map(({ mapId }) => mapId)])].map(async (id) => {
        const { name, revision } = (await getDocument(source.manager, 'displayMap', id)).document;
        return [id, `${name} ${revision}`] as const;
      }),
    ),
  );
  return {
    visits: Number(all?.n ?? 0),
    steps,
    types,
    displays: displays.map((each) => ({ ...each, name: titles.get(each.name) ?? each.name })),
    codes: codes.map((each) => ({ ...each, map: titles.get(each.mapId) ?? each.mapId })),
    holds,
    persons,
    uncounted: Number(others?.n ?? 0),
  };
}

function sealedBy({ from, to, type, map }: QualityQuestion): Sealed {
  const day = (words: string): Date => {
    const at = new Date(`${words}T00:00:00.000Z`);
    if (Number.isNaN(at.getTime()))
      throw new HttpProblem('badRequest', { message: `There is no day ${words}. Write it as 2026-03-01.` });
    return at;
  };
  const parts: readonly (readonly [string, string | Date] | null)[] = [
    from === undefined ? null : ['l.sealedAt >= ?', day(from)],
    to === undefined ? null : ['l.sealedAt < ?', new Date(day(to).getTime() + 86_400_000)],
    type === undefined ? null : ['l.typeName = ?', type],
    map === undefined ? null : ['l.mapId = ?', map],
  ];
  const said = parts.filter((part) => part !== null);
  return {
    where: ['l.packId IS NOT NULL', ...said.map(([sql]) => sql)].join(' AND '),
    values: said.map(([, value]) => value),
  };
}

async function stepsOf(source: DataSource, { where, values }: Sealed): Promise<readonly QualityOfStep[]> {
  const rows = await source.query<Numbers<QualityOfStep>[]>(
    `SELECT s.step, COUNT(*) AS visits, SUM(s.isFirstRight) AS firstRight, EXP(AVG(LN(GREATEST(s.minutes, ${LEAST_MINUTES})))) AS minutes
     FROM left_visit l JOIN left_step s ON s.visitId = l.visitId WHERE ${where} GROUP BY s.step`,
    [...values],
  );
  const order = STEPS.map(({ id }): string => id);
  return rows
    .map((row) => ({ step: row.step, ...figures(row) }))
    .sort((a, b) => order.indexOf(a.step) - order.indexOf(b.step));
}

/** Figures as the database gives them: sums as texts. */
type Numbers<T> = { readonly [K in keyof T]: T[K] extends number ? number | string : T[K] };

const figures = ({
  visits,
  firstRight,
  minutes,
}: Numbers<Pick<QualityOfKind, 'visits' | 'firstRight' | 'minutes'>>) => ({
  visits: Number(visits),
  firstRight: Number(firstRight),
  minutes: Number(minutes),
});

async function kindsOf(
  source: DataSource,
  { where, values }: Sealed,
  column: 'l.typeName' | 'l.mapId',
): Promise<readonly QualityOfKind[]> {
  const rows = await source.query<Numbers<QualityOfKind>[]>(
    `SELECT v.name, COUNT(*) AS visits, SUM(v.isRight) AS firstRight, EXP(AVG(LN(GREATEST(v.minutes, ${LEAST_MINUTES})))) AS minutes FROM
       (SELECT ${column} AS name, MIN(s.isFirstRight) AS isRight, SUM(s.minutes) AS minutes
        FROM left_visit l JOIN left_step s ON s.visitId = l.visitId WHERE ${where} GROUP BY l.visitId, ${column}) v
     GROUP BY v.name ORDER BY visits DESC, v.name LIMIT 50`,
    [...values],
  );
  return rows.map((row) => ({ name: row.name, ...figures(row) }));
}

async function codesOf(source: DataSource, { where, values }: Sealed): Promise<readonly QualityOfCode[]> {
  const slips = await source.query<{ mapId: string; label: string; slips: string }[]>(
    `SELECT l.mapId, s.label, SUM(s.n) AS slips FROM left_visit l JOIN left_slip s ON s.visitId = l.visitId WHERE ${where}
     GROUP BY l.mapId, s.label`,
    [...values],
  );
  const counts = await source.query<{ mapId: string; n: string }[]>(
    `SELECT l.mapId, COUNT(*) AS n FROM left_visit l WHERE ${where} GROUP BY l.mapId`,
    [...values],
  );
  const disputes = await source.query<{ mapId: string; label: string; n: string }[]>(
    'SELECT mapId, label, COUNT(*) AS n FROM dispute WHERE label IS NOT NULL GROUP BY mapId, label',
  );
  const visitsOf = new Map(counts.map(({ mapId, n }) => [mapId, Number(n)]));
  const found = new Map<string, Omit<QualityOfCode, 'map'>>();
  const of = (mapId: string, label: string) =>
    found.get(`${mapId} ${label}`) ?? { mapId, label, visits: visitsOf.get(mapId) ?? 0, slips: 0, disputes: 0 };
  for (const { mapId, label, slips: n } of slips)
    found.set(`${mapId} ${label}`, { ...of(mapId, label), slips: Number(n) });
  for (const { mapId, label, n } of disputes)
    if (visitsOf.has(mapId)) found.set(`${mapId} ${label}`, { ...of(mapId, label), disputes: Number(n) });
  const rate = ({ slips: n, visits }: Omit<QualityOfCode, 'map'>): number => n / Math.max(1, visits);
  return [...found.values()]
    .sort((a, b) => rate(b) - rate(a) || b.disputes - a.disputes || (a.label < b.label ? -1 : 1))
    .slice(0, MOST_CODES)
    .map((each) => ({ ...each, map: each.mapId }));
}

async function holdsOf(source: DataSource, { where, values }: Sealed): Promise<readonly QualityOfHold[]> {
  const rows = await source.query<Numbers<QualityOfHold>[]>(
    `SELECT h.reason, COUNT(*) AS holds, EXP(AVG(LN(GREATEST(h.hours, ${LEAST_HOURS})))) AS usualHours, SUM(h.hours) AS allHours
     FROM left_visit l JOIN left_hold h ON h.visitId = l.visitId WHERE ${where} GROUP BY h.reason ORDER BY allHours DESC`,
    [...values],
  );
  return rows.map(({ reason, holds, usualHours, allHours }) => ({
    reason,
    holds: Number(holds),
    usualHours: Number(usualHours),
    allHours: Number(allHours),
  }));
}

/** Visits of which one person did every step, of those who agreed to be counted. */
async function personsOf(source: DataSource, { where, values }: Sealed): Promise<readonly QualityOfPerson[]> {
  const rows = await source.query<Numbers<QualityOfPerson>[]>(
    `SELECT v.userId, a.displayName AS name, COUNT(*) AS visits, SUM(v.isRight) AS firstRight, EXP(AVG(LN(GREATEST(v.minutes, ${LEAST_MINUTES})))) AS minutes FROM
       (SELECT MIN(s.userId) AS userId, MIN(s.isFirstRight) AS isRight, SUM(s.minutes) AS minutes
        FROM left_visit l JOIN left_step s ON s.visitId = l.visitId WHERE ${where} GROUP BY l.visitId
        HAVING COUNT(DISTINCT s.userId) = 1 AND SUM(s.userId IS NULL) = 0) v
     JOIN account a ON a.id = v.userId AND a.agreesToCount = 1 GROUP BY v.userId, a.displayName ORDER BY a.displayName`,
    [...values],
  );
  return rows.map((row) => ({ userId: row.userId, name: row.name, ...figures(row) }));
}

export async function agreesToCount(source: DataSource, userId: string): Promise<boolean> {
  const [row] = await source.query<{ agreesToCount: number }[]>('SELECT agreesToCount FROM account WHERE id = ?', [
    userId,
  ]);
  return Number(row?.agreesToCount ?? 0) === 1;
}

export const letCount = (source: DataSource, userId: string, agrees: boolean): Promise<unknown> =>
  source.query('UPDATE account SET agreesToCount = ? WHERE id = ?', [agrees ? 1 : 0, userId]);
