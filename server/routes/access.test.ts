import { randomUUID } from 'node:crypto';
import { request as httpRequest } from 'node:http';
import type { AddressInfo } from 'node:net';
import Fastify from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Role } from '@decurio/core';
import { access, isMachine, type Access } from '../security/access.js';
import { ACTS, may, needs, type Act } from '../security/roles.js';
import { errorOf, signInAs, startTestServer, testConfig, type TestServer } from '../testing/test-server.js';

let server: TestServer;
let port: number;
const cookies = new Map<Role, string>();
const ROLES: readonly Role[] = ['technician', 'lead', 'owner'];
beforeAll(async () => {
  server = await startTestServer();
  await server.app.listen({ host: '127.0.0.1', port: 0 });
  ({ port } = server.app.server.address() as AddressInfo);
  for (const role of ROLES) cookies.set(role, (await signInAs(server, role)).cookie);
});
afterAll(() => server.close());

/** Asks with the address exactly as written; no client between that tidies it. */
const ask = (
  method: string,
  path: string,
  headers: Record<string, string> = {},
): Promise<{ readonly status: number; readonly body: string }> =>
  new Promise((resolve, reject) => {
    const call = httpRequest(
      { host: '127.0.0.1', port, method, path, headers: { 'content-type': 'application/json', ...headers } },
      (answer) => {
        let body = '';
        const done = () => resolve({ status: answer.statusCode ?? 0, body });
        answer
          .setEncoding('utf8')
          .on('data', (chunk: string) => (body += chunk))
          .once('end', done)
          .once('close', done);
        // A stream of changes does not end by itself.
        if (answer.headers['content-type']?.includes('event-stream') === true) answer.destroy();
      },
    );
    call.once('error', reject).end(['GET', 'HEAD', 'DELETE'].includes(method) ? undefined : '{}');
  });

/** One address in many spellings. */
const spellings = (path: string): readonly string[] => [
  path,
  path.replace('/api/', '/%61pi/'),
  path.replace('/api/', '/%61%70%69/'),
  path.replace(/[a-z]/g, (letter) => `%${letter.charCodeAt(0).toString(16)}`),
  path.replaceAll('/', '//'),
  `//${path}`,
  `/.${path}`,
  `/x/..${path}`,
  path.replace('/api/', '/api/./'),
  `${path}/`,
  `${path}?x=/welcome`,
  `${path}#/welcome`,
  path.replace('/api/', '/API/'),
  path.replace('/api/', '/api%2f'),
  path.replace('/api/', '/api;x/'),
  `http://127.0.0.1:${port}${path}`,
  `http://elsewhere.example${path}`,
  `http://elsewhere.example${path.replace('/api/', '/%61pi/')}`,
];

const filled = (url: string): string =>
  url
    .replace(/:kind/g, 'displayMap')
    .replace(/:version/g, '1')
    .replace(/:classId/g, 'a-class')
    .replace(/:(\w+)/g, () => randomUUID());

/** Every route that asks for an act; without declared routes a walk over none would pass. */
const guarded = () => {
  const routes = server.app.declaredRoutes.filter(({ access: needed }) => needed !== 'anyone');
  expect(routes.length).toBeGreaterThan(50);
  return routes;
};

describe('whoever is signed out', () => {
  it('reads and changes nothing, by whatever spelling of an address', async () => {
    const open: string[] = [];
    for (const { method, url } of guarded()) {
      for (const path of spellings(filled(url))) {
        const { status, body } = await ask(method, path);
        // Another spelling leads nowhere, or to the same closed door.
        if (status !== 401 && status !== 404 && status !== 400)
          open.push(`${method} ${path}: ${status} ${body.slice(0, 80)}`);
      }
      expect((await ask(method, filled(url))).status, `${method} ${url}`).toBe(401);
    }
    expect(open).toEqual([]);
  });

  it('is let through to the few routes that are for anyone, and to no other', () => {
    const free = server.app.declaredRoutes
      .filter(({ access: needed }) => needed === 'anyone')
      .map(({ method, url }) => `${method} ${url}`);
    expect(free).toEqual([
      'GET /api/health',
      'HEAD /api/health',
      'GET /api/welcome',
      'HEAD /api/welcome',
      'POST /api/session',
      'POST /api/first-owner',
      'DELETE /api/session',
    ]);
  });
});

