import { randomUUID } from 'node:crypto';
import type { Pace, Role } from '@decurio/core';
import { lookOf, plainName } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { hashPassword, passwordMatches } from '../security/passwords.js';
import { noteEvent } from './account-events.js';
import { Accounts, Sessions, type AccountRow } from './entities.js';
import { keepPersonal } from './personal.js';
import { inTransaction } from './transaction.js';

export interface NewAccount {
  readonly signInName: string;
  readonly displayName: string;
  readonly role: Role;
  readonly password: string;
  readonly isDemo: boolean;
  /** It was given by somebody else, and is replaced at the first sign-in. */
  readonly isPasswordForOnce?: boolean;
  /** Who makes it; null for whoever has the database. */
  readonly byId?: string | null;
}

export type AccountKept = { readonly ok: true; readonly id: string } | { readonly ok: false; readonly says: string };

const BAD_NAME =
  'A sign-in name has Latin letters without marks, digits, point, hyphen or underscore, begins with a letter or digit, and is at most 40 long.';

/** Makes an account. Its name must be plain, free, and not to be taken for another's. */
export async function addAccount(source: DataSource, account: NewAccount): Promise<AccountKept> {
  const signInName = plainName(account.signInName);
  if (signInName === null) return { ok: false, says: BAD_NAME };
  const passwordHash = await hashPassword(account.password);
  return inTransaction(source, async (manager) => {
    const names = await manager.query<{ signInName: string }[]>('SELECT signInName FROM account FOR UPDATE');
    const look = lookOf(signInName);
    const twin = names.find((each) => lookOf(each.signInName) === look)?.signInName;
    if (twin === signInName) return { ok: false, says: `There is an account "${signInName}" already.` };
    if (twin !== undefined)
      return {
        ok: false,
        says: `"${signInName}" would be taken for "${twin}", who is here already. Choose another name.`,
      };
    const { displayName, role, isDemo, isPasswordForOnce = false, byId = null } = account;
    const id = randomUUID();
    await manager.insert(Accounts, {
      id,
      nameSha256: await keepPersonal(manager, 'worker', id, displayName),
      createdAt: new Date(),
      pace: null,
      signInName,
      displayName,
      role,
      isDemo,
      passwordHash,
      lockedAt: null,
      isPasswordForOnce,
    });
    await noteEvent(manager, { accountId: id, byId, kind: 'made', says: role });
    return { ok: true, id };
  });
}

/** Gives an account another shown name, role and password, and ends all of its sessions. */
export async function changeAccount(
  source: DataSource,
  account: Pick<NewAccount, 'signInName' | 'displayName' | 'role' | 'password'>,
): Promise<AccountKept> {
  const signInName = plainName(account.signInName);
  if (signInName === null) return { ok: false, says: BAD_NAME };
  const passwordHash = await hashPassword(account.password);
  return inTransaction(source, async (manager) => {
    const existing = await manager.findOne(Accounts, { where: { signInName }, lock: { mode: 'pessimistic_write' } });
    if (!existing) return { ok: false, says: `There is no account "${signInName}".` };
    const { displayName, role } = account;
    const nameSha256 =
      displayName === existing.displayName
        ? existing.nameSha256
        : await keepPersonal(manager, 'worker', existing.id, displayName);
    const { id } = existing;
    await manager.update(
      Accounts,
      { id },
      { displayName, nameSha256, role, passwordHash, lockedAt: null, isPasswordForOnce: false, isDemo: false },
    );
    await manager.delete(Sessions, { accountId: id });
    await noteEvent(manager, { accountId: id, byId: null, kind: 'passwordReset', says: 'by the account command' });
    if (role !== existing.role) await noteEvent(manager, { accountId: id, byId: null, kind: 'role', says: role });
    return { ok: true, id };
  });
}

export const demoAccounts = (source: DataSource): Promise<AccountRow[]> =>
  source.manager.find(Accounts, { where: { isDemo: true }, order: { createdAt: 'ASC', id: 'ASC' } });

/**
 * The account that a name and a password belong to, or null.
 * @param name in its plain form; null for one that nobody can have
 */
export async function authenticate(
  source: DataSource,
  name: string | null,
  password: string,
): Promise<AccountRow | null> {
  const account = name === null ? null : await source.manager.findOneBy(Accounts, { signInName: name });
  return (await passwordMatches(account?.passwordHash ?? null, password)) ? account : null;
}

/** The pace that practice has learnt of this person, if any. */
export async function readPace(source: DataSource, accountId: string): Promise<Pace | null> {
  const account = await source.manager.findOneBy(Accounts, { id: accountId });
  return account === null || account.pace === null ? null : (JSON.parse(account.pace) as Pace);
}

export async function keepPace(
  source: DataSource,
  accountId: string,
  { tapMs, holdExtraMs, lookMs }: Pace,
): Promise<void> {
  await source.manager.update(Accounts, { id: accountId }, { pace: JSON.stringify({ tapMs, holdExtraMs, lookMs }) });
}
