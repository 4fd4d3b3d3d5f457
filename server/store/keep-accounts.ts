import { ERASED_NAME, type Role } from '@decurio/core';
import type { AccountEventKind, AccountView, NewAccountRequest, PasswordForOnce } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { isCommon, passwordForOnce } from '../security/password-rules.js';
import { hashPassword, passwordMatches } from '../security/passwords.js';
import { noteEvent } from './account-events.js';
import { addAccount } from './accounts.js';
import { Accounts, Sessions, type AccountRow } from './entities.js';
import { lockAccounts, refuseLastOwner } from './last-owner.js';
import { inTransaction } from './transaction.js';

const LIST_SQL = `SELECT a.id, a.signInName, a.displayName, a.role, a.lockedAt, a.isPasswordForOnce,
    (SELECT MAX(e.at) FROM account_event e WHERE e.accountId = a.id AND e.kind = 'signedIn') AS lastInAt,
    (SELECT COUNT(*) FROM session s WHERE s.accountId = a.id AND s.expiresAt > UTC_TIMESTAMP(3)) AS sessions
  FROM account a WHERE a.displayName <> ? ORDER BY a.lockedAt IS NOT NULL, a.displayName, a.id`;

type Listed = Pick<AccountRow, 'id' | 'signInName' | 'displayName' | 'role' | 'lockedAt' | 'isPasswordForOnce'> & {
  readonly lastInAt: Date | null;
  readonly sessions: string;
};

/** Everybody who may sign in, or may no more; those who may first. */
export async function listAccounts(source: DataSource): Promise<readonly AccountView[]> {
  const rows = await source.query<Listed[]>(LIST_SQL, [ERASED_NAME]);
  return rows.map((row) => ({
    ...row,
    lockedAt: row.lockedAt?.toISOString() ?? null,
    isPasswordForOnce: Boolean(row.isPasswordForOnce),
    lastInAt: row.lastInAt?.toISOString() ?? null,
    sessions: Number(row.sessions),
  }));
}

/** Makes an account, with a password for once. Throws `badFields` where its name is none, taken, or looks like another's. */
export async function makeAccount(
  source: DataSource,
  { signInName, displayName, role }: NewAccountRequest,
  byId: string,
): Promise<PasswordForOnce> {
  const password = passwordForOnce();
  const made = await addAccount(source, {
    signInName,
    displayName,
    role,
    password,
    isDemo: false,
    isPasswordForOnce: true,
    byId,
  });
  if (!made.ok) throw new HttpProblem('badFields', { fields: { signInName: made.says } });
  return { accountId: made.id, password };
}

/**
 * Gives an account another role; it is that from the next request on.
 * @throws `ownAccount`, `lastOwner`, `notFound`
 */
export const giveRole = (source: DataSource, accountId: string, role: Role, byId: string): Promise<void> =>
  onAccount(source, accountId, byId, async (manager, account, all) => {
    refuseOwn(accountId, byId);
    if (account.role === role) return;
    refuseLastOwner(all, account);
    await manager.update(Accounts, { id: accountId }, { role });
    await noteEvent(manager, { accountId, byId, kind: 'role', says: role });
  });

/** Gives an account a password for once, and ends its sessions: whoever forgot theirs begins anew. */
export async function resetPassword(source: DataSource, accountId: string, byId: string): Promise<PasswordForOnce> {
  const password = passwordForOnce();
  const passwordHash = await hashPassword(password);
  await onAccount(source, accountId, byId, async (manager) => {
    refuseOwn(accountId, byId);
    await manager.update(Accounts, { id: accountId }, { passwordHash, isPasswordForOnce: true, isDemo: false });
    await endAll(manager, { accountId, byId, kind: 'passwordReset' });
  });
  return { accountId, password };
}

/** Locks an account, and ends its sessions at once. What it did stays under its name. */
export const lockAccount = (source: DataSource, accountId: string, byId: string): Promise<void> =>
  onAccount(source, accountId, byId, async (manager, account, all) => {
    refuseOwn(accountId, byId);
    if (account.lockedAt) return;
    refuseLastOwner(all, account);
    await manager.update(Accounts, { id: accountId }, { lockedAt: new Date() });
    await endAll(manager, { accountId, byId, kind: 'locked' });
  });

export const unlockAccount = (source: DataSource, accountId: string, byId: string): Promise<void> =>
  onAccount(source, accountId, byId, async (manager, account) => {
    if (!account.lockedAt) return;
    await manager.update(Accounts, { id: accountId }, { lockedAt: null });
    await noteEvent(manager, { accountId, byId, kind: 'unlocked', says: '' });
  });

/**
 * Somebody's own password, given the one they have; wherever else they are signed in they are not any more.
 * @throws `wrongCurrent`; `badFields` where the new one is the old one, or among those that are tried first
 */
export async function changeOwnPassword(
  source: DataSource,
  { userId, id: sessionId }: { readonly userId: string; readonly id: string },
  { current, next }: { readonly current: string; readonly next: string },
): Promise<void> {
  const known = await source.manager.findOneByOrFail(Accounts, { id: userId });
  if (!(await passwordMatches(known.passwordHash, current))) throw new HttpProblem('wrongCurrent');
  if (current === next) throw new HttpProblem('badFields', { fields: { next: 'That is the one you have.' } });
  if (await isCommon(next, [known.signInName, known.displayName]))
    throw new HttpProblem('badFields', {
      fields: { next: 'This is among the passwords that are tried first. Choose another; a few words do well.' },
    });
  const passwordHash = await hashPassword(next);
  await onAccount(source, userId, userId, async (manager, account) => {
    // Of two changes at once only the one that knew what stands goes through.
    if (account.passwordHash !== known.passwordHash) throw new HttpProblem('wrongCurrent');
    await manager.update(Accounts, { id: userId }, { passwordHash, isPasswordForOnce: false, isDemo: false });
    await manager.query('DELETE FROM session WHERE accountId = ? AND id <> ?', [userId, sessionId]);
    await noteEvent(manager, { accountId: userId, byId: userId, kind: 'passwordChanged', says: '' });
  });
}

const onAccount = (
  source: DataSource,
  accountId: string,
  byId: string,
  work: (manager: EntityManager, account: AccountRow, all: readonly AccountRow[]) => Promise<void>,
): Promise<void> =>
  inTransaction(source, async (manager) => {
    const accounts = await lockAccounts(manager);
    const actor = accounts.find(({ id }) => id === byId);
    if (!actor || actor.lockedAt) throw new HttpProblem('notAllowed');
    const account = accounts.find(({ id }) => id === accountId);
    if (!account) throw new HttpProblem('notFound', { message: 'There is no such account.' });
    await work(manager, account, accounts);
  });

function refuseOwn(accountId: string, byId: string): void {
  if (accountId === byId) throw new HttpProblem('ownAccount');
}

async function endAll(
  manager: EntityManager,
  { accountId, byId, kind }: { readonly accountId: string; readonly byId: string; readonly kind: AccountEventKind },
): Promise<void> {
  await manager.delete(Sessions, { accountId });
  await noteEvent(manager, { accountId, byId, kind, says: '' });
}
