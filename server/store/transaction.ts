import { setTimeout as after } from 'node:timers/promises';
import { QueryFailedError, type DataSource, type EntityManager } from 'typeorm';

const TRIES = 8;
const FIRST_WAIT_MS = 8;
/** The database chose this transaction to break a knot of locks: nothing of it was done, and it may be tried again. */
const BROKEN_KNOT = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);

/**
 * Runs `work` in a transaction that reads what is committed now, not what was when it began: what is read after a lock
 * was waited for is current. Where locks stood in its way it runs again, each time a little later.
 */
export async function inTransaction<T>(source: DataSource, work: (manager: EntityManager) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await source.transaction('READ COMMITTED', work);
    } catch (error) {
      const code = error instanceof QueryFailedError ? (error.driverError as { code?: string }).code : undefined;
      if (attempt === TRIES || code === undefined || !BROKEN_KNOT.has(code)) throw error;
      await after(FIRST_WAIT_MS * 2 ** attempt * (0.5 + Math.random()));
    }
  }
}
