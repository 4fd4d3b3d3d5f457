import { randomUUID } from 'node:crypto';
import type { LightMyRequestResponse } from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LineUnit } from '@decurio/contract';
import {
  Bench,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

interface Operation {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  readonly path: string;
  readonly parameters: readonly { readonly name: string; readonly in: 'path' | 'query' }[];
  readonly body: JsonSchema | null;
}

interface JsonSchema {
  readonly type?: string | readonly string[];
  readonly properties?: Readonly<Record<string, JsonSchema>>;
  readonly items?: JsonSchema;
}

let server: TestServer;
let asta: Person;
let units: readonly LineUnit[];
let orderId: string;
let bench: Bench;
let operations: readonly Operation[];
beforeAll(async () => {
  server = await startTestServer();
  asta = await signInAs(server, 'owner');
  await fillLibrary(asta);
  const order = await takeOrder(asta, orderFile(['S26-0001', 'S26-0002']));
  units = order.units;
  orderId = order.taken.orderId;
  bench = await new Bench(asta, units[0]!.id).open();
  operations = described((await asta.get('/api/openapi.json')).json());
  // Signing out would end the walk.
  operations = operations.filter(
    ({ method, path }) => !(method === 'DELETE' && path === '/api/session') && path !== '/api/changes',
  );
  expect(operations.length).toBeGreaterThan(40);
});
afterAll(() => server.close());

function described({
  paths,
}: {
  readonly paths: Readonly<
    Record<
      string,
      Readonly<
        Record<
          string,
          { parameters?: Operation['parameters']; requestBody?: { content?: Record<string, { schema?: JsonSchema }> } }
        >
      >
    >
  >;
}): readonly Operation[] {
  return Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, { parameters = [], requestBody }]) => ({
      method: method.toUpperCase() as Operation['method'],
      path,
      parameters,
      body: requestBody?.content?.['application/json']?.schema ?? null,
    })),
  );
}

/** Ids of what is there, so that a request is not turned away at the first thing it names. */
const known = (path: string): Readonly<Record<string, string>> => ({
  unitId: bench.unitId,
  visitId: bench.visitId,
  id: path.startsWith('/api/orders')
    ? orderId
    : path.startsWith('/api/units')
      ? units[1]!.id
      : path.startsWith('/api/visits')
        ? bench.visitId
        : path.includes('rulePack')
          ? 'port-isel'
          : path.includes('library')
            ? 'tallow-four-key'
            : randomUUID(),
  kind: 'displayMap',
  version: '1',
  classId: 'pedelec-25',
});

const address = ({ path }: Operation, over: Readonly<Record<string, string>> = {}): string =>
  path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(over[name] ?? known(path)[name] ?? 'x'));

const ODD_TEXTS = [
  '',
  ' ',
  'ä',
  '\u{1f6b2}',
  '\u0000',
  "' OR 1=1 --",
  '%',
  '%00',
  '../../etc/passwd',
  'x'.repeat(5_000),
  '-1',
  '1e999',
  'null',
  '__proto__',
  '\ud800',
];
const encoded = (text: string): string => {
  try {
    return encodeURIComponent(text);
  } catch {
    return '%ED%A0%80';
  }
};

const ODD_VALUES: readonly unknown[] = [
  null,
  true,
  -1,
  1.5,
  1e308,
  '',
  'ä\u{1f6b2}\u0000',
  'x'.repeat(20_000),
  [],
  [null],
  {},
  { a: { b: {} } },
];

/** One body for each field and each thing that it is not. */
function spoiltBodies(schema: JsonSchema): readonly unknown[] {
  const fields = Object.keys(schema.properties ?? {});
  const whole = Object.fromEntries(
    Object.entries(schema.properties ?? {}).map(([name, field]) => [name, plausible(name, field)]),
  );
  return [
    whole,
    ...fields.flatMap((name) => ODD_VALUES.map((value) => ({ ...whole, [name]: value }))),
    ...fields.map((name) => Object.fromEntries(Object.entries(whole).filter(([other]) => other !== name))),
  ];
}

function plausible(name: string, { type, properties, items }: JsonSchema): unknown {
  const kind = [type].flat()[0];
  if (name === 'at') return new Date().toISOString();
  if (/id$/i.test(name) || name === 'id') return randomUUID();
  if (kind === 'object')
    return Object.fromEntries(Object.entries(properties ?? {}).map(([key, field]) => [key, plausible(key, field)]));
  if (kind === 'array') return items ? [plausible('item', items)] : [];
  if (kind === 'number' || kind === 'integer') return 2;
  if (kind === 'boolean') return true;
  return 'words';
}

