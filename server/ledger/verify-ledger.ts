import { CHAIN_START, checkRecord, type VisitRecord } from '@decurio/core';
import { MoreThan, type DataSource, type EntityManager } from 'typeorm';
import { SealHeads, Visits } from '../store/entities.js';
import { markHash } from '../store/seal-heads.js';
import { checkCheckpoints } from './checkpoints.js';
import type { SigningKey } from './signing-key.js';
import { verifyVisits, type VisitCheck } from './verify-visit.js';

export interface LedgerFinding {
  /** What it is about: a serial with its visit, an order, or the marks. */
  readonly of: string;
  readonly says: string;
}

export interface LedgerChecked {
  readonly visits: number;
  readonly entries: number;
  readonly photographs: number;
  readonly marks: number;
  readonly checkpoints: number;
  readonly findings: number;
}

export interface Against {
  /** What was kept elsewhere, each as its text: checkpoints, and exported records. */
  readonly against?: readonly string[];
  /** The house's own key, by which signatures under its name are checked too. */
  readonly key?: Pick<SigningKey, 'name' | 'publicKey'> | null;
}

/** Recomputes some visits, of which the ids are given in order, and says of each what is not as it was sealed. */
export type VisitsCheck = (ids: readonly string[]) => Promise<readonly VisitCheck[]>;

/** By whom visits are recomputed: here where nobody is named. */
export interface CheckedBy {
  readonly check?: VisitsCheck;
  /** Pages that are in hand together. */
  readonly atOnce?: number;
}

/** Visits that are read together: some thousand entries. */
const PAGE = 50;
const AT_ONCE = 3;
const MARKS = 1000;

/**
 * Walks the whole ledger: the house's chain of marks, its checkpoints, every visit by its stored rows, visits that are marked and gone,
 * and what orders count. Reads alone; the application's rights are enough.
 * @param tell hears every finding as it is made
 */
export async function verifyLedger(
  { manager }: DataSource,
  tell: (finding: LedgerFinding) => void,
  {
    against = [],
    key = null,
    check = (page) => verifyVisits(manager, page),
    atOnce = AT_ONCE,
  }: Against & CheckedBy = {},
): Promise<LedgerChecked> {
  let [visits, entries, photographs, findings] = [0, 0, 0, 0];
  const found = (of: string, says: string) => {
    findings += 1;
    tell({ of, says });
  };
  const marks = await checkMarks(manager, found);
  const isRecord = (text: string): boolean => text.trimStart().startsWith('{');
  const notes = against.filter((text) => !isRecord(text));
  const checkpoints = await checkCheckpoints(manager, found, { against: notes, key });
  for (const text of against.filter(isRecord)) await checkKeptRecord(manager, text, found);
  for await (const checks of inTurn(pagesOfVisits(manager), atOnce, check)) {
    for (const each of checks) {
      visits += 1;
      entries += each.entries;
      photographs += each.photographs;
      for (const says of each.findings) found(`${each.visit.serial}, visit ${each.visit.id}`, says);
    }
  }
  await checkGone(manager, found);
  await checkCounts(manager, found);
  return { visits, entries, photographs, marks, checkpoints, findings };
}

async function* pagesOfVisits(manager: EntityManager): AsyncGenerator<readonly string[]> {
  for (let after = ''; ;) {
    const page = await manager.find(Visits, {
      where: { id: MoreThan(after) },
      order: { id: 'ASC' },
      take: PAGE,
      select: { id: true },
    });
    if (page.length > 0) yield page.map(({ id }) => id);
    if (page.length < PAGE) return;
    after = page.at(-1)?.id ?? after;
  }
}

/** Some at once, told in the order they were given: while one waits for the database another is worked out. */
async function* inTurn<T, R>(
  items: AsyncIterable<T>,
  atOnce: number,
  work: (item: T) => Promise<R>,
): AsyncGenerator<R> {
  const begun: Promise<R>[] = [];
  for await (const item of items) {
    begun.push(work(item));
    const [first] = begun.length < atOnce ? [] : begun.splice(0, 1);
    if (first) yield await first;
  }
  for (const rest of begun) yield await rest;
}

