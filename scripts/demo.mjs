import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { ensureBuilt } from './lib/build.mjs';
import { startDatabase } from './lib/database.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { ensureModules, ensureNode, ensurePrograms } from './lib/prerequisites.mjs';
import { giveUp, say } from './lib/say.mjs';
import { startServer } from './lib/server.mjs';

const HOME = join(STATE, 'demo');
const RUNNING = join(HOME, 'running.json');
const SECRET = join(HOME, 'cookie-secret');

ensureNode();
const ownDatabase = process.env['DATABASE_URL'];
if (!ownDatabase) ensurePrograms(['mariadbd']);
ensureModules(ROOT);
stopIfRunning();
if (process.argv.includes('--fresh')) await startOver();
ensureBuilt();

mkdirSync(HOME, { recursive: true });
const database = ownDatabase ? null : await startDatabase(HOME);
const databaseUrl = database?.databaseUrl ?? ownDatabase ?? '';
const ownerUrl = database?.ownerUrl ?? process.env['DATABASE_OWNER_URL'] ?? null;
if (!existsSync(SECRET)) writeFileSync(SECRET, randomBytes(32).toString('hex'), { mode: 0o600 });
let stopping = false;
const server = await startServer({ databaseUrl, ownerUrl, cookieSecret: readFileSync(SECRET, 'utf8') }).catch(async (error) => {
  await database?.stop();
  return giveUp(String(error));
});
writeFileSync(RUNNING, JSON.stringify({ pid: process.pid, address: server.address }));
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM', 'SIGHUP'])) process.on(signal, () => void stop(0));
void server.ended.then(() => stop(1, 'The server ended by itself. What was accepted is safe; start again.'));
void database?.ended.then(() => stop(1, 'The database ended by itself. What was accepted is safe; start again.'));

const { loadDemo } = await import('./lib/load-demo.mjs');
if (await loadDemo(server.address, databaseUrl)) say('The demo scenario is loaded: Saltmarsh Mobility, Port Isel.');
say(`Decurio is ready: ${server.address}\nCtrl-C stops it.`);

/** @param {number} code @param {string} [words] */
async function stop(code, words) {
  if (stopping) return;
  stopping = true;
  if (words) say(words);
  await server.stop();
  await database?.stop();
  rmSync(RUNNING, { force: true });
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
  const answer = await Promise.race([asker.question(words), new Promise((resolve) => asker.once('close', () => resolve('')))]);
  asker.close();
  if (answer !== 'delete') giveUp('\nNothing was deleted.');
  const leftover = await startDatabase(HOME);
  await leftover.stop();
  rmSync(HOME, { recursive: true, force: true });
}
