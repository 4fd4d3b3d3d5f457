import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import { startDatabase, startEmptyDatabase, type Database } from '../../lib/database.mjs';
import { ROOT } from '../../lib/paths.mjs';
import { startServer, type Server } from '../../lib/server.mjs';
import type { MachineFault } from './schedule.js';
import { makeSmallDisk, type SmallDisk } from './small-disk.js';

/** A house of two servers over one database, of which anything may be broken and is mended again. */
export interface House {
  readonly databaseUrl: string;
  /** Addresses of both servers, whether they answer or not. */
  readonly addresses: readonly string[];
  /** Whether a disk can be filled here. */
  readonly hasSmallDisk: boolean;
  readonly breakBy: (fault: MachineFault, which: number) => void;
  /** Everything runs again, with room on the disk and clocks that agree. */
  readonly mend: () => Promise<void>;
  readonly close: () => Promise<void>;
}

const CLOCK_ADD_MS = 3 * 3_600_000;
const HANG_MS = 400;
const SECRET = 'for tests only';
const FIRST_PORT = 18_600;

export async function openHouse(home: string): Promise<House> {
  process.env['DECURIO_CLOCK_ADD_MS'] = String(CLOCK_ADD_MS);
  const disk: SmallDisk | null = makeSmallDisk(home);
  const data = join(home, 'database');
  let database: Database = await startEmptyDatabase(data);
  const { databaseUrl, ownerUrl } = database;
  const port = Number(new URL(databaseUrl).port);
  const start = (at: number, owner: string | null): Promise<Server> =>
    startServer({
      databaseUrl,
      ownerUrl: owner,
      cookieSecret: SECRET,
      port: at,
      logLevel: 'silent',
      preload: join(ROOT, 'scripts', 'testing', 'faults', 'shifted-clock.mjs'),
    });
  const first = await start(FIRST_PORT, ownerUrl);
  const servers: Server[] = [first, await start(Number(new URL(first.address).port) + 1, null)];
  const addresses = servers.map(({ address }) => address);
  /** What was killed, or ended by itself. */
  const gone = new Set<Server | Database>();
  const watch = (each: Server | Database): void => void each.ended.then(() => gone.add(each));
  for (const each of [...servers, database]) watch(each);
  const shifted = new Set<Server>();
  const kill = (each: Server | Database | undefined): void => {
    if (!each || gone.has(each)) return;
    gone.add(each);
    signal(each.pid, 'SIGKILL');
  };
  let hanging: Promise<void> = Promise.resolve();
  let mended: Promise<void> = Promise.resolve();

  async function mendAll(): Promise<void> {
    disk?.empty();
    await hanging;
    if (gone.has(database)) {
      await database.ended;
      database = await startDatabase(data, { port });
      watch(database);
    }
    for (const [i, server] of servers.entries()) {
      if (!gone.has(server)) continue;
      await server.ended;
      const again = await start(Number(new URL(server.address).port), null);
      if (again.address !== server.address) throw new Error(`${server.address} was taken by another program`);
      servers[i] = again;
      watch(again);
    }
    for (const server of shifted) if (!gone.has(server)) signal(server.pid, 'SIGUSR2');
    shifted.clear();
  }

  return {
    databaseUrl,
    addresses,
    hasSmallDisk: disk !== null,
    breakBy: (fault, which) => {
      const server = servers[which % servers.length];
      switch (fault) {
        case 'serverKilled':
          return kill(server);
        case 'databaseKilled':
          return kill(database);
        case 'bothKilled':
          kill(database);
          return kill(server);
        case 'diskFull':
          return disk?.fill();
        case 'serverClockJumps':
          if (!server || gone.has(server)) return;
          signal(server.pid, 'SIGUSR2');
          shifted.add(server);
          return;
        case 'databaseHangs':
          signal(database.pid, 'SIGSTOP');
          hanging = after(HANG_MS).then(() => signal(database.pid, 'SIGCONT'));
          return;
      }
    },
    mend: () => (mended = mended.then(mendAll)),
    close: async () => {
      await Promise.all(servers.map((server) => (gone.has(server) ? undefined : server.stop())));
      if (!gone.has(database)) await database.stop();
      disk?.remove();
    },
  };
}

/** What ended meanwhile needs no signal. */
function signal(pid: number, name: NodeJS.Signals): void {
  try {
    process.kill(pid, name);
  } catch {
    // It is gone.
  }
}
