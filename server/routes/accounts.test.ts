import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ERASED_NAME } from '@decurio/core';
import type { AccountsView, AccountView, PasswordForOnce, WelcomeView } from '@decurio/contract';
import { buildApp } from '../app.js';
import { erasePerson } from '../store/erase-personal.js';
import { offerFirstOwner } from '../store/first-owner.js';
import {
  errorOf,
  freshDatabase,
  PASSWORD,
  signInAs,
  startTestServer,
  testConfig,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
let owner: Person;
beforeAll(async () => {
  server = await startTestServer();
  owner = await signInAs(server, 'owner');
});
afterAll(() => server.close());

const enter = (name: string, password: string) =>
  server.app.inject({ method: 'POST', url: '/api/session', payload: { name, password, station: 'bay 7' } });
const cookieOf = (answer: Awaited<ReturnType<typeof enter>>) =>
  String(answer.headers['set-cookie']).split(';')[0] ?? '';
const as = (cookie: string, method: 'GET' | 'POST' | 'PUT', url: string, payload?: object) =>
  server.app.inject({ method, url: `/api${url}`, headers: { cookie }, ...(payload ? { payload } : {}) });
const view = async () => (await owner.get('/api/accounts')).json<AccountsView>();
const account = async (signInName: string): Promise<AccountView> => {
  const found = (await view()).accounts.find((each) => each.signInName === signInName);
  if (!found) throw new Error(`no account ${signInName}`);
  return found;
};
const make = async (signInName: string, displayName = `${signInName} by name`, role = 'technician') =>
  (await owner.post('/api/accounts', { signInName, displayName, role })).json<PasswordForOnce>();
const OWN = 'three loose spokes';
const chosen = async (name: string): Promise<string> => {
  const { password } = await make(name);
  const cookie = cookieOf(await enter(name, password));
  expect((await as(cookie, 'PUT', '/own-password', { current: password, next: OWN })).statusCode).toBe(204);
  return cookie;
};

describe('an account', () => {
  it('is made by an owner alone, with a password that opens nothing but its own replacement', async () => {
    const { password } = await make('jory');
    expect(password).toMatch(/^([a-z2-9]{4}-){3}[a-z2-9]{4}$/);
    const answer = await enter('jory', password);
    expect(answer.json()).toMatchObject({ isPasswordForOnce: true, role: 'technician' });
    const cookie = cookieOf(answer);
    for (const url of ['/orders', '/house', '/plan'])
      expect(errorOf(await as(cookie, 'GET', url)).code).toBe('passwordForOnce');
    expect((await as(cookie, 'PUT', '/own-password', { current: password, next: OWN })).statusCode).toBe(204);
    expect((await as(cookie, 'GET', '/house')).statusCode).toBe(200);
    expect((await enter('jory', password)).statusCode).toBe(401);
    for (const role of ['technician', 'lead'] as const) {
      const person = await signInAs(server, role);
      expect((await person.get('/api/accounts')).statusCode).toBe(403);
      expect(
        (await person.post('/api/accounts', { signInName: 'x', displayName: 'X', role: 'owner' })).statusCode,
      ).toBe(403);
    }
  });

  it('has a name of its own that is not taken for another, and a role that there is', async () => {
    await make('milo');
    for (const [signInName, says] of [
      ['milo', 'already'],
      ['mi1o', 'taken for "milo"'],
      ['Ünder', 'Latin letters'],
    ] as const) {
      const answer = await owner.post('/api/accounts', { signInName, displayName: 'M', role: 'lead' });
      expect(errorOf(answer).fields?.['signInName']).toContain(says);
    }
    for (const bad of [{ role: 'captain' }, { displayName: '' }, { displayName: 'x'.repeat(81) }, { signInName: '' }])
      expect(
        (await owner.post('/api/accounts', { signInName: 'nell', displayName: 'N', role: 'lead', ...bad })).statusCode,
      ).toBe(400);
  });

  it('gets another role, and has it at the next request', async () => {
    const cookie = await chosen('perran');
    const { id } = await account('perran');
    expect((await as(cookie, 'GET', '/accounts')).statusCode).toBe(403);
    await owner.put(`/api/accounts/${id}/role`, { role: 'owner' });
    expect((await as(cookie, 'GET', '/accounts')).statusCode).toBe(200);
    await owner.put(`/api/accounts/${id}/role`, { role: 'technician' });
    expect((await as(cookie, 'GET', '/accounts')).statusCode).toBe(403);
  });

  it('is locked: its sessions end at once, nobody signs in by it, and it may be unlocked', async () => {
    const cookie = await chosen('sennen');
    const { id } = await account('sennen');
    const after = (await owner.post(`/api/accounts/${id}/lock`)).json<AccountsView>();
    expect(after.accounts.find((each) => each.id === id)).toMatchObject({ sessions: 0, lockedAt: expect.any(String) });
    expect((await as(cookie, 'GET', '/house')).statusCode).toBe(401);
    expect(errorOf(await enter('sennen', OWN)).code).toBe('accountLocked');
    // A wrong password says nothing of the account.
    expect(errorOf(await enter('sennen', 'nothing of the kind')).code).toBe('wrongPassword');
    await owner.post(`/api/accounts/${id}/unlock`);
    expect((await enter('sennen', OWN)).statusCode).toBe(200);
  });

  it('whose password was forgotten begins anew', async () => {
    const cookie = await chosen('tamsin');
    const { id } = await account('tamsin');
    const { password } = (await owner.post(`/api/accounts/${id}/password-for-once`)).json<PasswordForOnce>();
    expect((await as(cookie, 'GET', '/house')).statusCode).toBe(401);
    expect((await enter('tamsin', OWN)).statusCode).toBe(401);
    expect((await enter('tamsin', password)).json()).toMatchObject({ isPasswordForOnce: true });
  });
});

describe('an owner', () => {
  it('cannot lock, demote or reset themselves, and the last one stays one', async () => {
    const me = await account('owner');
    for (const [method, path, body] of [
      ['PUT', 'role', { role: 'lead' }],
      ['POST', 'lock', {}],
      ['POST', 'password-for-once', {}],
    ] as const) {
      const answer = await as(owner.cookie, method, `/accounts/${me.id}/${path}`, body);
      expect(errorOf(answer).code).toBe('ownAccount');
    }
    const cookie = await chosen('wenna');
    const { id } = await account('wenna');
    await owner.put(`/api/accounts/${id}/role`, { role: 'owner' });
    // Two who take each other's away at one moment: one of them stays.
    const answers = await Promise.all([
      as(owner.cookie, 'PUT', `/accounts/${id}/role`, { role: 'lead' }),
      as(cookie, 'PUT', `/accounts/${me.id}/role`, { role: 'lead' }),
    ]);
    expect(answers.filter(({ statusCode }) => statusCode === 200)).toHaveLength(1);
    const { n } = (
      await server.app.source.query<{ n: string }[]>("SELECT COUNT(*) AS n FROM account WHERE role = 'owner'")
    )[0]!;
    expect(Number(n)).toBe(1);
    await server.app.source.query("UPDATE account SET role = 'owner' WHERE id = ?", [me.id]);
  });
});

describe('an account that is closed', () => {
  it('is not the last owner who can sign in, locked ones left out; and that it was closed is written down', async () => {
    const me = await account('owner');
    await server.app.source.query("UPDATE account SET role = 'lead' WHERE role = 'owner' AND id <> ?", [me.id]);
    await chosen('morva');
    const { id } = await account('morva');
    await owner.put(`/api/accounts/${id}/role`, { role: 'owner' });
    await owner.post(`/api/accounts/${id}/lock`);
    await expect(erasePerson(server.app.source, me.id, 'long ago', null)).rejects.toMatchObject({ code: 'lastOwner' });
    await erasePerson(server.app.source, id, 'left the house', me.id);
    const { accounts, events } = await view();
    expect(accounts.map((each) => each.id)).not.toContain(id);
    expect(events[0]).toMatchObject({ kind: 'closed', name: ERASED_NAME, by: 'The owner' });
  });
});

describe('a password of one’s own', () => {
  it('needs the one that stands, is not the same, and is none of those that are tried first', async () => {
    const cookie = await chosen('zennor');
    const change = (current: string, next: string) => as(cookie, 'PUT', '/own-password', { current, next });
    expect(errorOf(await change('not this', 'a fine long one')).code).toBe('wrongCurrent');
    expect(errorOf(await change(OWN, OWN)).fields?.['next']).toContain('the one you have');
    for (const next of [
      'password123',
      'Password 1234',
      'qwertyuiop',
      'aaaaaaaaaaaa',
      'abababababab',
      'zennor by name',
      '1234567890',
    ])
      expect(errorOf(await change(OWN, next)).fields?.['next'], next).toContain('tried first');
    expect((await change(OWN, 'short')).statusCode).toBe(400);
    for (const next of ['valve caps all gone', 'ÄÖÜ sind Umlaute', PASSWORD])
      expect((await change(OWN, next)).statusCode === 204 && (await change(next, OWN)).statusCode, next).toBe(204);
  });

  it('ends every other session, and of two changes at once one goes through', async () => {
    const first = await chosen('gwithian');
    const second = cookieOf(await enter('gwithian', OWN));
    const change = (next: string) => as(first, 'PUT', '/own-password', { current: OWN, next });
    const answers = await Promise.all([change('one for the road'), change('two for the road')]);
    expect(answers.map(({ statusCode }) => statusCode).sort()).toEqual([204, 403]);
    expect((await as(second, 'GET', '/house')).statusCode).toBe(401);
    expect((await as(first, 'GET', '/house')).statusCode).toBe(200);
  });
});

describe('what came of accounts', () => {
  it('is written down with who did it, and cannot be edited', async () => {
    await chosen('kenver');
    const { id } = await account('kenver');
    await enter('kenver', 'wrong for sure');
    await enter('nobody-here', 'wrong for sure');
    await owner.put(`/api/accounts/${id}/role`, { role: 'lead' });
    await owner.post(`/api/accounts/${id}/lock`);
    const { events } = await view();
    const own = events.filter(({ name }) => name === 'kenver by name').toReversed();
    expect(own.map(({ kind, by }) => [kind, by])).toEqual([
      ['made', 'The owner'],
      ['signedIn', null],
      ['passwordChanged', null],
      ['refused', null],
      ['role', 'The owner'],
      ['locked', 'The owner'],
    ]);
    for (const sql of ["UPDATE account_event SET kind = 'made'", 'DELETE FROM account_event'])
      await expect(server.app.source.query(sql)).rejects.toThrow(/denied/);
  });

  it('is read on from any one of them', async () => {
    const [newest, , third] = (await view()).events;
    const older = (await owner.get(`/api/accounts/events?before=${newest!.n}`)).json<AccountsView['events']>();
    expect(older[1]).toEqual(third);
    expect((await owner.get('/api/accounts/events?before=x')).statusCode).toBe(400);
  });
});

describe('the first owner of a house', () => {
  const ours = { displayName: 'Lowen B.', signInName: 'lowen', password: OWN };
  const begin = async () => {
    const app = await buildApp(testConfig((await freshDatabase()).applicationUrl));
    const post = (payload: object) => app.inject({ method: 'POST', url: '/api/first-owner', payload });
    const needs = async () => (await app.inject('/api/welcome')).json<WelcomeView>().needsOwner;
    return { app, post, needs, code: (await offerFirstOwner(app.source)) ?? '' };
  };

  it('is made once, by the code that was printed last, with a password that is none of the common ones', async () => {
    const { app, post, needs, code } = await begin();
    try {
      expect(await needs()).toBe(true);
      const newer = (await offerFirstOwner(app.source)) ?? '';
      expect(errorOf(await post({ ...ours, code })).code).toBe('wrongCode');
      expect(errorOf(await post({ ...ours, code: newer, password: 'password123' })).fields?.['password']).toContain(
        'tried first',
      );
      expect(errorOf(await post({ ...ours, code: newer, signInName: 'ö' })).fields?.['signInName']).toContain('Latin');
      const answers = await Promise.all([
        post({ ...ours, code: newer.toUpperCase() }),
        post({ ...ours, signInName: 'other', code: newer }),
      ]);
      expect(answers.map(({ statusCode }) => statusCode).sort()).toEqual([204, 403]);
      expect(await needs()).toBe(false);
      expect(await offerFirstOwner(app.source)).toBeNull();
      expect(errorOf(await post({ ...ours, code: newer })).code).toBe('wrongCode');
    } finally {
      await app.close();
    }
  });

  it('cannot be guessed: tries are counted', async () => {
    const { app, post, needs } = await begin();
    try {
      const codes: string[] = [];
      for (let i = 0; i < 14; i++) codes.push(errorOf(await post({ ...ours, code: `abcd-efgh-jkmn-pqr${i}` })).code);
      expect(new Set(codes)).toEqual(new Set(['wrongCode', 'tooManyTries']));
      expect(codes.at(-1)).toBe('tooManyTries');
      expect(await needs()).toBe(true);
    } finally {
      await app.close();
    }
  });

  it('is not to be made where somebody is', async () => {
    expect((await server.app.inject('/api/welcome')).json<WelcomeView>().needsOwner).toBe(false);
    const answer = await server.app.inject({
      method: 'POST',
      url: '/api/first-owner',
      payload: { ...ours, code: 'abcd-efgh-jkmn-pqrs' },
    });
    expect(errorOf(answer).code).toBe('wrongCode');
  });
});
