import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { commandLine } from './lib/command.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { ensureModules, ensureNode, ensurePrograms } from './lib/prerequisites.mjs';
import { say } from './lib/say.mjs';

commandLine({
  name: 'bench',
  does: 'Measures what the product promises, each figure beside a yardstick of the same run, prints a table and writes .decurio/bench.json. Nothing passes or fails: ratios are to be watched.',
});
ensureNode();
ensurePrograms(['mariadbd', 'rsync', 'chromium', 'chromedriver']);
ensureModules(ROOT);
ensureBuilt();
const { startEmptyDatabase } = await import('./lib/database.mjs');
const { startServer } = await import('./lib/server.mjs');

const Fastify = (await import('fastify')).default;
const { createConnection } = await import('mysql2/promise');
const { DEMO_PASSWORD } = await import('../server/dist/demo-password.js');
const { signIn } = await import('./lib/api-client.mjs');
const { loadDemo } = await import('./lib/load-demo.mjs');
const { sealLongAgo, sealUnits, takeOrder } = await import('./bench/fill.mjs');
const { fillAsked, questionFigures } = await import('./bench/ledger-questions.mjs');
const { archiveFigures, dropOut, fillOut, holdAll, lifeFigures, verifyFigures } =
  await import('./bench/ledger-later.mjs');
const { healthUnderFiles } = await import('./bench/health-under-files.mjs');
const { entriesPerSecond } = await import('./bench/bench-entries.mjs');
const { entriesOfCluster } = await import('./bench/bench-cluster.mjs');
const { keyToPress, keyToProof } = await import('./bench/key-to-press.mjs');
const { firstPaint } = await import('./bench/first-paint.mjs');
const { planFigures } = await import('./bench/key-plans.mjs');
const { dayFigures } = await import('./bench/day-plans.mjs');
const { paperFigures } = await import('./bench/papers.mjs');
const { calibrationFigures } = await import('./bench/calibration.mjs');
const { setupFigures } = await import('./bench/setups.mjs');
const { pressesOfCleanUnit } = await import('./bench/presses.mjs');
const { routeWeights } = await import('./bench/route-weight.mjs');
const { get, msOf, spreadsOf } = await import('./bench/timing.mjs');

/** @typedef {{ what: string, value: number, unit: string, yardstick: string, yardstickValue: number, ratio: number, limit: string }} Figure */
/** @type {Figure[]} */
const figures = [];
/** @param {string} what @param {number} value @param {string} unit @param {string} yardstick @param {number} yardstickValue @param {string} limit */
const note = (what, value, unit, yardstick, yardstickValue, limit) =>
  figures.push({
    what,
    value,
    unit,
    yardstick,
    yardstickValue,
    ratio: yardstickValue === 0 ? 0 : value / yardstickValue,
    limit,
  });

const home = join(STATE, 'bench');
const database = await startEmptyDatabase(home);
const server = await startServer({ ...database, cookieSecret: 'for measuring only', port: 20_080 });
const owner = await createConnection(database.ownerUrl);
const bare = Fastify();
bare.get('/', async () => ({ ok: true }));
await bare.listen({ port: 0, host: '127.0.0.1' });
const bareUrl = `${bare.listeningOrigin}/`;
try {
  await loadDemo(server.address, database.databaseUrl);
  const person = await signIn(server.address, 'teo', DEMO_PASSWORD, 'bay 1');
  await imports(person);
  const { presses, typed, by } = await pressesOfCleanUnit(server.address);
  const proving = by['Prove'] ?? 0;
  note(
    'Presses for a clean unit of a learnt batch, scan to seal, its proofs apart',
    presses - proving,
    'keys',
    'signs typed or scanned beside them, proofs among them',
    typed,
    '50 or fewer',
  );
  note('Presses for its proofs, all of them made', proving, 'keys', 'all others', presses - proving, 'to be watched');
  await papers();
  const lineOrder = await takeOrder(person, 'T300', 300);
  const walk = await verifyFigures(database.databaseUrl);
  note('Entries verified in a second', walk.perSecond, '', 'visits among them', walk.visits, '50,000 or more');
  const { busyMs, idleMs, asked } = await healthUnderFiles(server.address, person.cookie);
  note(
    `Health while the worst order files are read, p99 of ${asked}`,
    busyMs,
    'ms',
    'health while nothing is read, p99',
    idleMs,
    'under 100 ms',
  );
  await bench(person);
  await paint(lineOrder);
  await later(person);
  // Visits that were never worked are last: the server's housekeeping goes through them from then on.
  await sealUnits(owner, 20_000);
  await sealLongAgo(owner, { count: 100_000, old: 5_000 });
  await owner.query('ANALYZE TABLE unit, visit, customer_order');
  await lists(person, lineOrder);
  await fillAsked(owner, 100_000);
  await questions(person);
  for (const figure of [...setupFigures(), ...planFigures(), ...dayFigures(), ...(await calibrationFigures())])
    note(figure.what, figure.value, figure.unit, figure.yardstick, figure.yardstickValue, figure.limit);
  for (const { route, gzipBytes, brotliBytes } of routeWeights()) {
    note(
      `JavaScript, first route ${route}`,
      gzipBytes / 1000,
      'kB gzip',
      'the same in brotli',
      brotliBytes / 1000,
      'under 250 kB',
    );
  }
} finally {
  await bare.close();
  await owner.end();
  await server.stop();
  await database.stop();
  rmSync(home, { recursive: true, force: true });
}
report();

