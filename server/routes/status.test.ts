import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { StatusView } from '@decurio/contract';
import { buildApp } from '../app.js';
import {
  Bench,
  errorOf,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  testConfig,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
let owner: Person;
beforeAll(async () => {
  server = await startTestServer();
  owner = await signInAs(server, 'owner');
  await fillLibrary(owner);
});
afterAll(() => server.close());

describe('how the house runs', () => {
  it('is for its owner to see', async () => {
    for (const role of ['technician', 'lead'] as const)
      expect((await (await signInAs(server, role)).get('/api/status')).statusCode).toBe(403);
  });

  it('says what goes on, what was sealed last, and what is amiss with what to do', async () => {
    const before = (await owner.get('/api/status')).json<StatusView>();
    expect(before).toMatchObject({ now: { openVisits: 0, held: 0 }, lastSeal: null, lastCheckpoint: null });
    const teo = await signInAs(server, 'technician');
    const { units } = await takeOrder(teo, orderFile(['S-st-1', 'S-st-2'], 'st'));
    const done = await new Bench(teo, units[0]!.id).open();
    await done.toSignOff();
    await done.sign();
    await new Bench(teo, units[1]!.id).open();
    const now = (await owner.get('/api/status')).json<StatusView>();
    expect(now).toMatchObject({ now: { openVisits: 1, signedIn: 3 }, lastSeal: { serial: 'S-st-1' } });
    expect(now.database).toMatchObject({ version: expect.stringContaining('MariaDB'), cluster: null });
    expect(now.database.sizeMb).toBeGreaterThan(0);
    expect(now.server.node).toBe(process.version);
    const of = new Map(now.findings.map((finding) => [finding.of, finding]));
    expect(of.get('Tables')).toMatchObject({ grade: 'good' });
    // Nothing was set in the environment of this server.
    expect(of.get('COOKIE_SECRET')).toMatchObject({ grade: 'amiss', says: expect.stringContaining('Not set') });
    expect(JSON.stringify(now)).not.toContain('for tests only');
  });
});

describe('every answer', () => {
  it('carries a number of its own, whatever the sender called it', async () => {
    const ids = await Promise.all(
      [1, 2, 3].map(async () => {
        const { headers } = await server.app.inject({ url: '/api/health', headers: { 'x-request-id': 'mine' } });
        return headers['x-request-id'];
      }),
    );
    expect(new Set(ids).size).toBe(3);
    expect(ids[0]).toMatch(/^[0-9a-f-]{36}$/);
    expect((await server.app.inject({ url: '/api/nowhere' })).headers['x-request-id']).toMatch(/^[0-9a-f-]{36}$/);
  });
});

describe('what a monitor reads', () => {
  const TOKEN = 'a-token-for-the-monitor';

  it('is not there unless a token was set', async () => {
    expect((await server.app.inject({ url: '/metrics' })).statusCode).toBe(404);
  });

  it('opens by that token alone, and counts by route, never by address', async () => {
    const app = await buildApp(testConfig(server.applicationUrl, { metricsToken: TOKEN }));
    try {
      const read = (authorization?: string) =>
        app.inject({ url: '/metrics', headers: authorization === undefined ? {} : { authorization } });
      for (const wrong of [undefined, '', TOKEN, `Bearer ${TOKEN}x`, `Basic ${TOKEN}`])
        expect(errorOf(await read(wrong)).code).toBe('noToken');
      await app.inject({ url: '/api/health' });
      await app.inject({ url: '/api/units/S26-0417/secret-address' });
      const { statusCode, body, headers } = await read(`Bearer ${TOKEN}`);
      expect(statusCode).toBe(200);
      expect(headers['content-type']).toContain('text/plain');
      expect(body).toMatch(/decurio_request_seconds_count\{method="GET",route="\/api\/health",status="200"\} 1/);
      expect(body).toMatch(/decurio_request_seconds_count\{method="GET",route="none",status="404"\} 1/);
      expect(body).toContain('decurio_database_up 1');
      expect(body).toContain('decurio_streams_open 0');
      expect(body).not.toContain('S26-0417');
      // Owners and their sessions do not open it either.
      expect((await app.inject({ url: '/metrics', headers: { cookie: owner.cookie } })).statusCode).toBe(401);
    } finally {
      await app.close();
    }
  });
});
