import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { Role } from '@decurio/core';
import type { OpenSession, SessionView } from '@decurio/contract';
import { In, type DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { noteEvent } from './account-events.js';
import { Sessions, type AccountRow } from './entities.js';
import { askPool, inTransaction } from './transaction.js';

export const SESSION_HOURS = 14;
/** How old the note of when a session was last heard from may grow. */
const SEEN_MS = 5 * 60_000;

export interface Opened {
  /** For the cookie; only its hash is kept. */
  readonly token: string;
  readonly session: SessionView;
}

/** What another clears away at this moment is left to it. */
const ENDED_SQL = 'SELECT tokenHash FROM session WHERE expiresAt < UTC_TIMESTAMP(3) LIMIT 1000 FOR UPDATE SKIP LOCKED';

export async function openSession(source: DataSource, account: AccountRow, station: string): Promise<Opened> {
  const token = randomBytes(32).toString('base64url');
  const now = new Date();
  const id = randomUUID();
  const expiresAt = new Date(now.getTime() + SESSION_HOURS * 3_600_000);
  await inTransaction(source, async (manager) => {
    const ended = await manager.query<{ tokenHash: string }[]>(ENDED_SQL);
    if (ended.length > 0) await manager.delete(Sessions, { tokenHash: In(ended.map((row) => row.tokenHash)) });
    // A name is kept so long after its bearer was here last.
    await manager.query('UPDATE personal SET at = ? WHERE sha256 = ?', [now, account.nameSha256]);
    await noteEvent(manager, { accountId: account.id, byId: null, kind: 'signedIn', says: station });
    await manager.insert(Sessions, {
      tokenHash: tokenHash(token),
      id,
      accountId: account.id,
      station,
      openedAt: now,
      seenAt: now,
      expiresAt,
    });
  });
  const { displayName: name, nameSha256, role, isPasswordForOnce } = account;
  const endsAt = expiresAt.toISOString();
  return { token, session: { id, userId: account.id, name, nameSha256, role, station, isPasswordForOnce, endsAt } };
}

const READ_SQL = `SELECT s.id, s.accountId AS userId, a.displayName AS name, a.nameSha256, a.role, s.station, a.isPasswordForOnce, s.seenAt, s.expiresAt
  FROM session s JOIN account a ON a.id = s.accountId WHERE s.tokenHash = ? AND s.expiresAt > UTC_TIMESTAMP(3) AND a.lockedAt IS NULL`;

interface SessionRead extends Omit<SessionView, 'endsAt'> {
  readonly role: Role;
  readonly seenAt: Date;
  readonly expiresAt: Date;
}

export async function readSession(source: DataSource, token: string): Promise<SessionView | null> {
  const [row] = await askPool<SessionRead>(source, [READ_SQL, [tokenHash(token)]]);
  if (!row) return null;
  const { seenAt, expiresAt, ...session } = row;
  if (Date.now() - seenAt.getTime() > SEEN_MS)
    await inTransaction(source, (manager) => manager.update(Sessions, { id: session.id }, { seenAt: new Date() }));
  return { ...session, isPasswordForOnce: Boolean(session.isPasswordForOnce), endsAt: expiresAt.toISOString() };
}

/** Ends the session of a token. @returns its id, or null where it had ended */
export async function endByToken(source: DataSource, token: string): Promise<string | null> {
  const session = await source.manager.findOneBy(Sessions, { tokenHash: tokenHash(token) });
  if (!session) return null;
  await inTransaction(source, (manager) => manager.delete(Sessions, { id: session.id }));
  return session.id;
}

/** Ends one session of a person. @returns whether there was such a one */
export async function endSession(source: DataSource, accountId: string, id: string): Promise<boolean> {
  const { affected } = await inTransaction(source, (manager) => manager.delete(Sessions, { id, accountId }));
  return (affected ?? 0) > 0;
}

/** Ends somebody else's session, and writes down that it was. Throws `sessionGone`. */
export const endSessionOf = (source: DataSource, accountId: string, id: string, byId: string): Promise<void> =>
  inTransaction(source, async (manager) => {
    const session = await manager.findOneBy(Sessions, { id, accountId });
    if (!session) throw new HttpProblem('sessionGone');
    await manager.delete(Sessions, { id, accountId });
    await noteEvent(manager, { accountId, byId, kind: 'signedOut', says: session.station });
  });

/** Where a person is signed in, the newest first. */
export async function openSessions(
  source: DataSource,
  accountId: string,
  thisId: string,
): Promise<readonly OpenSession[]> {
  const rows = await source.manager.find(Sessions, {
    where: { accountId },
    order: { openedAt: 'DESC', id: 'ASC' },
    take: 100,
  });
  const now = new Date();
  return rows
    .filter((row) => row.expiresAt > now)
    .map(({ id, station, openedAt, seenAt }) => ({
      id,
      station,
      openedAt: openedAt.toISOString(),
      seenAt: seenAt.toISOString(),
      isThis: id === thisId,
    }));
}

/** Of these sessions, those that have ended. */
export async function endedOf(source: DataSource, ids: readonly string[]): Promise<readonly string[]> {
  if (ids.length === 0) return [];
  const rows = await source.query<{ id: string }[]>(
    'SELECT id FROM session WHERE id IN (?) AND expiresAt > UTC_TIMESTAMP(3)',
    [ids],
  );
  const open = new Set(rows.map(({ id }) => id));
  return ids.filter((id) => !open.has(id));
}

const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex');
