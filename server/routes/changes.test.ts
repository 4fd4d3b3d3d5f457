import { request as httpRequest, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { FastifyInstance } from 'fastify';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { ChangeSeen, LineUnit } from '@decurio/contract';
import { buildApp } from '../app.js';
import {
  Bench,
  CHECK_IN,
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
let second: FastifyInstance;
let teo: Person;
let units: readonly LineUnit[];
beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  ({ units } = await takeOrder(teo, orderFile(['S26-0001', 'S26-0002', 'S26-0003'])));
  second = await buildApp(testConfig(server.applicationUrl));
  await Promise.all([server.app.listen({ host: '127.0.0.1', port: 0 }), second.listen({ host: '127.0.0.1', port: 0 })]);
});
afterAll(async () => {
  await second.close();
  await server.close();
});

interface Heard {
  readonly moved: ChangeSeen[];
  readonly events: string[];
  readonly lastId: () => string;
  readonly stop: () => void;
}

/** Listens to one server's changes as a browser would. */
async function listen(app: FastifyInstance, lastSeen?: string): Promise<Heard> {
  const { port } = app.server.address() as AddressInfo;
  const headers = {
    cookie: teo.cookie,
    accept: 'text/event-stream',
    ...(lastSeen === undefined ? {} : { 'last-event-id': lastSeen }),
  };
  const call = httpRequest({ host: '127.0.0.1', port, path: '/api/changes', headers });
  const answer = await new Promise<IncomingMessage>((resolve, reject) =>
    call.once('response', resolve).once('error', reject).end(),
  );
  expect(answer.headers['content-type']).toContain('text/event-stream');
  const heard = { moved: [] as ChangeSeen[], events: [] as string[] };
  let [rest, id] = ['', ''];
  answer.setEncoding('utf8').on('data', (text: string) => {
    const blocks = (rest + text).split('\n\n');
    rest = blocks.pop() ?? '';
    for (const block of blocks) {
      const field = (name: string) =>
        block
          .split('\n')
          .find((line) => line.startsWith(`${name}: `))
          ?.slice(name.length + 2);
      id = field('id') ?? id;
      const event = field('event');
      if (event === undefined) continue;
      heard.events.push(event);
      if (event === 'moved') heard.moved.push(JSON.parse(field('data') ?? '') as ChangeSeen);
    }
  });
  answer.on('error', () => undefined);
  await vi.waitFor(() => expect(heard.events).toContain('listening'));
  return { ...heard, lastId: () => id, stop: () => call.destroy() };
}

describe('live changes', () => {
  it('are heard on every server of one database', async () => {
    const heard = await Promise.all([listen(server.app), listen(second)]);
    const bench = await new Bench(teo, units[0]!.id).open();
    await bench.act('checkedIn', CHECK_IN);
    for (const { moved } of heard)
      await vi.waitFor(
        () =>
          expect(moved.map(({ unitId, seq }) => [unitId, seq])).toEqual([
            [bench.unitId, 1],
            [bench.unitId, 2],
          ]),
        { timeout: 5000 },
      );
    for (const { stop } of heard) stop();
  });

  it('that were missed are heard on coming back, and none twice', async () => {
    const before = await listen(server.app);
    const bench = await new Bench(teo, units[1]!.id).open();
    await vi.waitFor(() => expect(before.moved).toHaveLength(1), { timeout: 5000 });
    before.stop();
    await bench.act('checkedIn', CHECK_IN);
    await bench.makeSafe();
    const after = await listen(second, before.lastId());
    await vi.waitFor(() => expect(after.moved.map(({ seq }) => seq)).toEqual([2, 3]), { timeout: 5000 });
    after.stop();
  });

  it('tell of orders, and are for whoever is signed in', async () => {
    const heard = await listen(server.app);
    const { taken } = await takeOrder(teo, orderFile(['S26-0009'], '2633'));
    await vi.waitFor(
      () => expect(heard.moved).toContainEqual(expect.objectContaining({ orderId: taken.orderId, unitId: null })),
      { timeout: 5000 },
    );
    heard.stop();
    expect((await server.app.inject({ method: 'GET', url: '/api/changes' })).statusCode).toBe(401);
  });
});
