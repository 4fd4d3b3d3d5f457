import { setTimeout as after } from 'node:timers/promises';
import { QueryFailedError, type DataSource, type EntityManager } from 'typeorm';
import type { Statement } from './statement.js';

const TRIES = 8;
const FIRST_WAIT_MS = 8;
/** The database chose this transaction to break a knot of locks: nothing of it was done, and it may be tried again. */
const BROKEN_KNOT = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);

/**
 * Runs `work` in a transaction that reads what is committed now, not what was when it began: what is read after a lock
 * was waited for is current. Where locks stood in its way it runs again, each time a little later.
 */
export const inTransaction = <T>(source: DataSource, work: (manager: EntityManager) => Promise<T>): Promise<T> =>
  untilUntied(() => source.transaction('READ COMMITTED', work));

type Rows = readonly Readonly<Record<string, unknown>>[];

/** What `work` of two trips comes to: what is still to be written, and what to do once that is committed. */
export interface Decided<T> {
  readonly result: T;
  readonly statements: readonly Statement[];
  readonly onceCommitted?: () => void;
}

/**
 * The same in two trips to the database: the transaction begins with what `first` reads and locks, and ends together with
 * what `work` gives back to be written. What `work` itself asks of its manager is part of it too.
 */
export const inTwoTrips = <T>(
  source: DataSource,
  first: Statement,
  work: (manager: EntityManager, rows: Rows) => Promise<Decided<T>>,
): Promise<T> => untilUntied(() => twoTrips(source, first, work));

/** The same, tried once: throws what stood in its way, and nothing was done then. */
export const inTwoTripsOnce = twoTrips;

const BEGIN = 'SET TRANSACTION ISOLATION LEVEL READ COMMITTED; START TRANSACTION';

async function twoTrips<T>(
  source: DataSource,
  [sql, values]: Statement,
  work: (manager: EntityManager, rows: Rows) => Promise<Decided<T>>,
): Promise<T> {
  const runner = source.createQueryRunner();
  try {
    const connection = (await runner.connect()) as Connection;
    const [rows] = (await ask(connection, `BEGIN NOT ATOMIC ${BEGIN}; ${sql}; END`, values)) as readonly [Rows];
    const { result, statements, onceCommitted } = await work(runner.manager, rows);
    const all = [...statements.map(([each]) => each), 'COMMIT'].join('; ');
    await ask(
      connection,
      `BEGIN NOT ATOMIC ${all}; END`,
      statements.flatMap(([, own]) => own),
    );
    onceCommitted?.();
    return result;
  } catch (error) {
    await runner.query('ROLLBACK').catch(() => undefined);
    throw error;
  } finally {
    await runner.release();
  }
}

/**
 * One question outside any transaction, by the driver's own pool: for what every request asks. Throws what the driver
 * throws.
 */
export const askPool = async <Row>({ driver }: DataSource, [sql, values]: Statement): Promise<readonly Row[]> =>
  (await ask((driver as unknown as { readonly pool: Connection }).pool, sql, values)) as readonly Row[];

interface Connection {
  readonly query: (
    sql: string,
    values: readonly unknown[],
    done: (error: Error | null, answer: unknown) => void,
  ) => void;
}

/** Several statements as one block, which the driver takes for one statement. */
const ask = (connection: Connection, sql: string, values: readonly unknown[]): Promise<unknown> =>
  new Promise((resolve, reject) =>
    connection.query(sql, values, (error, answer) => (error ? reject(error) : resolve(answer))),
  );

/** The database's own word for what went wrong; undefined where it was something else. */
export function codeOf(error: unknown): string | undefined {
  const own = error instanceof QueryFailedError ? error.driverError : error;
  return (own as { readonly code?: string } | null)?.code;
}

async function untilUntied<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work();
    } catch (error) {
      const code = codeOf(error);
      if (attempt === TRIES || code === undefined || !BROKEN_KNOT.has(code)) throw error;
      await after(FIRST_WAIT_MS * 2 ** attempt * (0.5 + Math.random()));
    }
  }
}
