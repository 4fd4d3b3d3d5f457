import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Bench, fillLibrary, orderFile, signInAs, startTestServer, takeOrder } from '../server/testing/test-server.js';
import { ROOT } from './lib/paths.mjs';

const folder = mkdtempSync(join(tmpdir(), 'decurio-backup-'));
const file = join(folder, 'house.sql.gz');
const run = async (script: string, args: readonly string[], env: NodeJS.ProcessEnv) => {
  const child = spawn(process.execPath, [join(ROOT, 'scripts', script), ...args], { env: { ...process.env, ...env } });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (said += chunk.toString()));
  const [status] = (await once(child, 'close')) as [number | null];
  return { status, said };
};

let databaseUrl: string;
beforeAll(async () => {
  const server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  const teo = await signInAs(server, 'technician');
  const { units } = await takeOrder(teo, orderFile(['S26-0001', 'S26-0002']));
  const bench = await new Bench(teo, units[0]!.id).open();
  await bench.toSignOff();
  await bench.sign('ready ☑ 漢');
  databaseUrl = server.applicationUrl;
  // In use meanwhile: another unit is worked on while the backup is written.
  const [backup] = await Promise.all([
    run('backup.mjs', [file], { DATABASE_URL: databaseUrl }),
    (await new Bench(teo, units[1]!.id).open()).toSignOff(),
  ]);
  expect(backup, backup.said).toMatchObject({ status: 0 });
  await server.close();
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const restoreInto = (state: string, from = file) =>
  run('restore.mjs', [from], { DECURIO_STATE: state, DATABASE_URL: '' });

describe('a backup', () => {
  const state = join(folder, 'state');

  it('brings a house back, and holds its ledger against itself', async () => {
    const restored = await restoreInto(state);
    expect(restored.said).toMatch(/is back: \d visits with \d+ entries, all as it was sealed/);
    expect(restored.status).toBe(0);
  });

  it('overwrites no house that is there', async () => {
    expect(await restoreInto(state)).toMatchObject({ status: 1, said: expect.stringContaining('not empty') });
  });

  it('brings back one whose data folder was destroyed', async () => {
    rmSync(join(state, 'demo', 'data'), { recursive: true });
    expect((await restoreInto(state)).said).toContain('all as it was sealed');
  });

  it('that was altered is brought back, and what is not as it was sealed is named', async () => {
    const altered = join(folder, 'altered.sql.gz');
    const text = gunzipSync(readFileSync(file)).toString('utf8');
    const other = text.replace('\\"kind\\":\\"signedOff\\"', '\\"kind\\":\\"signedoff\\"');
    expect(other).not.toBe(text);
    writeFileSync(altered, gzipSync(other));
    const { status, said } = await restoreInto(join(folder, 'altered'), altered);
    expect(said).toMatch(/BROKEN {2}S26-0001/);
    expect(status).toBe(1);
  });

  it.each([
    ['cut short', () => readFileSync(file).subarray(0, 4000), 'no whole backup'],
    ['ended too early', () => gzipSync(gunzipSync(readFileSync(file)).subarray(0, 20_000)), 'cut short'],
    ['of something else', () => gzipSync('SELECT 1;\n-- Dump completed'), 'no backup of Decurio'],
    ['no such file at all', () => Buffer.from('hello'), 'no whole backup'],
  ])('%s is refused before anything is begun', async (name, bytes, says) => {
    const bad = join(folder, `${name}.sql.gz`);
    writeFileSync(bad, bytes());
    const never = join(folder, 'never');
    expect(await restoreInto(never, bad)).toMatchObject({ status: 1, said: expect.stringContaining(says) });
    expect(existsSync(join(never, 'demo', 'data'))).toBe(false);
  });

  it('overwrites no file, and leaves none where the database refuses', async () => {
    expect((await run('backup.mjs', [file], { DATABASE_URL: databaseUrl })).said).toContain('is there already');
    const none = join(folder, 'none.sql.gz');
    const wrong = databaseUrl.replace(/:[^:@]+@/, ':wrong@');
    expect(await run('backup.mjs', [none], { DATABASE_URL: wrong })).toMatchObject({ status: 1 });
    expect([existsSync(none), existsSync(`${none}.part`)]).toEqual([false, false]);
  });
});