/** What a ledger answers a year later. @param {import('./lib/api-client.mjs').Client} person */
async function later(person) {
  const lead = await signIn(server.address, 'ines', DEMO_PASSWORD, 'office');
  const bare = await spreadsOf({ bare: () => person.get('/api/ledger/checkpoints') }, 40);
  const life = await lifeFigures(person, 'S26-0401');
  note("A unit's whole life, p95", life.ms, 'ms', 'a bare reply of the same server, p95', life.bareMs, 'under 150 ms');
  const { id } = (await person.get('/api/orders')).items.find(
    (/** @type {{ number: string }} */ { number }) => number === '2611',
  );
  const archive = await archiveFigures(server.address, lead.cookie, id);
  note(
    'Archive, of a sealed unit',
    archive.ms / archive.units,
    'ms',
    'a bare reply of the same server, p95',
    bare.bare.p95,
    'under 100 ms: 300 in 30 s',
  );
  await fillOut(owner, 100_000);
  const held = await holdAll(server.address, lead);
  note(
    `Rules that moved, held against ${held.units} units that are out`,
    held.ms,
    'ms',
    'a bare reply of the same server, p95',
    bare.bare.p95,
    'under 10,000 ms',
  );
  await dropOut(owner);
}

/** @param {import('./lib/api-client.mjs').Client} person */
async function imports(person) {
  await takeOrder(person, 'W100', 100);
  const ms = await msOf(() => takeOrder(person, 'A10000', 10_000));
  await owner.query('CREATE TABLE yardstick LIKE unit');
  const [rows] = await owner.query({
    sql: "SELECT u.* FROM unit u JOIN customer_order o ON o.id = u.orderId WHERE o.number = 'A10000'",
    rowsAsArray: true,
  });
  const yardstick = await msOf(async () => {
    await owner.beginTransaction();
    for (let from = 0; from < 10_000; from += 1000)
      await owner.query('INSERT INTO yardstick VALUES ?', [/** @type {any[]} */ (rows).slice(from, from + 1000)]);
    await owner.commit();
  });
  note(
    'Import of 10,000 rows, checked and taken',
    ms,
    'ms',
    'the same rows inserted through mysql2',
    yardstick,
    'under 5,000 ms',
  );
  await takeOrder(person, 'B10000', 10_000);
}

async function papers() {
  const { oneMs, aSecond, orderS, bareOneMs, bareASecond, bareOrderS, proofs } = await paperFigures(
    server.address,
    bareUrl,
  );
  note(`A certificate with ${proofs} proofs, p50`, oneMs, 'ms', 'a bare reply', bareOneMs, 'under 100 ms');
  note('Certificates a second, two at once', aSecond, 'a second', 'bare replies', bareASecond, '10 or more');
  note('All papers of 300 units, two at once', orderS, 's', 'as many bare replies', bareOrderS, 'under 60 s');
}

/** @param {import('./lib/api-client.mjs').Client} person @param {string} lineOrder */
async function lists(person, lineOrder) {
  const [[order]] = /** @type {any} */ (
    await owner.query('SELECT id FROM customer_order ORDER BY takenAt DESC LIMIT 1')
  );
  const cases = [
    [
      'Line of 300 units',
      `/api/orders/${lineOrder}/line`,
      'SELECT id, serial, typeName, status, step, ladder, heldReason, heldWords, worker, station, visitId FROM unit WHERE orderId = ? ORDER BY position',
      [order.id],
    ],
    ['Orders, first page', '/api/orders', 'SELECT * FROM customer_order ORDER BY takenAt DESC, id DESC LIMIT 51', []],
    [
      'Ledger, first page',
      '/api/ledger',
      'SELECT * FROM visit WHERE sealedAt IS NOT NULL ORDER BY sealedAt DESC, id DESC LIMIT 51',
      [],
    ],
    [
      'Ledger, by serial',
      '/api/ledger?search=A10000-07',
      "SELECT * FROM visit WHERE sealedAt IS NOT NULL AND (serial LIKE 'A10000-07%' OR orderNumber LIKE 'A10000-07%' OR customer LIKE 'A10000-07%') ORDER BY sealedAt DESC, id DESC LIMIT 51",
      [],
    ],
    [
      'Ledger, by a beginning whose hits are all old',
      '/api/ledger?search=OLD-',
      "SELECT * FROM visit FORCE INDEX (visitBySerial) WHERE serial LIKE 'OLD-%' AND sealedAt IS NOT NULL ORDER BY sealedAt DESC, id DESC LIMIT 51",
      [],
    ],
    [
      'One unit by serial',
      '/api/units?serial=B10000-09999',
      "SELECT * FROM unit WHERE openSerial = 'B10000-09999'",
      [],
    ],
  ];
  for (const [what, path, sql, values] of /** @type {[string, string, string, unknown[]][]} */ (cases)) {
    const { query, reply, list } = await spreadsOf({
      query: () => owner.query(sql, values),
      reply: () => get(bareUrl),
      list: () => get(server.address + path, { cookie: person.cookie }),
    });
    note(
      `${what}, p50`,
      list.p50,
      'ms',
      'bare mysql2 query + bare reply, p50',
      query.p50 + reply.p50,
      'at most 3 times',
    );
    note(
      `${what}, p95`,
      list.p95,
      'ms',
      'bare mysql2 query + bare reply, p95',
      query.p95 + reply.p95,
      'at most 3 times',
    );
  }
}

