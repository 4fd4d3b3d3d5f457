import { request as httpRequest, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { FastifyInstance } from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { OpenSession, WelcomeView } from '@decurio/contract';
import { buildApp } from '../app.js';
import { DEMO_PASSWORD } from '../demo-password.js';
import { addAccount, changeAccount } from '../store/accounts.js';
import { Accounts } from '../store/entities.js';
import { openSession } from '../store/sessions.js';
import { oneTry, TRIES } from '../store/sign-in-tries.js';
import {
  errorOf,
  PASSWORD,
  signInAs,
  startTestServer,
  testConfig,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const signIn = (name: string, password: string) =>
  server.app.inject({ method: 'POST', url: '/api/session', payload: { name, password, station: 'bay 1' } });

/** What was tried before must not count against the next test: a minute is long. */
const forgetTries = () => server.app.source.query('DELETE FROM sign_in_try');

/** Opens a stream of changes as a browser would. @returns what settles with its end */
async function openStream(app: FastifyInstance, { cookie }: Person): Promise<{ readonly ended: Promise<void> }> {
  const { port } = app.server.address() as AddressInfo;
  const call = httpRequest({
    host: '127.0.0.1',
    port,
    path: '/api/changes',
    headers: { cookie, accept: 'text/event-stream' },
  });
  const answer = await new Promise<IncomingMessage>((resolve, reject) =>
    call.once('response', resolve).once('error', reject).end(),
  );
  expect(answer.statusCode).toBe(200);
  return { ended: new Promise<void>((resolve) => answer.resume().once('close', resolve)) };
}

describe('signing in', () => {
  it('lets everybody in who comes at once, while tries and sessions of before are forgotten', async () => {
    const { source } = server.app;
    const account = await source.manager.findOneByOrFail(Accounts, { signInName: 'technician' });
    for (let round = 0; round < 12; round++) {
      const before = new Date(Date.now() - 300_000);
      await source.query('INSERT INTO sign_in_try (name, address, at) VALUES ?', [
        Array.from({ length: 60 }, () => ['gone', '10.0.0.9', before]),
      ]);
      await source.query('UPDATE session SET expiresAt = UTC_TIMESTAMP(3) - INTERVAL 1 SECOND');
      const opened = await Promise.all(
        Array.from({ length: 40 }, (_, n) =>
          oneTry(source, { name: `p${n}`, address: `10.0.1.${n}` }, () => openSession(source, account, 'bay 1')),
        ),
      );
      expect(opened.every((one) => one !== null)).toBe(true);
    }
    expect(await source.query("SELECT id FROM sign_in_try WHERE name = 'gone'")).toEqual([]);
  });

  it('sets a signed, http-only, same-site cookie that opens the API', async () => {
    const answer = await signIn('technician', PASSWORD);
    expect(answer.json()).toMatchObject({ name: 'The technician', role: 'technician', station: 'bay 1' });
    const cookie = String(answer.headers['set-cookie']);
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Strict/);
    const orders = await server.app.inject({ url: '/api/orders', headers: { cookie: cookie.split(';')[0] } });
    expect(orders.statusCode).toBe(200);
  });

  it('tells nothing about which of name and password was wrong', async () => {
    const wrongPassword = await signIn('technician', 'sand');
    const wrongName = await signIn('nobody', 'sand');
    expect(wrongPassword.statusCode).toBe(401);
    expect(errorOf(wrongPassword)).toEqual(errorOf(wrongName));
  });

  it('is refused after ten tries within a minute for one name, and still works for another', async () => {
    const answers = [];
    for (let i = 0; i < 11; i++) answers.push((await signIn('lead', `guess ${i}`)).statusCode);
    expect(answers.slice(0, 10)).toEqual(Array.from({ length: 10 }, () => 401));
    expect(answers[10]).toBe(429);
    expect(errorOf(await signIn('lead', PASSWORD)).code).toBe('tooManyTries');
    expect((await signIn('owner', PASSWORD)).statusCode).toBe(200);
  });

  it('counts one name however it is spelt, and takes no other letters for its own', async () => {
    await forgetTries();
    for (const name of ['Lead', 'leaD', 'LEAD', 'ｌｅａｄ', 'lEAD', 'lEad', 'leAd', 'LEad', 'ＬＥＡＤ', 'lead'])
      expect((await signIn(name, 'guess')).statusCode, name).toBe(401);
    expect((await signIn('ｌead', PASSWORD)).statusCode).toBe(429);
    await forgetTries();
    for (const name of ['léad', 'lèad', 'leàd', 'ĺead', 'leаd'])
      expect((await signIn(name, PASSWORD)).statusCode, name).toBe(401);
    expect((await signIn('Lead', PASSWORD)).statusCode).toBe(200);
  });

  it('counts over all processes, and per address, whatever a sender says of its own', async () => {
    await forgetTries();
    const second = await buildApp(testConfig(server.applicationUrl));
    const from = (app: FastifyInstance, name: string, n: number) =>
      app.inject({
        method: 'POST',
        url: '/api/session',
        headers: { 'x-forwarded-for': `10.0.0.${n}` },
        payload: { name, password: 'guess', station: 'bay 1' },
      });
    try {
      for (let n = 0; n < TRIES.perAddress; n++)
        expect((await from(n % 2 === 0 ? server.app : second, `nobody-${n}`, n)).statusCode).toBe(401);
      expect((await from(second, 'nobody-new', 99)).statusCode).toBe(429);
      expect((await from(server.app, 'nobody-new', 99)).statusCode).toBe(429);
    } finally {
      await second.close();
      await forgetTries();
    }
  });

  it('takes the word of a proxy only where that proxy is configured', async () => {
    const behind = await buildApp(testConfig(server.applicationUrl, { trustedProxies: ['127.0.0.1'] }));
    try {
      for (let n = 0; n <= TRIES.perAddress; n++) {
        const answer = await behind.inject({
          method: 'POST',
          url: '/api/session',
          headers: { 'x-forwarded-for': `10.0.0.${n}` },
          payload: { name: `nobody-${n}`, password: 'guess', station: 'bay 1' },
        });
        expect(answer.statusCode).toBe(401);
      }
    } finally {
      await behind.close();
      await forgetTries();
    }
  });

  it('lets no more guesses through when they come all at once', async () => {
    await forgetTries();
    const answers = await Promise.all(Array.from({ length: 60 }, () => signIn('lead', 'guess')));
    const codes = answers.map(({ statusCode }) => statusCode);
    expect(codes.filter((code) => code === 401).length).toBeLessThanOrEqual(TRIES.perAccount);
    expect(codes.every((code) => code === 401 || code === 429 || code === 503)).toBe(true);
    await forgetTries();
  });

  it('names the fields that are missing', async () => {
    const answer = await server.app.inject({ method: 'POST', url: '/api/session', payload: { name: '' } });
    expect(answer.statusCode).toBe(400);
    expect(errorOf(answer).fields).toMatchObject({ password: expect.any(String), station: expect.any(String) });
  });

  it('keeps passwords as argon2id hashes alone', async () => {
    const rows = (await server.app.source.query('SELECT passwordHash FROM account')) as { passwordHash: string }[];
    expect(rows.every((row) => row.passwordHash.startsWith('$argon2id$'))).toBe(true);
  });
});

describe('a session', () => {
  it('is refused with a forged signature, with none, and after signing out', async () => {
    const person = await signInAs(server, 'technician');
    expect((await server.app.inject({ url: '/api/orders' })).statusCode).toBe(401);
    const forged = await server.app.inject({
      url: '/api/orders',
      headers: { cookie: `${person.cookie.slice(0, -4)}AAAA` },
    });
    expect(errorOf(forged).code).toBe('signedOut');
    expect((await person.get('/api/orders')).statusCode).toBe(200);
    await server.app.inject({ method: 'DELETE', url: '/api/session', headers: { cookie: person.cookie } });
    expect((await person.get('/api/orders')).statusCode).toBe(401);
  });

  it('of before ends when someone signs in again in the same browser', async () => {
    const before = await signInAs(server, 'technician');
    await server.app.inject({
      method: 'POST',
      url: '/api/session',
      headers: { cookie: before.cookie },
      payload: { name: 'technician', password: PASSWORD, station: 'bay 2' },
    });
    expect((await before.get('/api/orders')).statusCode).toBe(401);
  });

  it('elsewhere is listed to its owner, who ends it there', async () => {
    const [here, there, stranger] = [
      await signInAs(server, 'technician'),
      await signInAs(server, 'technician'),
      await signInAs(server, 'lead'),
    ];
    const list = async () => (await here.get('/api/sessions')).json<OpenSession[]>();
    const others = (await list()).filter(({ isThis }) => !isThis);
    expect(
      others.every(({ station, openedAt }) => station.startsWith('bay ') && !Number.isNaN(Date.parse(openedAt))),
    ).toBe(true);
    const end = (id: string, person = here) =>
      server.app.inject({ method: 'DELETE', url: `/api/sessions/${id}`, headers: { cookie: person.cookie } });
    expect((await end(others[0]!.id, stranger)).statusCode).toBe(404);
    for (const { id } of others) expect((await end(id)).statusCode).toBe(204);
    expect((await there.get('/api/orders')).statusCode).toBe(401);
    expect((await list()).map(({ isThis }) => isThis)).toEqual([true]);
  });

  it('ends with its streams, signed out here or ended in another process', async () => {
    const second = await buildApp(testConfig(server.applicationUrl));
    try {
      await second.listen({ host: '127.0.0.1', port: 0 });
      const [one, two] = [await signInAs(server, 'technician'), await signInAs(server, 'technician')];
      const streams = [await openStream(second, one), await openStream(second, two)];
      await server.app.inject({ method: 'DELETE', url: '/api/session', headers: { cookie: one.cookie } });
      await streams[0]?.ended;
      await changeAccount(server.app.source, {
        signInName: 'technician',
        displayName: 'The technician',
        role: 'technician',
        password: PASSWORD,
      });
      await streams[1]?.ended;
    } finally {
      await second.close();
    }
  });

  it('may do what its role may, and no more', async () => {
    const technician = await signInAs(server, 'technician');
    const answer = await technician.post('/api/library', { kind: 'houseRules', document: {} });
    expect(answer.statusCode).toBe(403);
    expect(errorOf(answer).code).toBe('notAllowed');
  });
});

describe('an account', () => {
  const asNamed = (signInName: string) => ({
    signInName,
    displayName: 'Somebody',
    role: 'owner' as const,
    password: 'marram-grass-2',
    isDemo: false,
  });

  it.each(['téo', 'аsta', 'two words', '', '-x'])('is not made under the name %j', async (name) => {
    expect(await addAccount(server.app.source, asNamed(name))).toMatchObject({
      ok: false,
      says: expect.stringContaining('Latin letters'),
    });
  });

  it('is never taken over, nor made to look like another', async () => {
    expect(await addAccount(server.app.source, asNamed('Technician'))).toMatchObject({
      ok: false,
      says: expect.stringContaining('already'),
    });
    expect(await addAccount(server.app.source, asNamed('techniclan'))).toMatchObject({
      ok: false,
      says: expect.stringContaining('would be taken for "technician"'),
    });
    expect(
      (await signInAs(server, 'technician').then((person) => person.get('/api/welcome'))).json<WelcomeView>().session
        ?.role,
    ).toBe('technician');
  });

  it('that is changed signs everybody out who used it', async () => {
    const before = await signInAs(server, 'technician');
    expect(
      await changeAccount(server.app.source, {
        signInName: 'technician',
        displayName: 'The technician',
        role: 'technician',
        password: PASSWORD,
      }),
    ).toMatchObject({ ok: true });
    expect((await before.get('/api/orders')).statusCode).toBe(401);
    expect(await changeAccount(server.app.source, asNamed('nobody-here'))).toMatchObject({ ok: false });
  });
});

describe('the welcome', () => {
  it('shows no account until the demo scenario is loaded, then only its own', async () => {
    const before = await server.app.inject({ url: '/api/welcome' });
    expect(before.json()).toMatchObject({ session: null, demoAccounts: [] });
    await addAccount(server.app.source, {
      signInName: 'demo',
      displayName: 'Demo D.',
      role: 'lead',
      password: DEMO_PASSWORD,
      isDemo: true,
    });
    const after = await server.app.inject({ url: '/api/welcome' });
    expect(after.json()).toMatchObject({ demoAccounts: [{ name: 'demo', password: DEMO_PASSWORD, role: 'lead' }] });
  });
});

describe('any address', () => {
  it('answers in the one error shape when it leads nowhere', async () => {
    const answer = await server.app.inject({ url: '/api/nowhere' });
    expect(answer.statusCode).toBe(404);
    expect(errorOf(answer)).toMatchObject({ code: 'notFound', message: expect.any(String) });
  });

  it('is healthy while its database answers', async () => {
    expect((await server.app.inject({ url: '/api/health' })).json()).toEqual({ ok: true, database: true });
  });

  it('is described by a document made from the schemas that validate', async () => {
    const document = (await (await signInAs(server, 'technician')).get('/api/openapi.json')).json<{
      paths: Record<string, Record<string, { requestBody?: unknown }>>;
    }>();
    expect(Object.keys(document.paths)).toContain('/api/units/{unitId}/visits/{visitId}/evidence');
    expect(JSON.stringify(document.paths['/api/session']?.['post']?.requestBody)).toContain('password');
  });
});
