import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Accounts, type AccountRow } from './entities.js';

/** All accounts, locked in one order: whether an owner is left is decided on what stands. */
export const lockAccounts = (manager: EntityManager): Promise<AccountRow[]> =>
  manager.find(Accounts, { order: { id: 'ASC' }, lock: { mode: 'pessimistic_write' } });

/** A house keeps one owner who can sign in. Throws `lastOwner` where this account is the last. */
export function refuseLastOwner(accounts: readonly AccountRow[], { id, role }: Pick<AccountRow, 'id' | 'role'>): void {
  if (role !== 'owner') return;
  const isLeft = accounts.some((each) => each.id !== id && each.role === 'owner' && each.lockedAt === null);
  if (!isLeft) throw new HttpProblem('lastOwner');
}