type Found = (of: string, says: string) => void;

/** A record that was exported once: the ledger must still have its visit, under the same seal. */
async function checkKeptRecord(manager: EntityManager, text: string, found: Found): Promise<void> {
  const read = asRecord(text);
  if (read === null) return found('a record given', 'It is no record that holds by itself.');
  const visit = await manager.findOneBy(Visits, { id: read.visitId });
  const of = `${read.serial}, visit ${read.visitId}`;
  if (!visit) found(of, 'This visit is gone. A record of it was exported.');
  else if (visit.headHash !== read.seal) found(of, 'It ends in another seal than the record that was exported.');
}

function asRecord(text: string): VisitRecord | null {
  try {
    const record = JSON.parse(text) as VisitRecord;
    return checkRecord(record).ok ? record : null;
  } catch {
    return null;
  }
}

async function checkMarks(manager: EntityManager, found: Found): Promise<number> {
  let [n, prevHash] = [0, CHAIN_START];
  for (;;) {
    const page = await manager.find(SealHeads, { where: { n: MoreThan(n) }, order: { n: 'ASC' }, take: MARKS });
    for (const mark of page) {
      const number = Number(mark.n);
      if (number !== n + 1) found('the marks', `Between mark ${n} and mark ${number} some are missing.`);
      else if (mark.prevHash !== prevHash) found('the marks', `Mark ${number} does not follow the one before it.`);
      if (markHash({ ...mark, n: number }) !== mark.rowHash)
        found('the marks', `Mark ${number} was changed after it was set.`);
      [n, prevHash] = [number, mark.rowHash];
    }
    if (page.length < MARKS) return n;
  }
}

/** Visits that were marked and are not there, and units that point to none. */
async function checkGone(manager: EntityManager, found: Found): Promise<void> {
  const gone = await manager.query<{ visitId: string; seq: number; at: Date }[]>(
    'SELECT h.visitId, MAX(h.seq) AS seq, MAX(h.at) AS at FROM seal_head h LEFT JOIN visit v ON v.id = h.visitId WHERE v.id IS NULL GROUP BY h.visitId ORDER BY at',
  );
  for (const { visitId, seq, at } of gone)
    found(`visit ${visitId}`, `This visit is gone. It had ${seq} entries on ${at.toISOString()}.`);
  const lost = await manager.query<{ serial: string; visitId: string }[]>(
    'SELECT u.serial, u.visitId FROM unit u LEFT JOIN visit v ON v.id = u.visitId WHERE u.visitId IS NOT NULL AND v.id IS NULL',
  );
  for (const { serial, visitId } of lost) found(serial, `Its visit ${visitId} is gone.`);
}

async function checkCounts(manager: EntityManager, found: Found): Promise<void> {
  const rows = await manager.query<
    {
      number: string;
      units: number;
      sealed: number;
      held: number;
      hasUnits: string;
      hasSealed: string;
      hasHeld: string;
    }[]
  >(
    `SELECT o.number, o.units, o.sealed, o.held, COUNT(u.id) AS hasUnits, COALESCE(SUM(u.status = 'sealed'), 0) AS hasSealed, COALESCE(SUM(u.status = 'held'), 0) AS hasHeld
     FROM customer_order o LEFT JOIN unit u ON u.orderId = o.id AND u.status <> 'withdrawn' GROUP BY o.id`,
  );
  for (const row of rows) {
    const pairs = [
      ['units', row.units, row.hasUnits],
      ['sealed units', row.sealed, row.hasSealed],
      ['held units', row.held, row.hasHeld],
    ] as const;
    for (const [what, shown, has] of pairs)
      if (shown !== Number(has)) found(`order ${row.number}`, `It shows ${shown} ${what} and has ${has}.`);
  }
}
