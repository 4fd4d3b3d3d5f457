import { randomUUID } from 'node:crypto';
import { ERASED_NAME, PERSONAL_KINDS, type PersonalKind } from '@decurio/core';
import type { EraseHandoverRequest, PersonalView } from '@decurio/contract';
import { In, IsNull, Not, type DataSource, type EntityManager } from 'typeorm';
import { hashPassword } from '../security/passwords.js';
import { HttpProblem } from '../problems.js';
import { noteChange } from './changes.js';
import { noteEvent } from './account-events.js';
import { Accounts, Sessions, Units, Visits } from './entities.js';
import { forgetFolds } from './folded-visits.js';
import { houseOf } from './house.js';
import { lockAccounts, refuseLastOwner } from './last-owner.js';
import { inTransaction } from './transaction.js';

/** Where lists repeat a name of somebody who works here, in tables that may be written to. Our own words, never what was sent. */
const NAME_COLUMNS = [
  ['visit', 'sealedBy'],
  ['unit', 'worker'],
  ['dispute', 'raisedBy'],
  ['dispute', 'settledBy'],
  ['wheel_run', 'leftOutBy'],
  ['overshoot_seen', 'leftOutBy'],
  ['house', 'changedBy'],
] as const;

/** Who erases: their account, or null where the house's own time for it has come. */
type Eraser = string | null;

/**
 * Erases what is kept of whoever received a unit: the signature, or the name with it. The chain stays whole, since it
 * holds their hashes alone.
 * @throws `nothingToErase` where nothing is kept apart of it; `nameInside` where it was handed over before names were kept apart
 */
export async function eraseReceiver(
  source: DataSource,
  visitId: string,
  { what, why }: EraseHandoverRequest,
  eraser: Eraser,
): Promise<void> {
  const kinds: readonly PersonalKind[] = what === 'signature' ? ['signature'] : ['signature', 'receiver'];
  await inTransaction(source, async (manager) => {
    const visit = await manager.findOne(Visits, { where: { id: visitId }, lock: { mode: 'pessimistic_write' } });
    if (!visit) throw new HttpProblem('visitNotFound');
    const erased = await eraseRows(manager, 'subject = ? AND kind IN (?)', [visitId, kinds], why, eraser);
    // A unit that is called back still says who has it.
    const unit = await manager.findOne(Units, {
      where: [{ visitId }, { lastVisitId: visitId, visitId: IsNull() }],
      lock: { mode: 'pessimistic_write' },
    });
    if (erased === 0) {
      const [apart] = await manager.query<unknown[]>('SELECT 1 FROM personal WHERE subject = ? LIMIT 1', [visitId]);
      throw new HttpProblem(!apart && unit?.handedTo && !unit.isSpare ? 'nameInside' : 'nothingToErase');
    }
    if (!unit) return;
    if (kinds.includes('receiver') && unit.handedTo !== null)
      await manager.update(Units, { id: unit.id }, { handedTo: ERASED_NAME });
    await noteChange(manager, { orderId: unit.orderId, unitId: unit.id, seq: visit.lastSeq });
  });
}

/**
 * Erases the names that somebody had here and closes their account. What they did stays, under an account's number
 * that names nobody.
 * @throws `ownName`, `lastOwner`, `atUnit`, `sameName`, `notFound`: nothing is changed then
 */
export async function erasePerson(source: DataSource, accountId: string, why: string, eraser: Eraser): Promise<void> {
  if (accountId === eraser) throw new HttpProblem('ownName');
  const nobodyKnows = await hashPassword(randomUUID());
  await inTransaction(source, async (manager) => {
    const accounts = await lockAccounts(manager);
    const account = accounts.find(({ id }) => id === accountId);
    if (!account || account.displayName === ERASED_NAME)
      throw new HttpProblem('notFound', { message: 'Nobody of this account has a name here.' });
    const { displayName } = account;
    refuseLastOwner(accounts, account);
    const [atUnit] = await manager.query<{ serial: string }[]>(
      "SELECT serial FROM unit WHERE worker = ? AND status NOT IN ('sealed', 'withdrawn') ORDER BY serial LIMIT 1",
      [displayName],
    );
    if (atUnit) throw new HttpProblem('atUnit', { message: `${displayName} is at ${atUnit.serial}. End that first.` });
    const rows = await manager.query<{ says: string }[]>(
      "SELECT says FROM personal WHERE subject = ? AND kind = 'worker' AND erasedAt IS NULL",
      [accountId],
    );
    const names = [...new Set(rows.map(({ says }) => JSON.parse(says) as string))];
    if ((await manager.countBy(Accounts, { displayName: In(names), id: Not(accountId) })) > 0)
      throw new HttpProblem('sameName');
    await eraseRows(manager, "subject = ? AND kind = 'worker'", [accountId], why, eraser);
    for (const name of names)
      for (const [table, column] of NAME_COLUMNS)
        await manager.query(`UPDATE ${table} SET ${column} = ? WHERE ${column} = ?`, [ERASED_NAME, name]);
    const signInName = `gone-${randomUUID().slice(0, 13)}`;
    await manager.update(
      Accounts,
      { id: accountId },
      { displayName: ERASED_NAME, signInName, passwordHash: nobodyKnows, role: 'technician', pace: null },
    );
    await manager.delete(Sessions, { accountId });
    await noteEvent(manager, { accountId, byId: eraser, kind: 'closed', says: '' });
  });
  forgetFolds();
}

