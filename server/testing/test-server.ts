import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { FastifyInstance, LightMyRequestResponse } from 'fastify';
import { createConnection } from 'mysql2/promise';
import { inject } from 'vitest';
import { checksLeft, foldVisit, type Evidence, type Role, type RulePack, type VisitState } from '@decurio/core';
import { nextProof } from '../../core/testing/proofs.js';
import { goodCheck } from '../../core/testing/good-check.js';
import type {
  LibraryKind,
  BenchView,
  EntryTaken,
  ErrorBody,
  IntakeReport,
  LineUnit,
  LineView,
  NewEvidence,
  TakenView,
} from '@decurio/contract';
import { demoText, withDays } from '../../scripts/lib/demo-files.mjs';
import { buildApp } from '../app.js';
import { LIMITS, type Config } from '../config.js';
import { addAccount } from '../store/accounts.js';
import { migrate } from '../store/migrate.js';

export const PASSWORD = 'marram-grass';
export const demoFile = demoText;

export interface TestServer {
  readonly app: FastifyInstance;
  /** With the application's rights, as the server has them. */
  readonly applicationUrl: string;
  readonly ownerUrl: string;
  readonly close: () => Promise<void>;
}

/** How a server under test runs: on this database, silent, the API alone. */
export const testConfig = (databaseUrl: string, over: Partial<Config> = {}): Config => ({
  host: '127.0.0.1',
  port: 0,
  databaseUrl,
  ownerUrl: null,
  cookieSecret: 'for tests only',
  pinSecret: 'for tests only',
  checkpointKeyFile: null,
  webRoot: null,
  logLevel: 'silent',
  secureCookie: false,
  tls: null,
  metricsToken: null,
  pinSecretBefore: null,
  given: new Set(),
  publicOrigin: null,
  trustedProxies: [],
  limits: LIMITS,
  ...over,
});

/** A server on a database of its own, with one account per role, named as the role. */
export async function startTestServer(): Promise<TestServer> {
  const urls = await freshDatabase();
  const app = await buildApp(testConfig(urls.applicationUrl));
  for (const role of ['technician', 'lead', 'owner'] as const) {
    await addAccount(app.source, {
      signInName: role,
      displayName: `The ${role}`,
      role,
      password: PASSWORD,
      isDemo: false,
    });
  }
  return { app, ...urls, close: () => app.close() };
}

/** A database of its own, empty or as a dump left it, migrated, with the two users' addresses. */
export async function freshDatabase(
  dump?: string,
): Promise<{ readonly ownerUrl: string; readonly applicationUrl: string }> {
  const name = `decurio_${randomUUID().slice(0, 8)}`;
  const owner = new URL(inject('ownerUrl'));
  const connection = await createConnection(owner.href);
  await connection.query(`CREATE DATABASE ${name}`);
  await connection.end();
  const application = new URL(inject('applicationUrl'));
  owner.pathname = application.pathname = `/${name}`;
  if (dump !== undefined) fill(owner, dump);
  await migrate(owner.href, application.href);
  return { ownerUrl: owner.href, applicationUrl: application.href };
}

function fill({ hostname, port, username, password, pathname }: URL, dump: string): void {
  const done = spawnSync(
    'mariadb',
    ['--no-defaults', `--host=${hostname}`, `--port=${port}`, `--user=${username}`, pathname.slice(1)],
    { env: { ...process.env, MYSQL_PWD: password }, input: readFileSync(dump), encoding: 'utf8' },
  );
  if (done.status !== 0) throw new Error(`the database could not be filled: ${done.stderr}`);
}

/** Asks the database with its owner's rights, as the application itself never can. */
export async function asDatabaseOwner<T>(
  { ownerUrl }: Pick<TestServer, 'ownerUrl'>,
  sql: string,
  values: unknown[] = [],
): Promise<T> {
  const connection = await createConnection({ uri: ownerUrl, timezone: 'Z' });
  try {
    return (await connection.query(sql, values))[0] as T;
  } finally {
    await connection.end();
  }
}

/** What one signed-in person can ask. */
export interface Person {
  readonly cookie: string;
  readonly get: (url: string) => Promise<LightMyRequestResponse>;
  readonly post: (url: string, body?: unknown, type?: string) => Promise<LightMyRequestResponse>;
  readonly put: (url: string, body: unknown) => Promise<LightMyRequestResponse>;
}

