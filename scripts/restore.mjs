import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { commandLine } from './lib/command.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { ensureModules, ensureNode, ensurePrograms } from './lib/prerequisites.mjs';
import { giveUp, say, starting } from './lib/say.mjs';

const {
  words: [file = ''],
} = commandLine({
  name: 'restore',
  does: "Brings a backup into an empty database and holds its ledger against itself: into the database of DATABASE_OWNER_URL and DATABASE_URL, else into the demo's own, made anew where its folder is gone. Ends with 1 where the restored ledger is not as it was sealed.",
  takes: ['FILE'],
  settings: ['DATABASE_URL', 'DATABASE_OWNER_URL'],
});
ensureNode();
ensurePrograms(process.env['DATABASE_URL'] ? ['mariadb'] : ['mariadb', 'mariadbd']);
ensureModules(ROOT);
ensureBuilt();
const { checkBackup } = await import('./lib/backup-file.mjs');
const { restore } = await import('./lib/restore.mjs');
const { startDatabase } = await import('./lib/database.mjs');

/** @type {{ stop: () => Promise<void> }[]} */
const running = [];
const stopAll = async () => {
  for (const each of running) await each.stop();
};
const { madeAt, checked } = await starting(async () => {
  const made = await checkBackup(file);
  const urls = await databaseUrls();
  return { ...made, checked: await restore(file, urls, ({ of, says }) => say(`BROKEN  ${of}: ${says}`)) };
}, stopAll);
await stopAll();
say(
  `The house of ${madeAt} is back: ${checked.visits} visits with ${checked.entries} entries, ${checked.findings === 0 ? 'all as it was sealed.' : `${checked.findings} findings.`}`,
);
process.exit(checked.findings === 0 ? 0 : 1);

async function databaseUrls() {
  const { DATABASE_URL: databaseUrl, DATABASE_OWNER_URL: ownerUrl } = process.env;
  if (databaseUrl) return { databaseUrl, ownerUrl: ownerUrl ?? databaseUrl };
  const home = join(STATE, 'demo');
  if (existsSync(join(home, 'running.json'))) giveUp('The demo runs. Stop it first.');
  const database = await startDatabase(home);
  running.push(database);
  return database;
}