async function eraseRows(
  manager: EntityManager,
  where: string,
  values: readonly unknown[],
  why: string,
  eraser: Eraser,
): Promise<number> {
  const { affectedRows } = await manager.query<{ affectedRows: number }>(
    `UPDATE personal SET salt = NULL, says = NULL, erasedAt = UTC_TIMESTAMP(3), erasedBy = ?, why = ? WHERE ${where} AND erasedAt IS NULL`,
    [eraser, why, ...values],
  );
  return affectedRows;
}

const OLD_AT_ONCE = 200;
const KEPT_SO_LONG = "The house's time for keeping it was over";

/** Erases what was kept for as long as the house wants it kept. What cannot be now is asked again at the next round. */
export async function eraseOld(source: DataSource): Promise<void> {
  const { keepWorkerMonths, keepReceiverMonths, keepSignatureMonths } = await houseOf(source.manager);
  const old = (kind: PersonalKind, months: number) => olderThan(source, kind, months);
  for (const visitId of await old('signature', keepSignatureMonths))
    await unlessRefused(eraseReceiver(source, visitId, { what: 'signature', why: KEPT_SO_LONG }, null));
  for (const visitId of await old('receiver', keepReceiverMonths))
    await unlessRefused(eraseReceiver(source, visitId, { what: 'all', why: KEPT_SO_LONG }, null));
  for (const accountId of await old('worker', keepWorkerMonths))
    await unlessRefused(erasePerson(source, accountId, KEPT_SO_LONG, null));
}

/** Somebody may be at a unit, or another process may have been first. */
const unlessRefused = (erasing: Promise<void>): Promise<void> =>
  erasing.catch((error: unknown) => {
    if (!(error instanceof HttpProblem)) throw error;
  });

/** Visits or accounts of which something is older than that; of an account its newest name counts. */
async function olderThan(source: DataSource, kind: PersonalKind, months: number): Promise<readonly string[]> {
  if (months === 0) return [];
  const rows = await source.query<{ subject: string }[]>(
    `SELECT subject FROM personal WHERE kind = ? AND erasedAt IS NULL GROUP BY subject
     HAVING MAX(at) < UTC_TIMESTAMP(3) - INTERVAL ? MONTH LIMIT ${OLD_AT_ONCE}`,
    [kind, months],
  );
  return rows.map(({ subject }) => subject);
}

/** What the house keeps of persons: how much of each kind, and whose names. */
export async function personalKept(source: DataSource): Promise<PersonalView> {
  const counts = await source.query<{ kind: PersonalKind; kept: string; erased: string; oldest: Date | null }[]>(
    `SELECT kind, SUM(erasedAt IS NULL) AS kept, SUM(erasedAt IS NOT NULL) AS erased, MIN(IF(erasedAt IS NULL, at, NULL)) AS oldest
     FROM personal GROUP BY kind`,
  );
  const people = await source.query<
    { id: string; name: string; signInName: string; role: PersonalView['people'][number]['role']; hereAt: Date }[]
  >(
    `SELECT a.id, a.displayName AS name, a.signInName, a.role, p.at AS hereAt FROM account a
     JOIN personal p ON p.sha256 = a.nameSha256 WHERE p.erasedAt IS NULL ORDER BY a.displayName, a.id LIMIT 500`,
  );
  return {
    kinds: (Object.keys(PERSONAL_KINDS) as PersonalKind[]).map((kind) => {
      const row = counts.find((each) => each.kind === kind);
      return {
        kind,
        kept: Number(row?.kept ?? 0),
        erased: Number(row?.erased ?? 0),
        oldest: row?.oldest?.toISOString() ?? null,
      };
    }),
    people: people.map(({ hereAt, ...person }) => ({ ...person, hereAt: hereAt.toISOString() })),
  };
}