export const signInAs = (server: TestServer, role: Role): Promise<Person> => signIn(server, role);

export async function signIn({ app }: TestServer, name: string): Promise<Person> {
  const answer = await app.inject({
    method: 'POST',
    url: '/api/session',
    payload: { name, password: PASSWORD, station: 'bay 7' },
  });
  if (answer.statusCode >= 400) throw new Error(answer.body);
  const cookie = String(answer.headers['set-cookie']).split(';')[0] ?? '';
  return {
    cookie,
    get: (url) => app.inject({ method: 'GET', url, headers: { cookie } }),
    put: (url, body) =>
      app.inject({
        method: 'PUT',
        url,
        headers: { cookie, 'content-type': 'application/json' },
        payload: JSON.stringify(body),
      }),
    post: (url, body = {}, type = 'application/json') =>
      app.inject({
        method: 'POST',
        url,
        headers: { cookie, 'content-type': type },
        payload: type === 'application/json' ? JSON.stringify(body) : (body as string),
      }),
  };
}

export const errorOf = (answer: LightMyRequestResponse): ErrorBody['error'] => answer.json<ErrorBody>().error;

/** Puts the demo's maps, types and rules on the shelves; only an owner brings in maps that another house confirmed. */
export async function fillLibrary(owner: Person): Promise<void> {
  const files = [
    ['displayMap', 'maps/tallow-four-key.json'],
    ['displayMap', 'maps/fescue-three-key.json'],
    ['vehicleType', 'types/samphire-26.json'],
    ['vehicleType', 'types/cockle-20.json'],
    ['rulePack', 'rules/port-isel.json'],
    ['houseRules', 'rules/hire-default.json'],
  ] as const;
  for (const [kind, file] of files) {
    const document = JSON.parse(demoFile(file)) as object;
    await owner.post('/api/library', { kind, document: { ...document, ...QUIET[kind]?.(document) } });
  }
  await confirmClass(owner, 'pedelec-25', 1);
}

/**
 * What a lead decides on every order, and what is checked on every unit, is tried where that is the point, and is in
 * nobody's way elsewhere.
 */
const QUIET: Partial<Record<LibraryKind, (document: object) => object>> = {
  rulePack: (pack) => ({
    classes: (pack as RulePack).classes.map((each) => ({ ...each, settingsOutOfReach: false })),
  }),
  vehicleType: () => ({ numbers: [], checkList: null }),
};

/** A lead's confirmation of a class of the demo's place, good for a long time. */
export const confirmClass = (person: Person, classId: string, version: number): Promise<LightMyRequestResponse> =>
  person.post(`/api/library/rulePack/port-isel/classes/${classId}/confirm`, {
    version,
    authority: 'Port Isel harbour office',
    source: 'Letter 12 of the office',
    expiresOn: '2099-12-31',
  });

/** When the tests' orders are due: a Thursday next week, as order files write it. */
export const DUE = withDays('{Thu+1} 08:00', new Date());
export const ORDER_HEADER = 'order,customer,due,place,class,type,serial';
export const orderRow = (serial: string, order = '2611', type = 'Samphire 26'): string =>
  `${order},Causeway Holiday Park,${DUE},Port Isel,pedelec-25,${type},${serial}`;
export const orderFile = (serials: readonly string[], order = '2611'): string =>
  [ORDER_HEADER, ...serials.map((serial) => orderRow(serial, order))].join('\n');

export async function checkFile(
  person: Person,
  body: string | Buffer,
  fileName = 'order.csv',
): Promise<LightMyRequestResponse> {
  return person.post(`/api/intakes?id=${randomUUID()}&fileName=${encodeURIComponent(fileName)}`, body, 'text/csv');
}

/** Takes a whole file in and gives the order's units. */
export async function takeOrder(
  person: Person,
  body: string,
): Promise<{ readonly taken: TakenView; readonly units: readonly LineUnit[] }> {
  const report = (await checkFile(person, body)).json<IntakeReport>();
  const taken = (await person.post(`/api/intakes/${report.intakeId}/take`)).json<TakenView>();
  const line = (await person.get(`/api/orders/${taken.orderId}/line`)).json<LineView>();
  return { taken, units: line.units };
}

/** One unit being worked through the API, entry by entry. */
export class Bench {
  readonly evidence: Evidence[] = [];
  readonly visitId = randomUUID();