const faults: string[] = [];
function keep(what: string, { statusCode, body }: LightMyRequestResponse): void {
  if (statusCode >= 500 && statusCode !== 503) faults.push(`${what}: ${statusCode} ${body.slice(0, 120)}`);
  if (statusCode >= 400 && !/"error":\{"code":"\w+","message":"/.test(body))
    faults.push(`${what}: ${statusCode} without the one error shape: ${body.slice(0, 120)}`);
}

async function ask(
  operation: Operation,
  url: string,
  payload?: string,
  type = 'application/json',
): Promise<LightMyRequestResponse> {
  const answer = await server.app.inject({
    method: operation.method,
    url,
    headers: { cookie: asta.cookie, ...(payload === undefined ? {} : { 'content-type': type }) },
    ...(payload === undefined ? {} : { payload }),
  });
  keep(`${operation.method} ${url.slice(0, 120)} ${payload?.slice(0, 60) ?? ''}`, answer);
  return answer;
}

describe('nothing that anybody sends is a fault of the server', () => {
  const none = () => {
    expect(faults.splice(0)).toEqual([]);
  };

  it('bodies that are not there, or are something else', async () => {
    const bodies = [
      'null',
      '[]',
      '"x"',
      '4',
      'true',
      '{}',
      '{',
      '',
      'undefined',
      '['.repeat(10_000),
      '{"a":'.repeat(5_000),
      '{"__proto__":{"x":1}}',
      '{"constructor":{"prototype":{"x":1}}}',
      `{"x":"${'y'.repeat(300_000)}"}`,
      '\ufeff{}',
      '{"\\ud800":1}',
    ];
    for (const operation of operations.filter(({ method }) => method !== 'GET')) {
      await ask(operation, address(operation));
      for (const body of bodies) await ask(operation, address(operation), body);
      for (const type of [
        'text/plain',
        'application/xml',
        'multipart/form-data; boundary=x',
        'image/jpeg',
        'text/csv',
        'application/json; charset=utf-16',
        'x',
      ])
        await ask(operation, address(operation), '{}', type);
    }
    none();
  });

  it('fields of every wrong type, and each left out', async () => {
    let sent = 0;
    for (const operation of operations) {
      for (const body of operation.body ? spoiltBodies(operation.body) : []) {
        await ask(operation, address(operation), JSON.stringify(body));
        sent++;
      }
    }
    expect(sent).toBeGreaterThan(500);
    none();
  });

  it.each(ODD_TEXTS.map((text, nth) => ({ nth, text })))(
    'odd words in paths and questions: those at $nth',
    async ({ text }) => {
      for (const operation of operations) {
        const body = operation.method === 'GET' ? undefined : '{}';
        for (const { name } of operation.parameters.filter((parameter) => parameter.in === 'path'))
          await ask(
            operation,
            address(operation).replace(encodeURIComponent(known(operation.path)[name] ?? 'x'), encoded(text)),
            body,
          );
        for (const { name } of operation.parameters.filter((parameter) => parameter.in === 'query'))
          await ask(operation, `${address(operation)}?${name}=${encoded(text)}`);
        await ask(operation, `${address(operation)}?${encoded(text)}=${encoded(text)}`, body);
      }
      none();
    },
  );

  it('entries of every kind with data of every other', async () => {
    const schema = operations.find(({ path }) => path.endsWith('/evidence'))?.body;
    expect(schema).toBeTruthy();
    const { evidenceSchemas } = await import('@decurio/contract');
    for (const kind of Object.keys(evidenceSchemas)) {
      for (const data of [
        ...ODD_VALUES,
        { label: 'ä', raw: 1 },
        { label: 'L1.2', raw: Number.MAX_SAFE_INTEGER },
        { labels: Array.from({ length: 200 }, () => 'L1.2') },
        { voids: randomUUID() },
        { words: '\u0000' },
      ]) {
        await ask(
          { method: 'POST', path: '', parameters: [], body: null },
          `/api/units/${bench.unitId}/visits/${bench.visitId}/evidence`,
          JSON.stringify({ id: randomUUID(), seq: 2, kind, at: new Date().toISOString(), data }),
        );
      }
    }
    none();
  });

  it('headers and cookies of all sorts', async () => {
    for (const headers of [
      { cookie: 'decurio-session=%' },
      { cookie: `decurio-session=${'x'.repeat(3_000)}` },
      { cookie: '=;;=' },
      { 'last-event-id': 'ä' },
      { 'x-stand-clock': '9'.repeat(400) },
      { 'x-forwarded-for': '\u00e4, ::::' },
      { 'accept-encoding': 'x'.repeat(2_000) },
      { 'content-length': '5' },
    ] as Record<string, string>[]) {
      keep(JSON.stringify(headers).slice(0, 60), await server.app.inject({ url: '/api/orders', headers }));
    }
    none();
  });
});
