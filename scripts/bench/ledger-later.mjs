import { Agent, request } from 'node:http';
import { checkersFor } from '../../server/dist/ledger/check-in-threads.js';
import { verifyLedger } from '../../server/dist/ledger/verify-ledger.js';
import { makeDataSource } from '../../server/dist/store/data-source.js';
import { msOf, spreadsOf } from './timing.mjs';

/** @typedef {import('mysql2/promise').Connection} Connection */
/** @typedef {import('../lib/api-client.mjs').Client} Client */

/**
 * Sends `count` units out, a hundred an order, straight in the database: all set up as those of the demo's own order.
 * @param {Connection} owner @param {number} count
 */
export async function fillOut(owner, count) {
  const orders = Math.ceil(count / 100);
  await copyRows(owner, 'customer_order', {
    from: `(SELECT * FROM customer_order WHERE number = '2611') t, seq_1_to_${orders} s`,
    id: "CONCAT('30000000-0000-4000-8000-', LPAD(s.seq, 12, '0'))",
    number: "CONCAT('OUT-', s.seq)",
    customer: "CONCAT('Customer ', s.seq % 40)",
    units: '100',
    sealed: '100',
    held: '0',
  });
  await copyRows(owner, 'unit', {
    from: `(SELECT u.* FROM unit u WHERE u.serial = 'S26-0402') t, seq_1_to_${count} s`,
    id: "CONCAT('10000000-0000-4000-8000-', LPAD(s.seq, 12, '0'))",
    orderId: "CONCAT('30000000-0000-4000-8000-', LPAD(1 + (s.seq - 1) DIV 100, 12, '0'))",
    position: '1 + (s.seq - 1) % 100',
    serial: "CONCAT('OUT-', LPAD(s.seq, 6, '0'))",
    openSerial: 'NULL',
    visitId: "CONCAT('20000000-0000-4000-8000-', LPAD(s.seq, 12, '0'))",
    handedTo: "'somebody'",
    handedOverAt: 'NOW(3)',
  });
  await copyRows(owner, 'left_visit', {
    from: `(SELECT l.* FROM left_visit l WHERE l.serial = 'S26-0402') t, seq_1_to_${count} s`,
    visitId: "CONCAT('20000000-0000-4000-8000-', LPAD(s.seq, 12, '0'))",
    unitId: "CONCAT('10000000-0000-4000-8000-', LPAD(s.seq, 12, '0'))",
    orderId: "CONCAT('30000000-0000-4000-8000-', LPAD(1 + (s.seq - 1) DIV 100, 12, '0'))",
    serial: "CONCAT('OUT-', LPAD(s.seq, 6, '0'))",
    customer: "CONCAT('Customer ', ((s.seq - 1) DIV 100) % 40)",
    worstKmh: '18 + s.seq % 8',
  });
  await owner.query('ANALYZE TABLE unit, left_visit, customer_order');
}

/** Takes out again what `fillOut` put there. @param {Connection} owner */
export async function dropOut(owner) {
  await owner.query("DELETE FROM left_visit WHERE visitId LIKE '20000000-0000-4000-8000-%'");
  await owner.query("DELETE FROM unit WHERE id LIKE '10000000-0000-4000-8000-%'");
  await owner.query("DELETE FROM customer_order WHERE id LIKE '30000000-0000-4000-8000-%'");
}

/** Rows of a table as one of its own has them, but for the columns named.
 * @param {Connection} owner @param {string} table @param {Record<string, string>} how */
async function copyRows(owner, table, { from, ...own }) {
  const [columns] = await owner.query(
    'SELECT COLUMN_NAME AS name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ? ORDER BY ORDINAL_POSITION',
    [table],
  );
  const names = /** @type {{ name: string }[]} */ (columns).map(({ name }) => name);
  await owner.query(
    `INSERT INTO ${table} (${names.join(', ')}) SELECT ${names.map((name) => own[name] ?? `t.${name}`).join(', ')} FROM ${from}`,
  );
}

/**
 * Holds every unit that is out against rules that moved.
 * @param {string} address @param {Client} lead
 * @returns {Promise<{ ms: number, units: number, moved: number }>}
 */
export async function holdAll(address, lead) {
  const pack = (await lead.get('/api/library/rulePack')).find(
    (/** @type {{ id: string }} */ { id }) => id === 'port-isel',
  );
  const classes = pack.document.classes.map((/** @type {object} */ each) => ({
    ...each,
    limit: { value: 20, unit: 'km/h' },
    checked: null,
  }));
  await lead.post('/api/library', { kind: 'rulePack', document: { ...pack.document, classes } });
  let last = '';
  const ms = await msOf(async () => {
    last = await lastLine(`${address}/api/ledger/moved/rulePack/port-isel`, lead.cookie);
  });
  const { units, moved } = JSON.parse(last);
  return { ms, units, moved };
}

/** @param {string} url @param {string} cookie @returns {Promise<string>} */
const lastLine = (url, cookie) =>
  new Promise((done, failed) => {
    request(url, { agent: new Agent(), headers: { cookie } }, (answer) => {
      let rest = '';
      answer.setEncoding('utf8');
      answer.on('data', (chunk) => (rest = `${rest}${chunk}`.slice(-2_000)));
      answer.once('end', () => done(rest.trim().split('\n').at(-1) ?? ''));
    })
      .once('error', failed)
      .end();
  });

/** How long a unit's life takes, beside a bare reply. @param {Client} person @param {string} serial */
export async function lifeFigures(person, serial) {
  const spreads = await spreadsOf(
    { bare: () => person.get('/api/ledger/checkpoints'), life: () => person.get(`/api/ledger/units/${serial}`) },
    40,
  );
  return { ms: spreads.life.p95, bareMs: spreads.bare.p95 };
}

/** Entries a second of the whole walk. @param {string} databaseUrl */
export async function verifyFigures(databaseUrl) {
  const source = await makeDataSource(databaseUrl, 6).initialize();
  const checkers = await checkersFor(source, databaseUrl);
  try {
    let checked = { entries: 0, visits: 0, findings: 0 };
    const ms = await msOf(async () => {
      checked = await verifyLedger(source, () => undefined, checkers);
    });
    return { perSecond: (1000 * checked.entries) / ms, ...checked };
  } finally {
    await checkers.close();
    await source.destroy();
  }
}

/** How long the archive of an order takes. @param {string} address @param {string} cookie @param {string} orderId */
export async function archiveFigures(address, cookie, orderId) {
  /** @type {any} */
  const order = await (await fetch(`${address}/api/orders/${orderId}`, { headers: { cookie } })).json();
  const units = Math.max(1, order.order.sealed);
  let bytes = 0;
  const ms = await msOf(
    () =>
      new Promise((done, failed) => {
        request(
          `${address}/api/orders/${orderId}/archive.zip`,
          { agent: new Agent(), headers: { cookie } },
          (answer) => {
            if (answer.statusCode !== 200) failed(new Error(String(answer.statusCode)));
            answer.on('data', (chunk) => (bytes += chunk.length));
            answer.once('end', done);
          },
        )
          .once('error', failed)
          .end();
      }),
  );
  return { ms, bytes, units };
}
