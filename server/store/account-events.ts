import type { AccountEvent, AccountEventKind } from '@decurio/contract';
import { shortened } from '@decurio/core';
import type { DataSource, EntityManager } from 'typeorm';
import { inTransaction } from './transaction.js';

interface NewEvent {
  /** Whose account. */
  readonly accountId: string;
  /** Who did it to somebody else's; null where it was their own doing, or that of whoever has the database. */
  readonly byId: string | null;
  readonly kind: AccountEventKind;
  readonly says: string;
}

const MOST_SAID = 120;

/** Writes down what came of an account, in the transaction that brought it. Nobody can edit it. */
export const noteEvent = (manager: EntityManager, { accountId, byId, kind, says }: NewEvent): Promise<unknown> =>
  manager.query('INSERT INTO account_event (at, accountId, byId, kind, says) VALUES (UTC_TIMESTAMP(3), ?, ?, ?, ?)', [
    accountId,
    byId,
    kind,
    shortened(says, MOST_SAID),
  ]);

/** Somebody was refused at the door. Of a name that nobody has nothing is kept: it may be a password in the wrong field. */
export const noteRefusal = (source: DataSource, signInName: string | null, address: string): Promise<unknown> =>
  inTransaction(source, (manager) =>
    manager.query(
      "INSERT INTO account_event (at, accountId, byId, kind, says) SELECT UTC_TIMESTAMP(3), id, NULL, 'refused', ? FROM account WHERE signInName = ?",
      [shortened(`from ${address}`, MOST_SAID), signInName ?? ''],
    ),
  );

const MOST_SHOWN = 100;
const EVENTS_SQL = `SELECT e.n, e.at, e.kind, a.displayName AS name, IF(e.byId = e.accountId, NULL, b.displayName) AS \`by\`, e.says
  FROM account_event e JOIN account a ON a.id = e.accountId LEFT JOIN account b ON b.id = e.byId
  WHERE e.n < ? ORDER BY e.n DESC LIMIT ${MOST_SHOWN}`;

/** What came of accounts, the newest first. @param before only what is older than the one of this number */
export async function accountEvents(source: DataSource, before?: number): Promise<readonly AccountEvent[]> {
  const rows = await source.query<(Omit<AccountEvent, 'at' | 'n'> & { readonly at: Date; readonly n: string })[]>(
    EVENTS_SQL,
    [before ?? Number.MAX_SAFE_INTEGER],
  );
  return rows.map((row) => ({ ...row, n: Number(row.n), at: row.at.toISOString() }));
}
