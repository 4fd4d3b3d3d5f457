import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { commandLine } from './lib/command.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { ensureModules, ensureNode, ensurePrograms } from './lib/prerequisites.mjs';
import { say, starting } from './lib/say.mjs';

const HOME = join(STATE, 'cluster');
const FIRST_PORT = 8080;
const SERVERS_FROM = 8180;

commandLine({
  name: 'cluster',
  does: "Starts three nodes of MariaDB's own cluster on this machine, two servers over two of them, and one address before both, with the demo scenario. Ctrl-C stops it; the next start goes on where it was.",
});
ensureNode();
ensurePrograms(['mariadbd', 'mariadb', 'rsync']);
ensureModules(ROOT);
const { startCluster } = await import('./lib/cluster.mjs');
const { startFront } = await import('./lib/front.mjs');
const { loadDemo } = await import('./lib/load-demo.mjs');
const { startServer } = await import('./lib/server.mjs');
ensureBuilt();

/** What runs, the newest first. @type {{ stop: () => Promise<void> }[]} */
const running = [];
let isStopping = false;
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP'])) process.on(signal, () => void stop());
const told = await starting(start, stopAll);
if (!isStopping) say(told);

/** @returns {Promise<string>} */
async function start() {
  mkdirSync(HOME, { recursive: true });
  const cluster = await startCluster(HOME);
  running.unshift(cluster);
  const secretFile = join(HOME, 'cookie-secret');
  if (!existsSync(secretFile)) writeFileSync(secretFile, randomBytes(32).toString('hex'), { mode: 0o600 });
  const cookieSecret = readFileSync(secretFile, 'utf8');
  const servers = [];
  for (const [i, node] of cluster.nodes.slice(0, 2).entries()) {
    const { databaseUrl } = node;
    const ownerUrl = i === 0 ? node.ownerUrl : null;
    const server = await startServer({ databaseUrl, ownerUrl, cookieSecret, port: SERVERS_FROM + i });
    running.unshift(server);
    servers.push(server);
  }
  const [first] = servers;
  const front = await startFront(
    servers.map(({ address }) => address),
    FIRST_PORT,
  );
  running.unshift(front);
  if (await loadDemo(first?.address ?? '', cluster.nodes[0]?.databaseUrl ?? ''))
    say('The demo scenario is loaded: Saltmarsh Mobility, Port Isel.');
  return [
    `Decurio is ready: ${front.address}`,
    ...servers.map(({ address, pid }, i) => `  server ${i + 1} (process ${pid}): ${address}, over node ${i + 1}`),
    ...cluster.nodes.map(({ pid }, i) => `  node ${i + 1}: process ${pid}`),
    'Kill a node with kill -9 and go on working; the next start brings it back. Ctrl-C stops all.',
  ].join('\n');
}

async function stopAll() {
  isStopping = true;
  for (const each of running.splice(0)) await each.stop();
}

async function stop() {
  if (isStopping) return;
  await stopAll();
  process.exit(0);
}