/** What is asked of a ledger of 100,000 units. @param {import('./lib/api-client.mjs').Client} person */
async function questions(person) {
  const figures = await questionFigures(
    (path) => get(server.address + path, { cookie: person.cookie }),
    (sql) => owner.query(sql),
    () => get(bareUrl),
  );
  for (const { what, asked, query, reply } of figures)
    for (const p of /** @type {const} */ (['p95', 'p50']))
      note(
        `Ledger of 100,000 asked: ${what}, ${p}`,
        asked[p],
        'ms',
        `bare mysql2 query + bare reply, ${p}`,
        query[p] + reply[p],
        p === 'p95' ? 'under 100 ms and at most 3 times' : 'at most 3 times',
      );
}

/** @param {string} lineOrder */
async function paint(lineOrder) {
  const { lineMs, bareMs } = await firstPaint({ address: server.address, bareUrl, lineOrder, password: DEMO_PASSWORD });
  note(
    'Line of 300 units painted after sign-in',
    lineMs,
    'ms',
    'a bare reply opened in the same browser',
    bareMs,
    'under 1,000 ms',
  );
}

/** @param {import('./lib/api-client.mjs').Client} person */
async function bench(person) {
  const entries = await entriesPerSecond(server.address, person, () => createConnection(database.ownerUrl));
  note(
    'Entries accepted a second, 20 stands at once, one a request',
    entries.single,
    'a second',
    'bare replies of the same server to the same stands',
    entries.replies,
    'at least 0.6 times',
  );
  note('One of them, p95', entries.p95Ms, 'ms', 'stands at once', 20, 'to be watched: they leave no gap');
  note(
    'An entry at 20 stands with five keys a second at each, p95',
    entries.pressedP95Ms,
    'ms',
    'flat out, p95',
    entries.p95Ms,
    'under 30 ms',
  );
  note(
    'Entries accepted a second, 20 stands at once, ten a request',
    entries.together,
    'a second',
    'bare inserts of the same bytes, each committed, over 20 connections',
    entries.inserted,
    'at least half',
  );
  const nodes = await entriesOfCluster();
  note(
    'Entries accepted a second by two servers over three nodes, 20 stands, one a request',
    nodes.single.cluster,
    'a second',
    'by two servers over one database',
    nodes.single.alone,
    'to be watched',
  );
  note(
    'The same, ten a request',
    nodes.together.cluster,
    'a second',
    'by two servers over one database',
    nodes.together.alone,
    'to be watched',
  );
  note(
    'An entry at the end of a visit of 2,000, p50',
    entries.longMs,
    'ms',
    'one at its beginning',
    entries.shortMs,
    'no more',
  );
  const { pressMs, bareMs, count } = await keyToPress(server.address);
  note(
    `From a key to the next press on the screen, p95 of ${count}`,
    pressMs,
    'ms',
    'a bare change of the page to its frame, p95',
    bareMs,
    'under 50 ms',
  );
  const proof = await keyToProof(server.address);
  note(
    `From a key at Prove to what follows on the screen, p95 of ${proof.count}`,
    proof.pressMs,
    'ms',
    'a bare change of the page to its frame, p95',
    proof.bareMs,
    'under 50 ms',
  );
}

function report() {
  const cells = figures.map((f) => [
    f.what,
    `${f.value.toFixed(1)} ${f.unit}`,
    `${f.yardstick}: ${f.yardstickValue.toFixed(1)}`,
    f.ratio.toFixed(2),
    f.limit,
  ]);
  const head = ['What', 'Measured', 'Yardstick', 'Ratio', 'Promised'];
  const widths = head.map((title, i) => Math.max(title.length, ...cells.map((row) => row[i]?.length ?? 0)));
  for (const row of [head, ...cells]) say(row.map((cell, i) => cell.padEnd(widths[i] ?? 0)).join('  '));
  mkdirSync(STATE, { recursive: true });
  const file = join(STATE, 'bench.json');
  writeFileSync(
    file,
    JSON.stringify({ at: new Date().toISOString(), node: process.version, cores: cpus().length, figures }, null, 2),
  );
  say(`\nWritten to ${file}`);
}