  constructor(
    private readonly person: Person,
    readonly unitId: string,
  ) {}

  get state(): VisitState {
    const fold = foldVisit(this.evidence);
    if (!fold.ok) throw new Error(fold.problem.message);
    return fold.value;
  }

  async open(): Promise<this> {
    const answer = await this.person.post(`/api/units/${this.unitId}/visits`, {
      visitId: this.visitId,
      entryId: randomUUID(),
      at: new Date().toISOString(),
    });
    if (answer.statusCode !== 201) throw new Error(answer.body);
    this.evidence.push(answer.json<Evidence>());
    return this;
  }

  draft(kind: NewEvidence['kind'], data: object): NewEvidence {
    return { id: randomUUID(), seq: this.evidence.length + 1, kind, at: new Date().toISOString(), data } as NewEvidence;
  }

  send(draft: NewEvidence, person = this.person): Promise<LightMyRequestResponse> {
    return person.post(`/api/units/${this.unitId}/visits/${this.visitId}/evidence`, draft);
  }

  async act(kind: NewEvidence['kind'], data: object = {}): Promise<void> {
    const answer = await this.send(this.draft(kind, data));
    if (answer.statusCode !== 201) throw new Error(answer.body);
    this.keep(answer);
  }

  /** Keeps what an accepted entry brought. */
  keep(answer: LightMyRequestResponse): void {
    const { entry, followed } = answer.json<EntryTaken>();
    this.evidence.push(entry, ...followed);
  }

  /** Checked in, made safe and read as found, with the values given and as delivered elsewhere. */
  async toKeyIn(shows: Readonly<Record<string, number>> = {}): Promise<this> {
    await this.makeChecks('checkIn');
    await this.act('checkedIn', CHECK_IN);
    await this.makeSafe();
    await this.readFound(shows);
    await this.act('asFoundClosed');
    return this;
  }

  async readFound(shows: Readonly<Record<string, number>> = {}): Promise<void> {
    for (let label = this.state.toFind[0]; label !== undefined; label = this.state.toFind[0])
      await this.act('asFoundRead', { label, raw: shows[label] ?? this.state.values[label] });
  }

  makeSafe(): Promise<void> {
    return this.act('madeSafe', { cautions: this.state.opened.bench?.cautions ?? [] });
  }

  async toReadBack(): Promise<this> {
    await this.toKeyIn();
    await this.keyAll();
    return this;
  }

  async keyAll(): Promise<void> {
    for (const label of this.state.toKey) {
      const raw = this.state.opened.setup.targets.find((t) => t.label === label)?.raw;
      await this.act('codeKeyed', { label, fromRaw: this.state.values[label], raw, presses: 3 });
    }
    await this.act('keyInClosed');
    await this.act('restarted', { acts: ['Off and on.'] });
  }

  async toSignOff(): Promise<this> {
    await this.toReadBack();
    await this.readAll();
    return this;
  }

  async readAll(): Promise<void> {
    for (const label of this.state.toRead) await this.act('codeRead', { label, raw: this.state.values[label] });
    await this.act('readBackClosed');
    await this.act('stepByHand', { step: 'calibrate', done: false, words: '' });
    await this.prove();
  }

  async makeChecks(step: 'checkIn' | 'prove'): Promise<void> {
    const { serial } = this.state.opened;
    for (const check of checksLeft(this.state, step)) await this.act('checkMade', goodCheck(check, serial));
  }

  /** Every test of it, as one in order shows it. */
  async prove(): Promise<void> {
    await this.makeChecks('prove');
    for (let next = nextProof(this.state); next !== null; next = nextProof(this.state)) {
      const [kind, data] = next;
      await this.act(kind, data);
    }
  }

  /** Signs off under the check of the class as the bench shows it now. */
  async sign(words = ''): Promise<LightMyRequestResponse> {
    const { classCheck: check } = (await this.person.get(`/api/units/${this.unitId}/bench`)).json<BenchView>();
    const answer = await this.send(this.draft('signedOff', { words, check }));
    if (answer.statusCode === 201) this.keep(answer);
    return answer;
  }
}

export const CHECK_IN = {
  revisionConfirmed: true,
  odometerKm: 2,
  packV: 39.8,
  packCondition: 'sound',
  tyreBar: null,
  cablesFree: true,
  clampSound: true,
  accessories: 'charger',
  damage: '',
} as const;
