import { hash, verify } from '@node-rs/argon2';
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { Pace, Role } from '@decurio/core';
import type { SessionView } from '@decurio/contract';
import { LessThan, type DataSource } from 'typeorm';
import { Accounts, Sessions, type AccountRow } from './entities.js';

export const SESSION_HOURS = 14;

export interface NewAccount {
  readonly signInName: string;
  readonly displayName: string;
  readonly role: Role;
  readonly password: string;
  readonly isDemo: boolean;
}

/** Makes an account, or gives an existing one this name, role and password. */
export async function putAccount(source: DataSource, account: NewAccount): Promise<void> {
  const { password, ...rest } = account;
  const passwordHash = await hash(password);
  const existing = await source.manager.findOneBy(Accounts, { signInName: account.signInName });
  const row: AccountRow = { id: existing?.id ?? randomUUID(), createdAt: existing?.createdAt ?? new Date(), pace: existing?.pace ?? null, ...rest, passwordHash };
  await source.manager.save(Accounts, row);
}

export const demoAccounts = (source: DataSource): Promise<AccountRow[]> =>
  source.manager.find(Accounts, { where: { isDemo: true }, order: { createdAt: 'ASC' } });

/** A hash to verify against where the name is unknown, so that time tells nothing about names. */
const NOBODY = hash(randomBytes(16).toString('hex'));

/** The account these belong to, or null. */
export async function authenticate(source: DataSource, signInName: string, password: string): Promise<AccountRow | null> {
  const account = await source.manager.findOneBy(Accounts, { signInName });
  const matches = await verify(account?.passwordHash ?? (await NOBODY), password);
  return account && matches ? account : null;
}

/** @returns the token for the cookie; only its hash is kept */
export async function openSession(source: DataSource, account: AccountRow, station: string): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  const expiresAt = new Date(Date.now() + SESSION_HOURS * 3_600_000);
  await source.manager.delete(Sessions, { expiresAt: LessThan(new Date()) });
  await source.manager.insert(Sessions, { tokenHash: tokenHash(token), accountId: account.id, station, expiresAt });
  return token;
}

export async function closeSession(source: DataSource, token: string): Promise<void> {
  await source.manager.delete(Sessions, { tokenHash: tokenHash(token) });
}

export async function readSession(source: DataSource, token: string): Promise<SessionView | null> {
  const session = await source.manager.findOneBy(Sessions, { tokenHash: tokenHash(token) });
  if (!session || session.expiresAt < new Date()) return null;
  const account = await source.manager.findOneBy(Accounts, { id: session.accountId });
  return account && sessionView(account, session.station);
}

/** The pace that practice has learnt of this person, if any. */
export async function readPace(source: DataSource, accountId: string): Promise<Pace | null> {
  const account = await source.manager.findOneBy(Accounts, { id: accountId });
  return account === null || account.pace === null ? null : (JSON.parse(account.pace) as Pace);
}

export async function keepPace(source: DataSource, accountId: string, { tapMs, holdExtraMs, lookMs }: Pace): Promise<void> {
  await source.manager.update(Accounts, { id: accountId }, { pace: JSON.stringify({ tapMs, holdExtraMs, lookMs }) });
}

export const sessionView = (account: AccountRow, station: string): SessionView => ({
  userId: account.id,
  name: account.displayName,
  role: account.role,
  station,
});

const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex');
