import { once } from 'node:events';
import { request as httpRequest, type ClientRequest, type IncomingMessage } from 'node:http';
import { connect, createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import type { FastifyInstance } from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { buildApp } from '../app.js';
import { LIMITS } from '../config.js';
import { signInAs, startTestServer, testConfig, type Person, type TestServer } from '../testing/test-server.js';

let server: TestServer;
let teo: Person;
beforeAll(async () => {
  server = await startTestServer();
  teo = await signInAs(server, 'technician');
  await server.app.listen({ host: '127.0.0.1', port: 0 });
});
afterAll(() => server.close());

const portOf = (app: FastifyInstance): number => (app.server.address() as AddressInfo).port;
const answerOf = async (call: ClientRequest): Promise<{ readonly status: number; readonly code: string }> => {
  const [answer] = (await once(call, 'response')) as [IncomingMessage];
  let body = '';
  for await (const chunk of answer.setEncoding('utf8')) body += chunk as string;
  return { status: answer.statusCode ?? 0, code: (JSON.parse(body) as { error: { code: string } }).error.code };
};

describe('an upload that is too large', () => {
  const upload = (headers: Record<string, string | number>) =>
    httpRequest({
      host: '127.0.0.1',
      port: portOf(server.app),
      method: 'POST',
      path: '/api/intakes?id=7d4f2d5e-0c7b-4b55-9d0e-6a3f0b1c2d3e&fileName=x.csv',
      headers: { cookie: teo.cookie, 'content-type': 'text/csv', ...headers },
    });

  it('is refused at once where its size is told, before anything of it was sent', async () => {
    const call = upload({ 'content-length': 80 * 1024 * 1024 });
    call.flushHeaders();
    expect(await answerOf(call)).toEqual({ status: 413, code: 'tooLarge' });
    call.destroy();
  });

  it('is refused as soon as it has grown too large where it is not, and the server goes on', async () => {
    const call = upload({ 'transfer-encoding': 'chunked' });
    call.on('error', () => undefined);
    const answer = answerOf(call);
    const megabyte = Buffer.alloc(1024 * 1024, 'x');
    let sent = 0;
    let isAnswered = false;
    void answer.then(() => (isAnswered = true));
    for (; sent < 80 && !isAnswered && !call.destroyed; sent++)
      if (!call.write(megabyte)) await Promise.race([once(call, 'drain'), answer]).catch(() => undefined);
    expect(await answer).toEqual({ status: 413, code: 'tooLarge' });
    expect(sent).toBeLessThan(80);
    call.destroy();
    expect((await teo.get('/api/orders')).statusCode).toBe(200);
  });
});

describe('whoever takes too long', () => {
  const hasty = { ...LIMITS, headersMs: 200, requestMs: 300, lookMs: 50 };
  let app: FastifyInstance;
  beforeAll(async () => {
    app = await buildApp(testConfig(server.applicationUrl, { limits: hasty }));
    await app.listen({ host: '127.0.0.1', port: 0 });
  });
  afterAll(() => app.close());

  it.each([
    [
      'a body',
      `POST /api/session HTTP/1.1\r\nhost: x\r\ncontent-type: application/json\r\ncontent-length: 100\r\n\r\n{"name":`,
    ],
    ['headers', 'GET /api/health HTTP/1.1\r\nhost: x\r\nx-slow: '],
  ])('to send %s is told so and hung up on, many at once', async (_, text) => {
    const said = await Promise.all(
      Array.from({ length: 40 }, async () => {
        const socket = connect(portOf(app), '127.0.0.1');
        let heard = '';
        socket.setEncoding('utf8').on('data', (chunk: string) => (heard += chunk));
        socket.write(text);
        await once(socket, 'close');
        return heard;
      }),
    );
    expect(new Set(said.map((heard) => heard.split('\r\n')[0]))).toEqual(new Set(['HTTP/1.1 408 Request Timeout']));
    expect(said.every((heard) => heard.includes('"code":"tooSlow"'))).toBe(true);
  });
});

/** Stands between a server and its database, and can stop passing anything on without closing: a database that hangs. */
async function pausable(target: URL): Promise<{
  readonly url: string;
  readonly hang: () => void;
  readonly goOn: () => void;
  readonly close: () => Promise<void>;
}> {
  const sockets = new Set<Socket>();
  let isHanging = false;
  const proxy: Server = createServer((client) => {
    const upstream = connect(Number(target.port), target.hostname);
    for (const socket of [client, upstream]) {
      sockets.add(socket);
      socket.on('error', () => undefined).on('close', () => sockets.delete(socket));
    }
    if (!isHanging) client.pipe(upstream).pipe(client);
  }).listen(0, '127.0.0.1');
  await once(proxy, 'listening');
  const url = new URL(target);
  url.port = String((proxy.address() as AddressInfo).port);
  const each = (act: (socket: Socket) => void) => sockets.forEach(act);
  return {
    url: url.href,
    hang: () => {
      isHanging = true;
      each((socket) => void socket.unpipe().pause());
    },
    goOn: () => {
      isHanging = false;
      each((socket) => socket.destroy());
    },
    close: async () => {
      each((socket) => socket.destroy());
      await new Promise((resolve) => proxy.close(resolve));
    },
  };
}

describe('a database that hangs', () => {
  it('is said by health, holds no request for ever, and all goes on once it answers', async () => {
    const between = await pausable(new URL(server.applicationUrl));
    const app = await buildApp(testConfig(between.url, { limits: { ...LIMITS, handlerMs: 400 } }));
    try {
      const health = () => app.inject({ url: '/api/health' });
      expect((await health()).statusCode).toBe(200);
      between.hang();
      const signIn = app.inject({
        method: 'POST',
        url: '/api/session',
        payload: { name: 'lead', password: 'x', station: 'y' },
      });
      const [sick, list, entry] = await Promise.all([
        health(),
        app.inject({ url: '/api/orders', headers: { cookie: teo.cookie } }),
        signIn,
      ]);
      // Whichever limit comes first, the answer says that the database does not.
      expect([sick.statusCode, list.statusCode, entry.statusCode]).toEqual([503, 503, 503]);
      between.goOn();
      await expect.poll(async () => (await health()).statusCode, { timeout: 15_000 }).toBe(200);
      expect((await app.inject({ url: '/api/orders', headers: { cookie: teo.cookie } })).statusCode).toBe(200);
    } finally {
      await between.close();
      await app.close();
    }
  });
});

describe('a file that is read in a thread', () => {
  it('is read through over a real connection, and stopped when its sender hangs up', async () => {
    const url = `http://127.0.0.1:${portOf(server.app)}/api/record-checks`;
    const answer = await fetch(url, {
      method: 'POST',
      headers: { cookie: teo.cookie, 'content-type': 'application/json' },
      body: '{}',
    });
    expect([answer.status, ((await answer.json()) as { holds: boolean }).holds]).toEqual([200, false]);
    const hangUp = new AbortController();
    const slow = fetch(url, {
      method: 'POST',
      headers: { cookie: teo.cookie, 'content-type': 'application/json' },
      body: `[${'{},'.repeat(1_000_000)}{}]`,
      signal: hangUp.signal,
    }).catch((error: Error) => error.name);
    hangUp.abort();
    expect(await slow).toBe('AbortError');
    expect(
      (
        await fetch(url, {
          method: 'POST',
          headers: { cookie: teo.cookie, 'content-type': 'application/json' },
          body: '{}',
        })
      ).status,
    ).toBe(200);
  });
});
