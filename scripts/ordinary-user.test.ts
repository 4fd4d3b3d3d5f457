import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chownSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { signIn } from './lib/api-client.mjs';
import { ROOT } from './lib/paths.mjs';

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
  for (const pid of processesOf()) process.kill(pid, 'SIGKILL');
  rmSync(state, { recursive: true, force: true });
  user.remove();
});

function ordinaryUser(): User {
  const uid = process.getuid?.() ?? 0;
  if (uid !== 0) return { uid, gid: process.getgid?.() ?? uid, remove: () => undefined };
  const name = `decurio-test-${process.pid}`;
  const made = spawnSync('useradd', ['--system', '--user-group', '--no-create-home', '--shell', '/usr/sbin/nologin', name], { encoding: 'utf8' });
  if (made.status !== 0) throw new Error(`no account could be made: ${made.stderr}`);
  const [, , id, group] = (readFileSync('/etc/passwd', 'utf8').split('\n').find((line) => line.startsWith(`${name}:`)) ?? '').split(':');
  return { uid: Number(id), gid: Number(group), remove: () => void spawnSync('userdel', [name]) };
}

/** A checkout may lie where this account may not look; it may here, so that its start is tried wherever the suite runs. */
const asUser = (): readonly string[] =>
  process.getuid?.() === 0 ? ['/usr/bin/setpriv', `--reuid=${user.uid}`, `--regid=${user.gid}`, '--clear-groups', '--inh-caps=+dac_read_search', '--ambient-caps=+dac_read_search', '--'] : [];

function startDemo(home: string, over: NodeJS.ProcessEnv = {}): { readonly child: ChildProcess; readonly said: () => string; readonly ended: Promise<number | null> } {
  const [command = process.execPath, ...rest] = [...asUser(), process.execPath, join(ROOT, 'scripts/demo.mjs')];
  const child = spawn(command, rest, { cwd: ROOT, env: { ...process.env, DECURIO_STATE: home, DATABASE_URL: '', ...over }, stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (said += chunk.toString()));
  return { child, said: () => said, ended: new Promise((resolve) => child.once('close', resolve)) };
}

function processesOf(): number[] {
  return readdirSync('/proc').filter((name) => /^\d+$/.test(name)).map(Number).filter((pid) => {
    try {
      return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(state);
    } catch {
      return false;
    }
  });
}

describe('an ordinary user', () => {
  it('starts the demo, signs in, and stops it again with nothing left running', async () => {
    const demo = startDemo(join(state, 'first'));
    await expect.poll(demo.said).toMatch(/is ready: \S+|problem|Error/);
    const address = /is ready: (\S+)/.exec(demo.said())?.[1];
    expect(address, demo.said()).toBeDefined();
    const teo = await signIn(address ?? '', 'teo', DEMO_PASSWORD, 'bay 1');
    expect((await teo.get('/api/orders') as { items: unknown[] }).items).toHaveLength(4);
    demo.child.kill('SIGINT');
    expect(await demo.ended).toBe(0);
    expect(processesOf()).toEqual([]);
  });

  it('is told in a sentence when the database cannot come up, and nothing is left behind', async () => {
    const home = join(state, 'second');
    const demo = startDemo(home, { PATH: '/nowhere' });
    expect(await demo.ended).toBe(1);
    expect(demo.said()).toContain('The database could not be made under');
    expect(demo.said()).not.toMatch(/\n\s+at /);
    expect(processesOf()).toEqual([]);
    expect(readdirSync(join(home, 'demo'))).toEqual([]);
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
