import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { extname, join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { ROOT } from './paths.mjs';
import { giveUp, say } from './say.mjs';

const SOURCES = ['core', 'contract', 'server', 'web', 'package-lock.json', 'tsconfig.base.json'];
const SKIPPED = new Set(['node_modules', 'dist']);
const COMPRESSED = new Set(['.js', '.css', '.html', '.svg', '.json']);
/** Beside what was built: several states of one checkout share the build. */
const STAMP = join(ROOT, 'web', 'dist', 'built');

/** Builds core, contract, server and web where a source changed since the last build. */
export function ensureBuilt() {
  const state = sourceState();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === state) return;
  say('Building ...');
  run('npx', ['--no-install', 'tsc', '-b', 'server']);
  run('npx', ['--no-install', 'vite', 'build', 'web', '--logLevel', 'warn']);
  compress(join(ROOT, 'web', 'dist', 'app'));
  mkdirSync(join(ROOT, 'web', 'dist'), { recursive: true });
  writeFileSync(STAMP, state);
}

/** Names, sizes and times of all sources: a cheap answer to "is the build current?". */
function sourceState() {
  const hash = createHash('sha256');
  for (const path of SOURCES.flatMap((name) => walk(join(ROOT, name)))) {
    const { size, mtimeMs } = statSync(path);
    hash.update(`${path} ${size} ${mtimeMs}\n`);
  }
  return hash.digest('hex');
}

/** @param {string} path
 * @returns {string[]} */
function walk(path) {
  if (statSync(path).isFile()) return path.endsWith('.tsbuildinfo') ? [] : [path];
  return readdirSync(path)
    .sort()
    .filter((name) => !SKIPPED.has(name))
    .flatMap((name) => walk(join(path, name)));
}

/** Writes a .gz and a .br beside every text file, so that the server compresses nothing while it serves.
 * @param {string} folder */
function compress(folder) {
  for (const path of walk(folder)) {
    if (!COMPRESSED.has(extname(path))) continue;
    const bytes = readFileSync(path);
    writeFileSync(`${path}.gz`, gzipSync(bytes, { level: 9 }));
    writeFileSync(`${path}.br`, brotliCompressSync(bytes));
  }
}

/** @param {string} command @param {string[]} args */
function run(command, args) {
  const done = spawnSync(command, args, {
    cwd: ROOT,
    env: { ...process.env, NODE_ENV: 'production' },
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  if (done.status !== 0) giveUp(`${command} ${args.join(' ')} did not work; see above.`);
}
