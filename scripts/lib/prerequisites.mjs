import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { giveUp, say } from './say.mjs';

/** Debian packages by the program that each brings. */
const PROGRAMS = {
  mariadb: { package: 'mariadb-client', paths: ['/usr/bin/mariadb'] },
  'mariadb-dump': { package: 'mariadb-client', paths: ['/usr/bin/mariadb-dump'] },
  mariadbd: { package: 'mariadb-server', paths: ['/usr/sbin/mariadbd', '/usr/bin/mariadbd'] },
  rsync: { package: 'rsync', paths: ['/usr/bin/rsync'] },
  chromium: { package: 'chromium', paths: ['/usr/bin/chromium'] },
  chromedriver: { package: 'chromium-driver', paths: ['/usr/bin/chromedriver'] },
};

/** Installs Debian's packages for the programs that are missing, or says the one line that does and stops.
 * @param {(keyof typeof PROGRAMS)[]} needed */
export function ensurePrograms(needed) {
  const missing = needed.filter((name) => !PROGRAMS[name].paths.some(existsSync)).map((name) => PROGRAMS[name].package);
  if (missing.length === 0) return;
  const line = `apt-get update && apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  const prefix = process.getuid?.() === 0 ? [] : spawnSync('sudo', ['-n', 'true']).status === 0 ? ['sudo', '-n'] : null;
  if (prefix === null)
    giveUp(`Missing: ${missing.join(', ')}. Install with this line, then start again:\n  sudo sh -c '${line}'`);
  say(`Installing ${missing.join(', ')} ...`);
  const done = spawnSync([...prefix, 'sh', '-c', `'${line}'`].join(' '), {
    shell: true,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
  if (done.status !== 0) giveUp(`That did not work. Run it by hand, then start again:\n  ${line}`);
}

/** Runs npm ci when the lock file is not the one that was installed last.
 * @param {string} root */
export function ensureModules(root) {
  const stampFile = join(root, 'node_modules', '.decurio-lock');
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === lock) return;
  say('Installing the npm packages of the lock file ...');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  if (done.status !== 0) giveUp('npm ci did not work; see above.');
  mkdirSync(join(root, 'node_modules'), { recursive: true });
  writeFileSync(stampFile, lock);
}

/** Stops with a clear line on a Node that is too old. */
export function ensureNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    giveUp(`Node ${process.versions.node} is too old; Decurio needs 20.19 or later.`);
}
