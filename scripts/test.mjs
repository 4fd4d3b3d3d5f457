import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { isAbsolute, join } from 'node:path';
import { commandLine } from './lib/command.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { ensureModules, ensureNode, ensurePrograms } from './lib/prerequisites.mjs';
import { say } from './lib/say.mjs';

commandLine({
  name: 'test',
  does: 'Checks types, format and lint, and runs every test: of the core, of the server against a database of its own, and of the interface in a browser.',
});
ensureNode();
ensurePrograms(['mariadbd', 'rsync', 'chromium', 'chromedriver']);
ensureModules(ROOT);

let passed = 0;
let failed = 0;

await checks({
  'Type check': ['tsc', '-b'],
  Format: ['prettier', '--check', '.'],
});
say('\n== Unit');
const building = build();
count(await suite('unit'));
await building;
say('\n== Server against MariaDB');
// Processes that are killed and started again are mostly waited for.
const breaking = suite('faults', 'pipe');
count(await suite('server'));
say('\n== Faults');
count(await breaking);
// The browsers leave a third of the processors: reading the code takes it.
const linting = checks({ Lint: ['eslint', '.', '--max-warnings', '0'] });
say('\n== Browser');
count(await suite('browser'));
await linting;

say(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);

/** Checks that are one test each, side by side; what one says is printed in one piece.
 * @param {Record<string, string[]>} commands */
async function checks(commands) {
  await Promise.all(
    Object.entries(commands).map(async ([title, command]) => {
      const { status, output } = await run(command);
      say(`\n== ${title}\n${output}`);
      if (status === 0) passed++;
      else failed++;
    }),
  );
}

/** A project of tests; a run that ends badly without a failed test counts as one.
 * @param {string} project @param {'pipe' | 'inherit'} [out] what it says is printed at its end, or as it comes */
async function suite(project, out = 'inherit') {
  const report = join(STATE, `${project}.json`);
  mkdirSync(STATE, { recursive: true });
  rmSync(report, { force: true });
  const { status, output } = await run(
    ['vitest', 'run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${report}`],
    out,
  );
  if (output !== '') say(output);
  const counts = readReport(report);
  return { ...counts, failed: counts.failed > 0 || status === 0 ? counts.failed : 1 };
}

/** The app as it is served to the browser, made while the database is waited for; what it says only where it fails. */
async function build() {
  const { status, output } = await run([process.execPath, join(ROOT, 'scripts/build.mjs')]);
  if (status === 0) return;
  say(`\n== Build\n${output}`);
  process.exit(1);
}

/** @param {{ passed: number, failed: number }} counts */
function count(counts) {
  passed += counts.passed;
  failed += counts.failed;
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

/** A command of the installed packages, or a program by its whole path; what it says is kept or passed on.
 * @param {string[]} command @param {'pipe' | 'inherit'} [out] @returns {Promise<{ status: number, output: string }>} */
function run(command, out = 'pipe') {
  const [program = '', ...args] = isAbsolute(command[0] ?? '') ? command : ['npx', '--no-install', ...command];
  const child = spawn(program, args, { cwd: ROOT, stdio: ['ignore', out, out] });
  let output = '';
  const hear = (/** @type {Buffer} */ chunk) => (output += chunk.toString());
  child.stdout?.on('data', hear);
  child.stderr?.on('data', hear);
  return new Promise((resolve) =>
    child.once('close', (status) => resolve({ status: status ?? 1, output: output.trimEnd() })),
  );
}
