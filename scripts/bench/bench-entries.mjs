import { randomUUID } from 'node:crypto';
import { Agent, request } from 'node:http';
import { setTimeout as after } from 'node:timers/promises';
import { playVisit } from '../lib/load-demo.mjs';
import { takeOrder } from './fill.mjs';
import { quantiles } from './timing.mjs';

const STANDS = 20;
const ENTRIES = 60;
/** Of what waited at a stand, in one request. */
const TOGETHER = 10;
const LONG = 2_000;
/** Between two entries of one stand: faster than anybody presses keys for long. */
const PRESS_MS = 200;

/**
 * Entries that a server accepts with twenty stands at work at once, each on a unit of its own: one a request beside bare
 * replies of the same server to the same sessions, and ten a request beside bare inserts of the same bytes, each
 * row committed by itself, over as many connections to the same database.
 * @param {string} address
 * @param {import('../lib/api-client.mjs').Client} office
 * @param {() => Promise<import('mysql2/promise').Connection>} connect
 */
export async function entriesPerSecond(address, office, connect) {
  const orderId = await takeOrder(office, 'T20', STANDS + 1);
  const { units } = await office.get(`/api/orders/${orderId}/line`);
  const agent = new Agent({ keepAlive: true, maxSockets: STANDS });
  const send = sender(address, office.cookie, agent);
  /** @type {Stand[]} */
  const stands = [];
  for (const { id, serial } of units) stands.push(await opened(office, id, serial, send));
  const long = /** @type {Stand} */ (stands.pop());
  const one = stands.map(
    ({ write }) =>
      () =>
        write(1),
  );
  const bare = stands.map(() => () => send('GET', '/api/ledger/checkpoints'));
  await rate(bare, 10);
  const replies = await rate(bare, ENTRIES);
  await rate(one, 10);
  const single = await rate(one, ENTRIES);
  const repliesAfter = await rate(bare, ENTRIES);
  const together = await rate(
    stands.map(
      ({ write }) =>
        () =>
          write(TOGETHER),
    ),
    ENTRIES,
  );
  const body = JSON.stringify(long.sample);
  const inserted = await bareInserts(connect, body);
  const short = await timed(long, 20);
  while (long.seq() < LONG) await long.write(TOGETHER);
  const far = await timed(long, 20);
  // As a server is that has been at work for a while.
  const pressed = await rate(one, ENTRIES, PRESS_MS);
  agent.destroy();
  return {
    single: single.perSecond,
    p95Ms: single.p95,
    pressedP95Ms: pressed.p95,
    replies: (replies.perSecond + repliesAfter.perSecond) / 2,
    together: together.perSecond * TOGETHER,
    inserted: inserted.perSecond,
    shortMs: short,
    longMs: far,
    bytes: body.length,
  };
}

/** Milliseconds that one entry takes there, half of the time less.
 * @param {Stand} stand @param {number} times */
async function timed({ write }, times) {
  const { p50 } = await rate([() => write(1)], times);
  return p50;
}

/** @param {(() => Promise<unknown>)[]} stands each does one after another @param {number} times
 * @param {number} [everyMs] from one to the next; at once where left out */
export async function rate(stands, times, everyMs = 0) {
  /** @type {number[]} */
  const took = [];
  const start = performance.now();
  await Promise.all(
    stands.map(async (act, i) => {
      // Nobody presses in step with the others.
      if (everyMs > 0) await after((everyMs * i) / stands.length);
      for (let i = 0; i < times; i++) {
        const begun = performance.now();
        await act();
        took.push(performance.now() - begun);
        if (everyMs > 0) await after(Math.max(0, begun + everyMs - performance.now()));
      }
    }),
  );
  return { perSecond: (stands.length * times * 1000) / (performance.now() - start), ...quantiles(took) };
}

/** @param {() => Promise<import('mysql2/promise').Connection>} connect @param {string} body */
async function bareInserts(connect, body) {
  const owner = await connect();
  await owner.query(
    'CREATE TABLE bare_entry (id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY, visitId CHAR(36) CHARACTER SET ascii COLLATE ascii_bin, seq INT, kind VARCHAR(20), body LONGTEXT, receivedAt DATETIME(3), UNIQUE KEY one (visitId, seq)) ENGINE=InnoDB',
  );
  await owner.end();
  const connections = await Promise.all(Array.from({ length: STANDS }, connect));
  const inserts = connections.map((connection) => {
    const visitId = randomUUID();
    let seq = 0;
    return () =>
      connection.query('INSERT INTO bare_entry VALUES (?, ?, ?, ?, ?, UTC_TIMESTAMP(3))', [
        randomUUID(),
        visitId,
        (seq += 1),
        'codeSeen',
        body,
      ]);
  });
  await rate(inserts, 10);
  const inserted = await rate(inserts, ENTRIES);
  await Promise.all(connections.map((connection) => connection.end()));
  return inserted;
}

/** @typedef {(method: 'GET' | 'POST', path: string, body?: object) => Promise<any>} Send */

/** Asks over kept connections, with as little of its own work as can be.
 * @param {string} address @param {string} cookie @param {Agent} agent @returns {Send} */
export function sender(address, cookie, agent) {
  const { hostname, port } = new URL(address);
  return (method, path, body) =>
    new Promise((resolve, reject) => {
      const bytes = body === undefined ? undefined : JSON.stringify(body);
      const headers = {
        cookie,
        ...(bytes === undefined
          ? {}
          : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(bytes) }),
      };
      const asked = request({ hostname, port, path, method, agent, headers }, (answer) => {
        let text = '';
        answer.setEncoding('utf8');
        answer.on('data', (chunk) => (text += chunk));
        answer.on('end', () => {
          if ((answer.statusCode ?? 500) < 300) resolve(JSON.parse(text));
          else reject(new Error(`${answer.statusCode} ${path}: ${text}`));
        });
      });
      asked.on('error', reject);
      asked.end(bytes);
    });
}

/** @typedef {{ write: (count: number) => Promise<void>, seq: () => number, sample: object }} Stand */

/** A unit at key in, and how entries are written there, as many in one request.
 * @param {import('../lib/api-client.mjs').Client} person @param {string} unitId @param {string} serial @param {Send} send
 * @returns {Promise<Stand>} */
export async function opened(person, unitId, serial, send) {
  const script = /** @type {any} */ ({ serials: [serial], until: 'foundAll' });
  await playVisit(person, serial, script, { at: Date.now() - 3_600_000 });
  const { evidence } = await person.get(`/api/units/${unitId}/bench`);
  const [{ visitId, data }] = evidence;
  const { label } = data.setup.targets.find(
    (/** @type {{ offGlass?: boolean, locked: boolean }} */ target) => target.offGlass !== true && !target.locked,
  );
  const path = `/api/units/${unitId}/visits/${visitId}`;
  let seq = evidence.length;
  const next = () => ({
    id: randomUUID(),
    seq: (seq += 1),
    kind: 'codeSeen',
    at: new Date().toISOString(),
    data: { label, raw: data.factory[label] },
  });
  return {
    sample: evidence.at(-1),
    seq: () => seq,
    write: async (count) => {
      if (count === 1) return void (await send('POST', `${path}/evidence`, next()));
      const { refused } = await send('POST', `${path}/entries`, { entries: Array.from({ length: count }, next) });
      if (refused) throw new Error(refused.message);
    },
  };
}
