import { spawnSync } from 'node:child_process';
import { ensureBuilt } from './lib/build.mjs';
import { commandLine } from './lib/command.mjs';
import { ROOT } from './lib/paths.mjs';
import { ensureModules, ensureNode, ensurePrograms } from './lib/prerequisites.mjs';
import { giveUp } from './lib/say.mjs';

const { options } = commandLine({
  name: 'faults',
  does: 'Breaks servers, database, disk, clocks and connections by random schedules while two stands work, and looks each time whether every entry that was acknowledged stands once in a ledger that holds. A run that finds something says by which seed it comes again.',
  options: {
    runs: { type: 'string', value: 'N', says: 'how many schedules, one after another (20)' },
    seed: { type: 'string', value: 'N', says: 'the first schedule; the next ones count up from it (1)' },
  },
});
const runs = number('runs', options['runs'] ?? '20', 100_000);
const seed = number('seed', options['seed'] ?? '1', 1_000_000_000);
ensureNode();
ensurePrograms(['mariadbd']);
ensureModules(ROOT);
ensureBuilt();
const { status } = spawnSync('npx', ['--no-install', 'vitest', 'run', '--project', 'faults'], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, DECURIO_FAULT_RUNS: String(runs), DECURIO_FAULT_SEED: String(seed) },
});
process.exit(status ?? 1);

/** @param {string} name @param {string} text @param {number} most */
function number(name, text, most) {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 1 || value > most)
    giveUp(`--${name} is a whole number from 1 to ${most}, not "${text}". Nothing was done.`);
  return value;
}