describe.each(ROLES)('a %s', (role) => {
  it('may call what the role includes, and nothing more', async () => {
    for (const { method, url, access: needed } of guarded()) {
      if (url === '/api/changes') continue;
      for (const path of [filled(url), filled(url).replace('/api/', '/%61pi/')]) {
        const { status } = await ask(method, path, { cookie: cookies.get(role) ?? '' });
        // A session, whoever's, is no token of a machine.
        if (isMachine(needed)) {
          expect(status, `${role}: ${method} ${path}`).toBe(401);
          continue;
        }
        expect(status === 403, `${role}: ${method} ${path} answered ${status}`).toBe(!may(role, needed as Act));
        expect(status, `${role}: ${method} ${path}`).not.toBe(401);
      }
    }
  });
});

describe('a route that does not say who may call it', () => {
  it('is not registered: the server does not start', async () => {
    const app = Fastify();
    await app.register(access, { config: testConfig('') });
    expect(() => app.get('/api/forgotten', async () => 'open')).toThrow('does not say who may call it');
  });
});

describe('a change from the page of another site', () => {
  const change = (headers: Record<string, string>, app = server.app) =>
    app.inject({
      method: 'POST',
      url: '/api/starters/none',
      headers: { cookie: cookies.get('lead') ?? '', host: 'depot.example', ...headers },
    });

  it.each([
    { origin: 'https://elsewhere.example' },
    { origin: 'null' },
    { origin: 'nonsense' },
    { 'sec-fetch-site': 'cross-site' },
    { 'sec-fetch-site': 'same-site' },
    { origin: 'https://depot.example.elsewhere.example' },
  ] as Record<string, string>[])('is refused: %j', async (headers) => {
    const answer = await change(headers);
    expect([answer.statusCode, errorOf(answer).code]).toEqual([403, 'otherSite']);
  });

  it('is refused on signing in and out too', async () => {
    for (const method of ['POST', 'DELETE'] as const) {
      const answer = await server.app.inject({
        method,
        url: '/api/session',
        headers: { origin: 'https://elsewhere.example' },
        ...(method === 'POST' ? { payload: { name: 'lead', password: 'x', station: 'y' } } : {}),
      });
      expect(errorOf(answer).code).toBe('otherSite');
    }
  });

  it('is no such thing where the page is its own, or no browser asks', async () => {
    for (const headers of [
      { origin: 'https://depot.example', 'sec-fetch-site': 'same-origin' },
      { origin: 'http://DEPOT.example' },
      {},
    ] as Record<string, string>[])
      expect((await change(headers)).statusCode).toBe(404);
  });
});

describe('who may do what', () => {
  it('stands in the docs as the code has it', async () => {
    const roleOf = (needed: Access): string =>
      needed === 'anyone' ? 'anyone' : isMachine(needed) ? 'a token' : needs(needed);
    const rows = server.app.declaredRoutes
      .filter(({ method }) => method !== 'HEAD')
      .map(
        ({ method, url, access: needed, summary }) => [roleOf(needed), needed, `${method} ${url}`, summary] as const,
      );
    const ranks = ['anyone', 'a token', ...ROLES];
    const sorted = rows.toSorted(
      (a, b) => ranks.indexOf(a[0]) - ranks.indexOf(b[0]) || a[1].localeCompare(b[1]) || a[2].localeCompare(b[2]),
    );
    const inside = ACTS.filter((act) => !rows.some(([, needed]) => needed === act));
    const table = [
      '# Who may do what',
      '',
      'Made from the routes as they are registered; a test holds this page against them (`npx vitest run --project server -u server/routes/access.test.ts` writes it anew).',
      'Whoever may do more may do all that those above may.',
      '',
      '| at least | act | route | what it does |',
      '|---|---|---|---|',
      ...sorted.map(([role, act, route, summary]) => `| ${role} | ${act} | \`${route}\` | ${summary} |`),
      '',
      'Decided inside a route, by what it is asked:',
      '',
      '| at least | act |',
      '|---|---|',
      ...inside.map((act) => `| ${needs(act)} | ${act} |`),
      '',
    ].join('\n');
    await expect(table).toMatchFileSnapshot('../../docs/who-may-do-what.md');
  });
});
