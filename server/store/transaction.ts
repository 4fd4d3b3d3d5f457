import { QueryFailedError, type DataSource, type EntityManager } from 'typeorm';

const TRIES = 4;
/** The database chose this transaction to break a knot of locks: nothing of it was done, and it may be tried again. */
const BROKEN_KNOT = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);

/** Runs `work` in a transaction, again where another transaction's locks stood in its way. */
export async function inTransaction<T>(source: DataSource, work: (manager: EntityManager) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await source.transaction(work);
    } catch (error) {
      const code = error instanceof QueryFailedError ? (error.driverError as { code?: string }).code : undefined;
      if (attempt === TRIES || code === undefined || !BROKEN_KNOT.has(code)) throw error;
    }
  }
}
