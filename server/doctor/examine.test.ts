import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Config } from '../config.js';
import { freshDatabase, signInAs, startTestServer, testConfig, type TestServer } from '../testing/test-server.js';
import { examine, type Finding, type Settings } from './examine.js';

let server: TestServer;
const folder = mkdtempSync(join(tmpdir(), 'doctor-'));
const keyFile = join(folder, 'checkpoint.key');
beforeAll(async () => {
  server = await startTestServer();
  await signInAs(server, 'owner');
  writeFileSync(keyFile, 'a key', { mode: 0o600 });
});
afterAll(async () => {
  await server.close();
  rmSync(folder, { recursive: true });
});

const LONG = 'x'.repeat(40);
const settings = (over: Partial<Config> = {}, more: Partial<Settings> = {}): Settings => ({
  config: testConfig(server.applicationUrl, {
    cookieSecret: LONG,
    pinSecret: LONG,
    publicOrigin: 'https://depot.example',
    secureCookie: true,
    checkpointKeyFile: keyFile,
    ...over,
  }),
  given: new Set(['COOKIE_SECRET', 'PIN_SECRET']),
  nodeVersion: 'v20.19.3',
  nowMs: Date.now(),
  ...more,
});
const amissIn = (findings: readonly Finding[]) => findings.filter(({ grade }) => grade === 'amiss').map(({ of }) => of);
const of = (findings: readonly Finding[], name: string) => findings.find((each) => each.of === name);

describe('a house', () => {
  it('that is set up as it should be has nothing amiss', async () => {
    const findings = await examine(settings());
    expect(amissIn(findings)).toEqual([]);
    expect(of(findings, 'Rights')?.grade).toBe('good');
    expect(of(findings, 'Tables')?.says).toBe('are up to date');
    expect(of(findings, 'Owners')?.says).toBe('1');
  });

  it('is told of what is old, what is missing and what anybody can read', async () => {
    const findings = await examine(
      settings(
        { cookieSecret: 'short', secureCookie: false },
        { nodeVersion: 'v18.20.1', given: new Set(['COOKIE_SECRET']) },
      ),
    );
    expect(amissIn(findings)).toEqual(['Node', 'SECURE_COOKIE']);
    expect(of(findings, 'COOKIE_SECRET')).toMatchObject({
      grade: 'look',
      says: expect.stringContaining('5 characters'),
    });
    expect(of(findings, 'PIN_SECRET')?.grade).toBe('look');
    chmodSync(keyFile, 0o644);
    expect(amissIn(await examine(settings()))).toEqual(['CHECKPOINT_KEY_FILE']);
    chmodSync(keyFile, 0o600);
    expect(amissIn(await examine(settings({}, { given: new Set() })))).toEqual(['COOKIE_SECRET', 'PIN_SECRET']);
    expect(amissIn(await examine(settings({ publicOrigin: 'http://depot.example' })))).toEqual(['SECURE_COOKIE']);
  });

  it('is told where its clocks differ, and which way', async () => {
    const findings = await examine(settings({}, { nowMs: Date.now() + 90_000 }));
    expect(of(findings, 'Clocks')).toMatchObject({
      grade: 'amiss',
      says: expect.stringMatching(/(89|90|91) s behind/),
    });
  });

  it('is told where its account may change what is recorded', async () => {
    const findings = await examine(settings({ databaseUrl: server.ownerUrl }));
    expect(amissIn(findings)).toEqual(['Rights']);
    expect(of(findings, 'Rights')?.says).toContain('account_event');
  });

  it('is told where nobody is owner, or the demo stands open', async () => {
    const { applicationUrl } = await freshDatabase();
    expect(of(await examine(settings({ databaseUrl: applicationUrl })), 'Owners')?.grade).toBe('look');
    await server.app.source.query("UPDATE account SET isDemo = TRUE WHERE signInName = 'lead'");
    expect(amissIn(await examine(settings()))).toEqual(['Demo accounts']);
    await server.app.source.query("UPDATE account SET isDemo = FALSE WHERE signInName = 'lead'");
  });

  it('is told where its database does not answer', async () => {
    const nowhere = new URL(server.applicationUrl);
    nowhere.password = 'not-this';
    const findings = await examine(settings({ databaseUrl: nowhere.href }));
    expect(amissIn(findings)).toEqual(['DATABASE_URL']);
    expect(of(findings, 'DATABASE_URL')?.says).toContain('does not answer');
  });
});
