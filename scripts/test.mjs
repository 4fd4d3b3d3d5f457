import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { ensureModules, ensureNode, ensurePrograms } from './lib/prerequisites.mjs';
import { say } from './lib/say.mjs';

ensureNode();
ensurePrograms(['mariadbd', 'chromium', 'chromedriver']);
ensureModules(ROOT);

let passed = 0;
let failed = 0;

await checks({
  'Type check': ['tsc', '-b'],
  Lint: ['eslint', '.', '--max-warnings', '0'],
  Format: ['prettier', '--check', '.'],
});
suite('Unit', 'unit');
suite('Server against MariaDB', 'server');
say('\n== Build');
ensureBuilt();
suite('Browser', 'browser');

say(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);

/** Checks that are one test each, side by side; what one says is printed in one piece.
 * @param {Record<string, string[]>} commands */
async function checks(commands) {
  await Promise.all(
    Object.entries(commands).map(async ([title, command]) => {
      const { status, output } = await runQuietly(command);
      say(`\n== ${title}\n${output}`);
      if (status === 0) passed++;
      else failed++;
    }),
  );
}

/** A project of tests; a run that ends badly without a failed test counts as one.
 * @param {string} title @param {string} project */
function suite(title, project) {
  say(`\n== ${title}`);
  const report = join(STATE, `${project}.json`);
  mkdirSync(STATE, { recursive: true });
  rmSync(report, { force: true });
  const status = run([
    'vitest',
    'run',
    '--project',
    project,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
  ]);
  const counts = readReport(report);
  passed += counts.passed;
  failed += counts.failed > 0 || status === 0 ? counts.failed : 1;
}

/** @param {string} path */
function readReport(path) {
  try {
    const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(path, 'utf8'));
    return {
      passed: Number(numPassedTests),
      failed: Math.max(Number(numFailedTests), Math.min(1, Number(numFailedTestSuites))),
    };
  } catch {
    return { passed: 0, failed: 1 };
  }
}

/** @param {string[]} command */
function run(command) {
  return (
    spawnSync('npx', ['--no-install', ...command], { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] }).status ?? 1
  );
}

/** @param {string[]} command @returns {Promise<{ status: number, output: string }>} */
function runQuietly(command) {
  const child = spawn('npx', ['--no-install', ...command], { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
  let output = '';
  const hear = (/** @type {Buffer} */ chunk) => (output += chunk.toString());
  child.stdout.on('data', hear);
  child.stderr.on('data', hear);
  return new Promise((resolve) =>
    child.once('close', (status) => resolve({ status: status ?? 1, output: output.trimEnd() })),
  );
}
