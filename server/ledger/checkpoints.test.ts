import { chmodSync, mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checkpointText, checkRecord, parseCheckpoint, signedNote, type VisitRecord } from '@decurio/core';
import type { CheckpointView } from '@decurio/contract';
import { checkCheckpoints, makeCheckpoint } from './checkpoints.js';
import { isSignedBy, readVerifierKey, signingKey, verifierKey, type SigningKey } from './signing-key.js';
import {
  asDatabaseOwner,
  Bench,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
let teo: Person;
let key: SigningKey;
const folder = mkdtempSync(join(tmpdir(), 'decurio-key-'));
const file = join(folder, 'new', 'checkpoint.key');
const units: string[] = [];

beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  const taken = await takeOrder(teo, orderFile(['S26-0001', 'S26-0002', 'S26-0003']));
  units.push(...taken.units.map(({ id }) => id));
  key = await signingKey(file);
});
afterAll(() => server.close());

async function seal(unitId: string): Promise<void> {
  const bench = await new Bench(teo, unitId).open();
  await bench.toSignOff();
  expect((await bench.sign('ready')).statusCode).toBe(201);
}
async function findings(against?: string, by: SigningKey | null = key): Promise<string[]> {
  const all: string[] = [];
  await checkCheckpoints(server.app.source.manager, (of, says) => all.push(`${of}: ${says}`), {
    against: against === undefined ? [] : [against],
    key: by,
  });
  return all;
}
const newest = async () => (await teo.get('/api/ledger/checkpoints')).json<readonly CheckpointView[]>()[0]!;
const noteOf = async (size: number) => (await teo.get(`/api/ledger/checkpoints/${size}`)).body;

describe('the key of a house', () => {
  it('is made once, for nobody else to read, and is the same at the next start', async () => {
    expect(statSync(file).mode & 0o777).toBe(0o600);
    expect((await signingKey(file)).name).toBe(key.name);
    const together = join(folder, 'together.key');
    const names = await Promise.all(Array.from({ length: 6 }, async () => (await signingKey(together)).name));
    expect(new Set(names).size).toBe(1);
    expect(key.name).toMatch(/^decurio-[0-9a-f]{12}$/);
  });

  it('is refused where others can read it, and where it is none', async () => {
    const open = join(folder, 'open.key');
    writeFileSync(open, readFileSync(file));
    chmodSync(open, 0o644);
    await expect(signingKey(open)).rejects.toThrow('mode 0600');
    const none = join(folder, 'none.key');
    writeFileSync(none, 'no key', { mode: 0o600 });
    await expect(signingKey(none)).rejects.toThrow();
  });
});

describe('a checkpoint', () => {
  it('is made where the ledger grew, once, whichever process makes it', async () => {
    expect(await makeCheckpoint(server.app.source, key)).toBe(false);
    await seal(units[0]!);
    const made = await Promise.all([makeCheckpoint(server.app.source, key), makeCheckpoint(server.app.source, key)]);
    expect(made.filter(Boolean)).toHaveLength(1);
    await seal(units[1]!);
    expect(await makeCheckpoint(server.app.source, key)).toBe(true);
    expect((await teo.get('/api/ledger/checkpoints')).json<readonly CheckpointView[]>()).toHaveLength(2);
    expect(await findings()).toEqual([]);
  });

  it('is a note that its key has signed, and no other', async () => {
    const checkpoint = parseCheckpoint(await noteOf((await newest()).size))!;
    expect(checkpoint.origin).toBe(key.name);
    const [signature] = checkpoint.signatures;
    expect(isSignedBy(key, checkpoint.text, signature!.keyAndSignature)).toBe(true);
    expect(isSignedBy(key, `${checkpoint.text} `, signature!.keyAndSignature)).toBe(false);
    const other = await signingKey(join(folder, 'other.key'));
    expect(isSignedBy(other, checkpoint.text, signature!.keyAndSignature)).toBe(false);
    expect((await teo.get('/api/ledger/checkpoints/999999')).statusCode).toBe(404);
    expect((await teo.get('/api/ledger/checkpoints/x')).statusCode).toBe(400);
  });

  it('is known by its key, given as a line, and signed by no other of the same name', async () => {
    const line = verifierKey(key);
    expect(readVerifierKey(line)?.name).toBe(key.name);
    for (const wrong of ['', 'x', line.slice(1), line.replace(/.$/, 'A'), `${line} more`])
      expect(readVerifierKey(wrong)).toBeNull();
    const other = await signingKey(join(folder, 'imposter.key'));
    expect((await findings(undefined, { ...other, name: key.name })).join(' ')).toContain('did not sign it');
    expect(await findings(undefined, other)).toEqual([]);
  });

  it('of another house says nothing of this one, and is told apart', async () => {
    const { size, root } = parseCheckpoint(await noteOf((await newest()).size))!;
    const other = await signingKey(join(folder, 'elsewhere.key'));
    const text = checkpointText({ origin: other.name, size, root });
    expect((await findings(signedNote(text, other.name, other.sign(text)))).join(' ')).toContain('of another house');
  });

  it('goes along with a record that was exported after it', async () => {
    const { visitId } = (await teo.get('/api/ledger')).json<{ items: { visitId: string }[] }>().items.at(-1)!;
    const record = (await teo.get(`/api/visits/${visitId}/record.json`)).json<VisitRecord>();
    expect(checkRecord(record)).toMatchObject({ ok: true, checkpoint: { origin: key.name } });
  });

  it.each(['', 'x', 'a\nb\nc\n\n', `${'a'.repeat(5_000)}\n1\nAAAA\n\n— a AAAA\n`, 'o\n-1\nAAAA\n\n— a AAAA\n'])(
    'is not read from %j',
    (note) => {
      expect(parseCheckpoint(note)).toBeNull();
    },
  );

  it('kept elsewhere, misses the last leaves where they were taken away, and names what was changed', async () => {
    const note = await noteOf((await newest()).size);
    expect(await findings(note)).toEqual([]);
    const rows = await asDatabaseOwner<{ n: number; hash: string }[]>(
      server,
      'SELECT n, hash FROM seal_head ORDER BY n',
    );
    const last = rows.at(-1)!;
    await asDatabaseOwner(server, 'UPDATE seal_head SET hash = ? WHERE n = ?', ['0'.repeat(64), rows[0]!.n]);
    expect((await findings(note)).join(' ')).toContain('something was changed or taken out');
    await asDatabaseOwner(server, 'UPDATE seal_head SET hash = ? WHERE n = ?', [rows[0]!.hash, rows[0]!.n]);
    expect(await findings(note)).toEqual([]);
    await asDatabaseOwner(server, 'DELETE FROM seal_head WHERE n = ?', [last.n]);
    await asDatabaseOwner(server, 'DELETE FROM checkpoint');
    expect(await findings()).toEqual([]);
    expect((await findings(note)).join(' ')).toContain('its last 1 are gone');
  });
});
