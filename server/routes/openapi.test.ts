import { afterAll, beforeAll, expect, it } from 'vitest';
import { signInAs, startTestServer, type TestServer } from '../testing/test-server.js';

interface Described {
  readonly paths: Readonly<
    Record<
      string,
      Readonly<
        Record<
          string,
          {
            readonly summary?: string;
            readonly parameters?: readonly { readonly name: string; readonly in: string }[];
            readonly requestBody?: object;
          }
        >
      >
    >
  >;
}

let server: TestServer;
let described: Described;
beforeAll(async () => {
  server = await startTestServer();
  described = (await (await signInAs(server, 'technician')).get('/api/openapi.json')).json<Described>();
});
afterAll(() => server.close());

/** Not part of what it describes: itself. */
const HIDDEN = new Set(['GET /api/openapi.json']);
const routes = () =>
  server.app.declaredRoutes.filter(({ method, url }) => method !== 'HEAD' && !HIDDEN.has(`${method} ${url}`));
const pathOf = (url: string): string => url.replace(/:(\w+)/g, '{$1}');

it('the description has every route that there is, and none that there is not', () => {
  const there = routes().map(({ method, url }) => `${method} ${pathOf(url)}`);
  const said = Object.entries(described.paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`),
  );
  expect(there.length).toBeGreaterThan(100);
  expect(said.toSorted()).toEqual(there.toSorted());
});

it('says of each what it does, and names everything in its address', () => {
  for (const { method, url, summary } of routes()) {
    const path = pathOf(url);
    const route = described.paths[path]?.[method.toLowerCase()];
    expect(route?.summary, `${method} ${url}`).toBe(summary);
    expect(summary, `${method} ${url}`).not.toBe('');
    const inAddress = [...url.matchAll(/:(\w+)/g)].map(([, name]) => name);
    const named = (route?.parameters ?? []).filter((each) => each.in === 'path').map(({ name }) => name);
    expect(named.toSorted(), `${method} ${url}`).toEqual(inAddress.toSorted());
  }
});
