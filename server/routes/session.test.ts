import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEMO_PASSWORD } from '../demo-password.js';
import { putAccount } from '../store/accounts.js';
import { errorOf, PASSWORD, signInAs, startTestServer, type TestServer } from '../testing/test-server.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const signIn = (name: string, password: string) => server.app.inject({ method: 'POST', url: '/api/session', payload: { name, password, station: 'bay 1' } });

describe('signing in', () => {
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
    const forged = await server.app.inject({ url: '/api/orders', headers: { cookie: `${person.cookie.slice(0, -4)}AAAA` } });
    expect(errorOf(forged).code).toBe('signedOut');
    expect((await person.get('/api/orders')).statusCode).toBe(200);
    await server.app.inject({ method: 'DELETE', url: '/api/session', headers: { cookie: person.cookie } });
    expect((await person.get('/api/orders')).statusCode).toBe(401);
  });

  it('may do what its role may, and no more', async () => {
    const technician = await signInAs(server, 'technician');
    const answer = await technician.post('/api/library', { kind: 'houseRules', document: {} });
    expect(answer.statusCode).toBe(403);
    expect(errorOf(answer).code).toBe('notAllowed');
  });
});

describe('the welcome', () => {
  it('shows no account until the demo scenario is loaded, then only its own', async () => {
    const before = await server.app.inject({ url: '/api/welcome' });
    expect(before.json()).toEqual({ session: null, demoAccounts: [] });
    await putAccount(server.app.source, { signInName: 'demo', displayName: 'Demo D.', role: 'lead', password: DEMO_PASSWORD, isDemo: true });
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
    const document = (await server.app.inject({ url: '/api/openapi.json' })).json<{ paths: Record<string, Record<string, { requestBody?: unknown }>> }>();
    expect(Object.keys(document.paths)).toContain('/api/units/{unitId}/visits/{visitId}/evidence');
    expect(JSON.stringify(document.paths['/api/session']?.['post']?.requestBody)).toContain('password');
  });
});
