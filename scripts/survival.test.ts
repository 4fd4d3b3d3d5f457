import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import { afterAll, afterEach, describe, expect, it } from 'vitest';
import { verifyChain, type Evidence } from '@decurio/core';
import type { EntryTaken } from '@decurio/contract';
import { DEMO_PASSWORD } from '../server/demo-password.js';
import { signIn, type Client } from './lib/api-client.mjs';
import { ROOT } from './lib/paths.mjs';
import { processesOf, startDemo as startDemoIn, type Demo } from './testing/running-demo.js';

const state = mkdtempSync(join(tmpdir(), 'decurio-survival-'));
const running = new Set<ChildProcess>();
afterAll(() => {
  for (const child of running) child.kill('SIGKILL');
  for (const pid of processesOf(state)) process.kill(pid, 'SIGKILL');
  rmSync(state, { recursive: true, force: true });
});

afterEach(async () => {
  for (const child of running) child.kill('SIGINT');
  await gone();
  running.clear();
});

const startDemo = (): Promise<Demo> => startDemoIn({ state, onSpawn: (child) => running.add(child) });

const pidOf = (part: string): number => {
  const pid = processesOf(state).find((p) => readFileSync(`/proc/${p}/cmdline`, 'utf8').includes(part));
  if (pid === undefined) throw new Error(`no process ${part}`);
  return pid;
};

/** Looks seldom enough to leave the processor to what it waits for. */
async function until(isSo: () => boolean): Promise<void> {
  while (!isSo()) await after(20);
}

const gone = (): Promise<void> => until(() => processesOf(state).length === 0);

/** Writes entries one after another until the server is gone; gives those it accepted. */
async function writeUntilGone(
  person: Client,
  unitId: string,
  visitId: string,
  from: number,
  onFirst: () => void,
): Promise<Evidence[]> {
  const accepted: Evidence[] = [];
  for (let seq = from; ; seq++) {
    const entry = {
      id: randomUUID(),
      seq,
      kind: 'codeSeen',
      at: new Date().toISOString(),
      data: { label: 'L1.2', raw: (seq % 5) + 1 },
    };
    try {
      accepted.push(
        ((await person.post(`/api/units/${unitId}/visits/${visitId}/evidence`, entry)) as EntryTaken).entry,
      );
    } catch {
      return accepted;
    }
    if (accepted.length === 5) onFirst();
  }
}

describe('the demo', () => {
  let demo: Demo;

  it('loads its scenario anew where a start was broken off in the middle of it', async () => {
    const first = startDemo().catch((error: unknown) => String(error));
    await until(() => existsSync(join(state, 'demo', 'loading')));
    for (const child of running) child.kill('SIGINT');
    expect(await first).not.toContain('is loaded');
    await gone();

    demo = await startDemo();
    const person = await signIn(demo.address, 'teo', DEMO_PASSWORD, 'bay 1');
    expect(await person.get('/api/units?serial=S26-0413')).toMatchObject({ visitId: expect.any(String) });
    expect(existsSync(join(state, 'demo', 'loading'))).toBe(false);
  });

  it.each(['server/dist/main.js', '--datadir='])(
    'loses no accepted entry when %s is killed while writing',
    async (victim) => {
      demo = await startDemo();
      const person = await signIn(demo.address, 'teo', DEMO_PASSWORD, 'bay 1');
      const unit = (await person.get('/api/units?serial=S26-0413')) as { id: string; visitId: string };
      const bench = async (client: Client) =>
        ((await client.get(`/api/units/${unit.id}/bench`)) as { evidence: Evidence[] }).evidence;
      const before = await bench(person);
      const accepted = await writeUntilGone(person, unit.id, unit.visitId, before.length + 1, () =>
        process.kill(pidOf(victim), 'SIGKILL'),
      );
      expect(accepted.length).toBeGreaterThanOrEqual(5);
      expect(await demo.ended).toBe(1);
      await gone();

      demo = await startDemo();
      const again = await signIn(demo.address, 'teo', DEMO_PASSWORD, 'bay 1');
      const after = await bench(again);
      expect(after.slice(before.length, before.length + accepted.length).map((e) => e.hash)).toEqual(
        accepted.map((e) => e.hash),
      );
      expect(verifyChain(after).ok).toBe(true);
      demo.child.kill('SIGINT');
      expect(await demo.ended).toBe(0);
      await gone();
    },
  );

  it('cleans up after a start command that was killed itself', async () => {
    demo = await startDemo();
    demo.child.kill('SIGKILL');
    await demo.ended;
    const next = await startDemo();
    expect(processesOf(state)).toHaveLength(2);
    expect((await fetch(`${next.address}/api/health`)).ok).toBe(true);
    next.child.kill('SIGINT');
    expect(await next.ended).toBe(0);
    await gone();
    expect(existsSync(join(state, 'demo', 'running.json'))).toBe(false);
  });

  it('says where it runs already instead of starting twice', async () => {
    demo = await startDemo();
    const second = await startDemo().catch((error: unknown) => String(error));
    expect(second).toContain('the demo ended with 0');
    expect(second).toContain(demo.address);
    demo.child.kill('SIGINT');
    await demo.ended;
    await gone();
  });

  it('starts over only when told so in words', async () => {
    const child = spawn(process.execPath, [join(ROOT, 'scripts/demo.mjs'), '--fresh'], {
      cwd: ROOT,
      env: { ...process.env, DECURIO_STATE: state },
      stdio: ['pipe', 'ignore', 'pipe'],
    });
    child.stdin?.end('no\n');
    const code = await new Promise((resolve) => child.once('exit', resolve));
    expect(code).toBe(1);
    expect(existsSync(join(state, 'demo', 'secrets.json'))).toBe(true);
  });
});
