import { isIPv6 } from 'node:net';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { inTransaction } from './transaction.js';

const WINDOW_S = 60;
/** Failed tries within a minute. Kept in the database, so that they count over all processes. */
export const TRIES = { perAccount: 10, perAddress: 30, overall: 200 } as const;

const ADD_SQL = 'INSERT INTO sign_in_try (name, address, at) VALUES (?, ?, UTC_TIMESTAMP(3))';
const COUNT_SQL = `SELECT
    (SELECT COUNT(*) FROM sign_in_try WHERE name = ? AND at > UTC_TIMESTAMP(3) - INTERVAL ${WINDOW_S} SECOND) AS ofAccount,
    (SELECT COUNT(*) FROM sign_in_try WHERE address = ? AND at > UTC_TIMESTAMP(3) - INTERVAL ${WINDOW_S} SECOND) AS ofAddress,
    (SELECT COUNT(*) FROM sign_in_try WHERE at > UTC_TIMESTAMP(3) - INTERVAL ${WINDOW_S} SECOND) AS overall`;
/** What another forgets at this moment is left to it. */
const OLD_SQL = `SELECT id FROM sign_in_try WHERE at < UTC_TIMESTAMP(3) - INTERVAL ${2 * WINDOW_S} SECOND LIMIT 1000
  FOR UPDATE SKIP LOCKED`;

/**
 * Runs one try to sign in, where the account, the address and the house as a whole have one left. It is written down
 * before the password is looked at, so that many at once do not slip through together, and struck out where it worked.
 * @param name plain form; null for names that nobody can have, which count as one
 */
export async function oneTry<T>(
  source: DataSource,
  { name, address }: { readonly name: string | null; readonly address: string },
  attempt: () => Promise<T | null>,
): Promise<T | null> {
  const key = [name ?? '', networkOf(address)] as const;
  const { insertId } = await inTransaction(source, (manager) =>
    manager.query<{ insertId: number | bigint }>(ADD_SQL, [...key]),
  );
  const strikeOut = () => inTransaction(source, (manager) => strike(manager, [insertId]));
  const [count] = await source.query<Record<'ofAccount' | 'ofAddress' | 'overall', string>[]>(COUNT_SQL, [...key]);
  if (
    Number(count?.ofAccount) > TRIES.perAccount ||
    Number(count?.ofAddress) > TRIES.perAddress ||
    Number(count?.overall) > TRIES.overall
  ) {
    await strikeOut();
    throw new HttpProblem('tooManyTries');
  }
  const found = await attempt().catch(async (error: unknown) => {
    await strikeOut();
    throw error;
  });
  if (found !== null) await strikeOut();
  await inTransaction(source, forgetOld);
  return found;
}

async function forgetOld(manager: EntityManager): Promise<void> {
  const old = await manager.query<{ id: number | bigint }[]>(OLD_SQL);
  if (old.length > 0)
    await strike(
      manager,
      old.map(({ id }) => id),
    );
}

const strike = (manager: EntityManager, ids: readonly (number | bigint)[]): Promise<unknown> =>
  manager.query('DELETE FROM sign_in_try WHERE id IN (?)', [ids]);

/** One house has one IPv4 address, or all of a /64 of IPv6. */
function networkOf(address: string): string {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1];
  if (mapped !== undefined) return mapped;
  if (!isIPv6(address)) return address.slice(0, 45);
  const [head = '', tail] = address.toLowerCase().split('%')[0]?.split('::') ?? [];
  const first = head === '' ? [] : head.split(':');
  const last = tail === undefined || tail === '' ? [] : tail.split(':');
  const groups =
    tail === undefined
      ? first
      : [...first, ...Array.from({ length: 8 - first.length - last.length }, () => '0'), ...last];
  return `${groups.slice(0, 4).join(':')}::/64`;
}
