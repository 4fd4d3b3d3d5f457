import { Agent } from 'node:http';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { DEMO_PASSWORD } from '../../server/dist/demo-password.js';
import { signIn } from '../lib/api-client.mjs';
import { startCluster } from '../lib/cluster.mjs';
import { startEmptyDatabase } from '../lib/database.mjs';
import { loadDemo } from '../lib/load-demo.mjs';
import { STATE } from '../lib/paths.mjs';
import { startServer } from '../lib/server.mjs';
import { opened, rate, sender } from './bench-entries.mjs';
import { takeOrder } from './fill.mjs';

const STANDS = 20;
const ENTRIES = 40;
const TOGETHER = 10;

/**
 * Entries a second that two servers accept from twenty stands, each server over a node of its own of three, and both over
 * one database; on one machine, so that the nodes share its processors.
 */
export async function entriesOfCluster() {
  const home = join(STATE, 'bench-cluster');
  rmSync(home, { recursive: true, force: true });
  const database = await startEmptyDatabase(join(STATE, 'bench-alone'));
  const alone = await entriesOver([database, database]).finally(() => database.stop());
  const cluster = await startCluster(home);
  const [one, two] = cluster.nodes;
  if (!one || !two) throw new Error('no nodes');
  const three = await entriesOver([one, two]).finally(() => cluster.stop());
  return {
    single: { alone: alone.single, cluster: three.single },
    together: { alone: alone.together, cluster: three.together },
  };
}

/** @param {readonly { databaseUrl: string, ownerUrl: string }[]} databases one for each server */
async function entriesOver(databases) {
  /** @type {import('../lib/server.mjs').Server[]} */
  const servers = [];
  const agent = new Agent({ keepAlive: true, maxSockets: STANDS });
  try {
    for (const [i, { databaseUrl, ownerUrl }] of databases.entries())
      servers.push(
        await startServer({
          databaseUrl,
          ownerUrl: i === 0 ? ownerUrl : null,
          cookieSecret: 'for benchmarks only',
          port: 18_900 + i,
        }),
      );
    const [first] = servers;
    if (!first) throw new Error('no server');
    await loadDemo(first.address, databases[0]?.databaseUrl ?? '');
    const office = await signIn(first.address, 'ines', DEMO_PASSWORD, 'bay 1');
    const { units } = await office.get(`/api/orders/${await takeOrder(office, 'T20', STANDS)}/line`);
    /** @type {import('./bench-entries.mjs').Stand[]} */
    const stands = [];
    for (const [i, { id, serial }] of units.entries()) {
      const { address } = servers[i % servers.length] ?? first;
      stands.push(await opened(office, id, serial, sender(address, office.cookie, agent)));
    }
    /** @param {number} count */
    const writes = (count) => stands.map((stand) => () => stand.write(count));
    await rate(writes(1), 5);
    const single = await rate(writes(1), ENTRIES);
    const together = await rate(writes(TOGETHER), ENTRIES);
    return { single: single.perSecond, together: together.perSecond * TOGETHER };
  } finally {
    agent.destroy();
    for (const server of servers) await server.stop();
  }
}
