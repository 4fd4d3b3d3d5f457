import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AccountsView, MachineMade, MachineView, MayGoOutView, OpenSession } from '@decurio/contract';
import {
  Bench,
  errorOf,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
let owner: Person;
let teo: Person;
beforeAll(async () => {
  server = await startTestServer();
  owner = await signInAs(server, 'owner');
  teo = await signInAs(server, 'technician');
  await fillLibrary(owner);
});
afterAll(() => server.close());

const ask = (serial: string, authorization?: string) =>
  server.app.inject({
    url: `/api/machine/units/${serial}/may-go-out`,
    headers: authorization === undefined ? {} : { authorization },
  });
const made = async (name: string) =>
  (await owner.post('/api/machines', { name, purpose: 'mayGoOut' })).json<MachineMade>();

describe('a machine', () => {
  it('asks by a token that an owner made, which is shown once and stands nowhere', async () => {
    const { token } = await made('hire desk of Gull Point');
    expect(token).toMatch(/^decurio-machine-[\w-]{43}$/);
    expect((await ask('S-none', `Bearer ${token}`)).statusCode).toBe(404);
    const [row] = (await owner.get('/api/machines')).json<MachineView[]>();
    expect(row).toMatchObject({ name: 'hire desk of Gull Point', madeBy: 'The owner', endedAt: null });
    expect(row?.askedAt).not.toBeNull();
    expect(JSON.stringify(row)).not.toContain(token);
    for (const person of [teo, await signInAs(server, 'lead')]) {
      expect((await person.post('/api/machines', { name: 'mine', purpose: 'mayGoOut' })).statusCode).toBe(403);
      expect((await person.get('/api/machines')).statusCode).toBe(403);
    }
  });

  it('opens nothing by another token, by none, by a session, or elsewhere', async () => {
    const { token } = await made('one');
    for (const authorization of [undefined, 'Bearer ', `Bearer ${token}x`, `Basic ${token}`, `bearer ${token}`, token])
      expect(errorOf(await ask('S-none', authorization)).code).toBe('noToken');
    expect((await teo.get('/api/machine/units/S-none/may-go-out')).statusCode).toBe(401);
    const elsewhere = await server.app.inject({ url: '/api/orders', headers: { authorization: `Bearer ${token}` } });
    expect(elsewhere.statusCode).toBe(401);
  });

  it('asks no more once it was ended', async () => {
    const { id, token } = await made('another');
    const left = (await owner.post(`/api/machines/${id}/end`, {})).json<MachineView[]>();
    expect(left.find((each) => each.id === id)?.endedAt).not.toBeNull();
    expect(errorOf(await ask('S-none', `Bearer ${token}`)).code).toBe('noToken');
    expect((await owner.post('/api/machines/00000000-0000-4000-8000-000000000000/end', {})).statusCode).toBe(404);
  });

  it('is refused in words what it may not be called', async () => {
    const answer = await owner.post('/api/machines', { name: ' ', purpose: 'everything' });
    expect(errorOf(answer)).toMatchObject({
      code: 'badFields',
      fields: { name: expect.any(String), purpose: expect.any(String) },
    });
  });
});

describe('whether a unit may go out', () => {
  it('is told as it stands: before the seal, after it, in storage', async () => {
    const authorization = `Bearer ${(await made('hire')).token}`;
    const now = async () => (await ask('S-go-1', authorization)).json<MayGoOutView>();
    const { units } = await takeOrder(teo, orderFile(['S-go-1'], 'go'));
    expect(await now()).toMatchObject({ serial: 'S-go-1', mayGoOut: false, reason: 'notSealed', seal: null });
    const bench = await new Bench(teo, units[0]!.id).open();
    await bench.toSignOff();
    expect(await now()).toMatchObject({ mayGoOut: false, reason: 'notSealed' });
    await bench.sign();
    expect(await now()).toMatchObject({ mayGoOut: true, reason: null, seal: bench.evidence.at(-1)?.hash });
    const stored = { id: randomUUID(), kind: 'packStored', data: { packV: 41 } };
    expect((await teo.post(`/api/visits/${bench.visitId}/handover`, stored)).statusCode).toBe(200);
    expect(await now()).toMatchObject({ mayGoOut: false, reason: 'inStorage' });
  });
});

describe('where somebody is signed in', () => {
  it('is seen and ended by an owner, and written down', async () => {
    const { accounts } = (await owner.get('/api/accounts')).json<AccountsView>();
    const { id = '' } = accounts.find(({ signInName }) => signInName === 'technician') ?? {};
    const gone = await signInAs(server, 'technician');
    const sessions = (await owner.get(`/api/accounts/${id}/sessions`)).json<OpenSession[]>();
    expect(sessions.length).toBeGreaterThan(1);
    const [newest] = sessions;
    const end = () =>
      server.app.inject({
        method: 'DELETE',
        url: `/api/accounts/${id}/sessions/${newest?.id}`,
        headers: { cookie: owner.cookie },
      });
    expect((await end()).json<OpenSession[]>()).toHaveLength(sessions.length - 1);
    expect(errorOf(await end()).code).toBe('sessionGone');
    expect((await gone.get('/api/orders')).statusCode).toBe(401);
    expect((await teo.get(`/api/accounts/${id}/sessions`)).statusCode).toBe(403);
    const { events } = (await owner.get('/api/accounts')).json<AccountsView>();
    expect(events[0]).toMatchObject({ kind: 'signedOut', by: 'The owner' });
  });
});
