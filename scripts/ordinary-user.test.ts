import { spawnSync } from 'node:child_process';
import { chownSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { signIn } from './lib/api-client.mjs';
import { processesOf, startDemo, type Demo } from './testing/running-demo.js';

/** Whoever runs the suite, or an account made for it where that is root: an ordinary user's start is not root's. */
interface User {
  readonly uid: number;
  readonly gid: number;
  readonly remove: () => void;
}

const user = ordinaryUser();
// A blank and letters outside ASCII stand in many a checkout's path.
const state = mkdtempSync(join(tmpdir(), 'decurio übung '));
chownSync(state, user.uid, user.gid);
afterAll(() => {
  for (const pid of processesOf(state)) process.kill(pid, 'SIGKILL');
  rmSync(state, { recursive: true, force: true });
  user.remove();
});

function ordinaryUser(): User {
  const uid = process.getuid?.() ?? 0;
  if (uid !== 0) return { uid, gid: process.getgid?.() ?? uid, remove: () => undefined };
  const name = `decurio-test-${process.pid}`;
  const made = spawnSync(
    'useradd',
    ['--system', '--user-group', '--no-create-home', '--shell', '/usr/sbin/nologin', name],
    { encoding: 'utf8' },
  );
  if (made.status !== 0) throw new Error(`no account could be made: ${made.stderr}`);
  const [, , id, group] = (
    readFileSync('/etc/passwd', 'utf8')
      .split('\n')
      .find((line) => line.startsWith(`${name}:`)) ?? ''
  ).split(':');
  return { uid: Number(id), gid: Number(group), remove: () => void spawnSync('userdel', [name]) };
}

/** A checkout may lie where this account may not look; it may here, so that its start is tried wherever the suite runs. */
const asUser = (): readonly string[] =>
  process.getuid?.() === 0
    ? [
        '/usr/bin/setpriv',
        `--reuid=${user.uid}`,
        `--regid=${user.gid}`,
        '--clear-groups',
        '--inh-caps=+dac_read_search',
        '--ambient-caps=+dac_read_search',
        '--',
      ]
    : [];

const start = (name: string, env: NodeJS.ProcessEnv = {}): Promise<Demo> =>
  startDemo({ state: join(state, name), as: asUser(), env: { DATABASE_URL: '', ...env }, withHistory: true });

describe('an ordinary user', () => {
  it('starts the demo, signs in, and stops it again with nothing left running', async () => {
    const demo = await start('first');
    const teo = await signIn(demo.address, 'teo', DEMO_PASSWORD, 'bay 1');
    const { items } = (await teo.get('/api/orders')) as { items: { number: string }[] };
    expect(items.map(({ number }) => number)).toContain('2611');
    demo.child.kill('SIGINT');
    expect(await demo.ended).toBe(0);
    expect(processesOf(join(state, 'first'))).toEqual([]);
  });

  it('is told in a sentence when the database cannot come up, and nothing is left behind', async () => {
    const said = String(
      await start('second', { PATH: '/nowhere' }).catch((error: unknown) => (error as Error).message),
    );
    expect(said).toContain('the demo ended with 1: The database could not be made under');
    expect(said).not.toMatch(/\n\s+at /);
    expect(processesOf(join(state, 'second'))).toEqual([]);
    expect(readdirSync(join(state, 'second', 'demo'))).toEqual([]);
  });
});

it('a port range that is taken is said in a sentence', async () => {
  const { freePort } = await import('./lib/ports.mjs');
  const listening = createServer().listen(0, '127.0.0.1');
  await new Promise((resolve) => listening.once('listening', resolve));
  const { port } = listening.address() as { port: number };
  await expect(freePort(port, 1)).rejects.toThrow(`Every port from ${port} to ${port} on this machine is taken.`);
  listening.close();
});
