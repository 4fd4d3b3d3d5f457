import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { ensureBuilt } from './lib/build.mjs';
import { commandLine } from './lib/command.mjs';
import { ROOT, STATE, TO_DROP } from './lib/paths.mjs';
import { ensureModules, ensureNode, ensurePrograms } from './lib/prerequisites.mjs';
import { giveUp, say, starting } from './lib/say.mjs';

const HOME = join(STATE, 'demo');
const RUNNING = join(HOME, 'running.json');
const SECRET = join(HOME, 'cookie-secret');
/** Stands as long as the scenario is being loaded. */
const LOADING = join(HOME, 'loading');

const { options } = commandLine({
  name: 'demo',
  does: 'Starts Decurio with a database of its own and the demo scenario, or with the database in DATABASE_URL. Ctrl-C stops it; the next start goes on where it was.',
  options: {
    'without-history': {
      type: 'boolean',
      says: 'where it is loaded: leaves out the deliveries of two months before today, and is there sooner',
    },
    fresh: { type: 'boolean', says: 'deletes what the demo of this checkout holds, and loads it anew; asks first' },
  },
  settings: ['DATABASE_URL', 'DATABASE_OWNER_URL'],
});
ensureNode();
const ownDatabase = process.env['DATABASE_URL'];
if (!ownDatabase) ensurePrograms(['mariadbd']);
ensureModules(ROOT);
const { startDatabase } = await import('./lib/database.mjs');
const { startServer } = await import('./lib/server.mjs');
const { writeOrderFiles } = await import('./lib/demo-files.mjs');
stopIfRunning();
if (options['fresh']) await startOver();
if (!ownDatabase && existsSync(LOADING)) await dropHalfLoaded();
ensureBuilt();

/** What runs, the newest first. @type {{ stop: () => Promise<void> }[]} */
const running = [];
let stopping = false;
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP'])) process.on(signal, () => void stop(0));
const address = await starting(start, stopAll);
if (!stopping) say(`Decurio is ready: ${address}\nCtrl-C stops it.`);

/** @returns {Promise<string>} the address */
async function start() {
  const { databaseUrl, ownerUrl } = ownDatabase
    ? { databaseUrl: ownDatabase, ownerUrl: process.env['DATABASE_OWNER_URL'] ?? null }
    : await privateDatabase();
  mkdirSync(HOME, { recursive: true });
  if (!existsSync(SECRET)) writeFileSync(SECRET, randomBytes(32).toString('hex'), { mode: 0o600 });
  const server = await startServer({ databaseUrl, ownerUrl, cookieSecret: readFileSync(SECRET, 'utf8') });
  running.unshift(server);
  void server.ended.then(() => stop(1, 'The server ended by itself. What was accepted is safe; start again.'));
  writeFileSync(RUNNING, JSON.stringify({ pid: process.pid, address: server.address, databaseUrl }), { mode: 0o600 });
  const { loadDemo } = await import('./lib/load-demo.mjs');
  const { loadHistory } = await import('./lib/demo-history.mjs');
  const { loadDay } = await import('./lib/demo-day.mjs');
  const isLoaded = await loadDemo(server.address, databaseUrl, () => writeFileSync(LOADING, ''));
  if (isLoaded && !options['without-history']) await loadHistory(server.address, databaseUrl);
  if (isLoaded) await loadDay(server.address);
  rmSync(LOADING, { force: true });
  if (isLoaded) say('The demo scenario is loaded: Saltmarsh Mobility, Port Isel.');
  say(`Order files to drop, their days counted from today: ${writeOrderFiles(TO_DROP)}`);
  return server.address;
}

async function privateDatabase() {
  const database = await startDatabase(HOME);
  running.unshift(database);
  void database.ended.then(() => stop(1, 'The database ended by itself. What was accepted is safe; start again.'));
  return database;
}

async function stopAll() {
  stopping = true;
  for (const each of running) await each.stop();
  rmSync(RUNNING, { force: true });
}

/** @param {number} code @param {string} [words] */
async function stop(code, words) {
  if (stopping) return;
  if (words) say(words);
  await stopAll();
  process.exit(code);
}

function stopIfRunning() {
  if (!existsSync(RUNNING)) return;
  const { pid, address } = JSON.parse(readFileSync(RUNNING, 'utf8'));
  const command = existsSync(`/proc/${pid}/cmdline`) ? readFileSync(`/proc/${pid}/cmdline`, 'utf8') : '';
  if (pid !== process.pid && command.includes('demo.mjs')) {
    say(`Decurio runs from this checkout already: ${address}`);
    process.exit(0);
  }
}

async function startOver() {
  if (ownDatabase) giveUp('--fresh works on the private database alone; empty your own database yourself.');
  if (!existsSync(HOME)) return;
  const words = 'This deletes every order, visit and seal of the demo in this checkout. Type "delete" to go on: ';
  const asker = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await Promise.race([
    asker.question(words),
    new Promise((resolve) => asker.once('close', () => resolve(''))),
  ]);
  asker.close();
  if (answer !== 'delete') giveUp('\nNothing was deleted.');
  await dropHome();
}

/** A demo whose loading was broken off lacks units and visits; nobody was told its address yet. */
async function dropHalfLoaded() {
  say('The last start ended while the demo scenario was being loaded. It is loaded anew.');
  await dropHome();
}

/** A database that still runs is stopped first. */
async function dropHome() {
  await starting(async () => (await startDatabase(HOME)).stop());
  rmSync(HOME, { recursive: true, force: true });
}
