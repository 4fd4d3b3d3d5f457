import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { ENTITIES } from './entities.js';
import { Ground1764000000000 } from './migrations/1764000000000-ground.js';
import { Displays1764100000000 } from './migrations/1764100000000-displays.js';
import { Setups1764200000000 } from './migrations/1764200000000-setups.js';
import { Bench1764300000000 } from './migrations/1764300000000-bench.js';
import { WheelRuns1764400000000 } from './migrations/1764400000000-wheel-runs.js';
import { Doors1764500000000 } from './migrations/1764500000000-doors.js';
import { OutOfFamily1764600000000 } from './migrations/1764600000000-out-of-family.js';
import { House1764700000000 } from './migrations/1764700000000-house.js';
import { PartNumbers1764900000000 } from './migrations/1764900000000-part-numbers.js';
import { Hands1765000000000 } from './migrations/1765000000000-hands.js';
import { LeftOut1765100000000 } from './migrations/1765100000000-left-out.js';
import { Proving1765200000000 } from './migrations/1765200000000-proving.js';
import { Overshoots1765300000000 } from './migrations/1765300000000-overshoots.js';
import { SecondMapForm1765400000000 } from './migrations/1765400000000-second-map-form.js';
import { Personal1765500000000 } from './migrations/1765500000000-personal.js';
import { StoredAndSpare1765600000000 } from './migrations/1765600000000-stored-and-spare.js';
import { Trials1765700000000 } from './migrations/1765700000000-trials.js';
import { Moved1766000000000 } from './migrations/1766000000000-moved.js';
import { Elsewhere1766100000000 } from './migrations/1766100000000-elsewhere.js';
import { Plan1766200000000 } from './migrations/1766200000000-plan.js';
import { Accounts1766300000000 } from './migrations/1766300000000-accounts.js';
import { Machines1766400000000 } from './migrations/1766400000000-machines.js';
import { Checkpoints1765900000000 } from './migrations/1765900000000-checkpoints.js';
import { Left1765800000000 } from './migrations/1765800000000-left.js';
import { ClassAsks1764800000000 } from './migrations/1764800000000-class-asks.js';

/** No statement of ours takes as long; what does is ended by the database itself. */
const STATEMENT_S = 30;
const LOCK_WAIT_S = 10;

interface BareConnection {
  readonly query: (sql: string, done: (error: Error | null) => void) => void;
  readonly destroy: () => void;
}

/** A pool whose statements end by themselves, for the server: walks over a whole ledger and migrations have none of that. */
export async function openBounded(url: string): Promise<DataSource> {
  const source = await makeDataSource(url).initialize();
  const { pool } = source.driver as unknown as {
    readonly pool: { readonly on: (event: 'connection', listener: (connection: BareConnection) => void) => void };
  };
  pool.on('connection', (connection) => {
    // Where even this does not go through, the connection is of no use to anybody.
    connection.query(
      `SET SESSION max_statement_time = ${STATEMENT_S}, innodb_lock_wait_timeout = ${LOCK_WAIT_S}`,
      (error) => {
        if (error) connection.destroy();
      },
    );
    // In a cluster, what another node took is there before anything is read or a transaction begins. Others know no such word.
    connection.query('SET SESSION wsrep_sync_wait = 1', () => undefined);
  });
  return source;
}

/** A pool on the database at `url`; `initialize()` it before use, `destroy()` it after. */
export function makeDataSource(url: string, poolSize = 10): DataSource {
  return new DataSource({
    type: 'mariadb',
    url,
    entities: ENTITIES,
    migrations: [
      Ground1764000000000,
      Displays1764100000000,
      Setups1764200000000,
      Bench1764300000000,
      WheelRuns1764400000000,
      Doors1764500000000,
      OutOfFamily1764600000000,
      House1764700000000,
      ClassAsks1764800000000,
      PartNumbers1764900000000,
      Hands1765000000000,
      LeftOut1765100000000,
      Proving1765200000000,
      Overshoots1765300000000,
      SecondMapForm1765400000000,
      Personal1765500000000,
      StoredAndSpare1765600000000,
      Trials1765700000000,
      Left1765800000000,
      Checkpoints1765900000000,
      Moved1766000000000,
      Elsewhere1766100000000,
      Plan1766200000000,
      Accounts1766300000000,
      Machines1766400000000,
    ],
    migrationsTableName: 'migration',
    synchronize: false,
    timezone: 'Z',
    charset: 'utf8mb4',
    poolSize,
    extra: { connectTimeout: 5000, queueLimit: 500 },
  });
}
