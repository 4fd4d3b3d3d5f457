import { randomUUID } from 'node:crypto';
import dayjs from 'dayjs';
import { CHAIN_START, lastShown, projectVisit, sealedWithText, seeded } from '@decurio/core';
import { DEMO_PASSWORD } from '../../server/dist/demo-password.js';
import { markHeads } from '../../server/dist/store/seal-heads.js';
import { makeDataSource } from '../../server/dist/store/data-source.js';
import { Units, Visits } from '../../server/dist/store/entities.js';
import { readEvidence } from '../../server/dist/store/evidence-rows.js';
import { appendHandover } from '../../server/dist/store/handovers.js';
import { writeLeft } from '../../server/dist/store/left-rows.js';
import { getDocument } from '../../server/dist/store/library.js';
import { foldAccepted, visitColumns } from '../../server/dist/store/visit-columns.js';
import { signIn } from './api-client.mjs';
import { demoText } from './demo-files.mjs';

/** @typedef {import('@decurio/core').Evidence} Evidence */
/** @typedef {import('typeorm').EntityManager} EntityManager */
/** @typedef {{ number: string, customer: string, place?: string, type: string, like: string, from: number, count: number, daysAgo: number, receivedBy: string | null }} PastOrder */
/** @typedef {{ id: string, orderId: string, serial: string, typeName: string }} Unit */

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** A working day begins then. */
const MORNING_H = 8;

/**
 * Two months of deliveries before today. What comes in by the API is stamped with the server's own time, so orders and
 * rules are taken in by it, and the visits are written beside it: each as one that was worked through the API today, with
 * its own serial, times, slips and holds, chained and sealed anew.
 * @param {string} address @param {string} databaseUrl @param {number} [most] units of each order
 */
export async function loadHistory(address, databaseUrl, most = Infinity) {
  const told = JSON.parse(demoText('history.json'));
  const history = {
    ...told,
    orders: told.orders.map((/** @type {PastOrder} */ order) => ({ ...order, count: Math.min(order.count, most) })),
  };
  const owner = await signIn(address, 'asta', DEMO_PASSWORD, 'office');
  const lead = await signIn(address, 'ines', DEMO_PASSWORD, 'office');
  await addRules(owner, lead, history.rules);
  for (const order of history.orders) await takeOrder(owner, order);
  const source = await makeDataSource(databaseUrl, 4).initialize();
  try {
    const { manager } = source;
    // Some orders at once: while one waits for the database the next is worked out.
    const waiting = [...history.orders.entries()];
    const lane = async () => {
      for (let next = waiting.shift(); next; next = waiting.shift()) {
        const [i, order] = next;
        const templates = await templatesLike(manager, order.like);
        const units = await unitsOf(manager, order.number);
        const rulePack = order.place === history.rules.place ? history.rules : null;
        const random = seeded(history.seed + i);
        await source.transaction('READ COMMITTED', (within) =>
          sealOrder(within, { order, units, templates, rulePack, history, random }),
        );
      }
    };
    await Promise.all([lane(), lane(), lane()]);
    for (const back of history.back)
      if (await manager.existsBy(Visits, { serial: back.serial }))
        await source.transaction((within) => comeBack(within, back));
  } finally {
    await source.destroy();
  }
  await moveRules(lead, owner, history);
}

/** @param {import('./api-client.mjs').Client} owner @param {import('./api-client.mjs').Client} lead @param {any} rules */
async function addRules(owner, lead, { from, id, name, place, classes }) {
  const pack = JSON.parse(demoText(`rules/${from}.json`));
  const own = pack.classes.filter((/** @type {{ id: string }} */ each) => classes.includes(each.id));
  await owner.post('/api/library', { kind: 'rulePack', document: { ...pack, id, name, place, classes: own } });
  await lead.post(`/api/library/rulePack/${id}/classes/${classes[0]}/confirm`, {
    version: 1,
    authority: 'Salt Marsh parish',
    source: 'Byelaw 7',
    expiresOn: dayjs().add(40, 'day').format('YYYY-MM-DD'),
  });
}

/** @param {import('./api-client.mjs').Client} owner @param {PastOrder} order */
async function takeOrder(owner, { number, customer, place = 'Port Isel', type, like, from, count, daysAgo }) {
  const due = dayjs().subtract(daysAgo, 'day').format('YYYY-MM-DD');
  const classId = like === 'P10' ? 'scooter-20' : 'pedelec-25';
  const rows = Array.from(
    { length: count },
    (_, i) =>
      `${number},${customer},${due} 16:00,${place},${classId},${type},${like}-${String(from + i).padStart(4, '0')}`,
  );
  const intakeId = randomUUID();
  const report = await owner.postText(
    `/api/intakes?id=${intakeId}&fileName=${number}.csv`,
    ['order,customer,due,place,class,type,serial', ...rows].join('\n'),
    'text/csv',
  );
  if (report.problemsInAll > 0) throw new Error(`${number}: ${report.problems[0].message}`);
  await owner.post(`/api/intakes/${intakeId}/take`, {});
}

/** Visits of such serials that were worked and sealed today. @param {EntityManager} manager @param {string} like */
async function templatesLike(manager, like) {
  const rows = await manager.query(
    'SELECT id FROM visit WHERE serial LIKE ? AND sealedAt IS NOT NULL AND openedAt > UTC_TIMESTAMP() - INTERVAL 1 DAY ORDER BY serial LIMIT 8',
    [`${like}-%`],
  );
  return Promise.all(rows.map((/** @type {{ id: string }} */ { id }) => readEvidence(manager, id)));
}

/** @param {EntityManager} manager @param {string} number @returns {Promise<Unit[]>} */
const unitsOf = (manager, number) =>
  manager.query(
    'SELECT u.id, u.orderId, u.serial, u.typeName FROM unit u JOIN customer_order o ON o.id = u.orderId WHERE o.number = ? ORDER BY u.position',
    [number],
  );

/**
 * @typedef {object} Sealing
 * @property {PastOrder} order @property {Unit[]} units @property {Evidence[][]} templates @property {any} rulePack @property {any} history
 * @property {ReturnType<typeof seeded>} random
 */

/** @param {EntityManager} manager @param {Sealing} sealing */
async function sealOrder(manager, { order, units, templates, rulePack, history, random }) {
  let at = morning(Date.now() - (order.daysAgo + Math.ceil(units.length / 14)) * DAY_MS);
  const taken = new Date(at - DAY_MS);
  const heads = [];
  let done = taken;
  for (const [i, unit] of units.entries()) {
    const template = templates[i % templates.length];
    if (!template) throw new Error(`nothing like ${order.like} was worked today`);
    const { evidence, texts, heldMs } = clone(template, { unit, order, rulePack, history, random, at });
    const state = foldAccepted(evidence);
    const columns = visitColumns(evidence, state);
    const { visitId } = state;
    const sealedAt = columns.sealedAt;
    if (!sealedAt) throw new Error(`${unit.serial} was not sealed`);
    await manager.insert(Visits, { id: visitId, unitId: unit.id, ...columns });
    await insertAll(manager, evidence, texts);
    await manager.update(
      Units,
      { id: unit.id },
      {
        ...projectVisit(state),
        visitId,
        openSerial: null,
        surprises: state.surprises.length,
        mapId: columns.mapId,
        foundAt: sealedAt,
        provedAt: sealedAt,
        proofsFailed: state.proving.failed.length,
      },
    );
    await writeLeft(manager, { ...columns, id: visitId, unitId: unit.id, sealedAt }, state, evidence);
    heads.push({ visitId, seq: columns.lastSeq, hash: columns.headHash });
    done = sealedAt;
    const by = evidence.at(-1)?.by;
    if (order.receivedBy !== null && by)
      await handOut(manager, visitId, { to: order.receivedBy, at: new Date(sealedAt.getTime() + 20 * HOUR_MS), by });
    at = nextStart(sealedAt.getTime() - heldMs);
  }
  await manager.query('UPDATE customer_order SET sealed = units, takenAt = ? WHERE id = ?', [taken, units[0]?.orderId]);
  // Its lock is the last that is taken: orders are sealed side by side until here.
  await markHeads(manager, heads, 'sealed', done);
}

/** @param {number} ms */
const morning = (ms) => dayjs(ms).startOf('day').add(MORNING_H, 'hour').valueOf();
/** The next unit follows at once, or on the next morning. @param {number} ms */
const nextStart = (ms) => (dayjs(ms).hour() >= 16 ? morning(ms + DAY_MS) : Math.max(morning(ms), ms + 3 * 60_000));

/** @param {EntityManager} manager @param {Evidence[]} evidence @param {string[]} texts as each is stored */
async function insertAll(manager, evidence, texts) {
  await manager.query(
    `INSERT INTO evidence (id, visitId, seq, kind, body, receivedAt) VALUES ${evidence.map(() => '(?, ?, ?, ?, ?, ?)').join(', ')}`,
    evidence.flatMap((entry, i) => [
      entry.id,
      entry.visitId,
      entry.seq,
      entry.kind,
      texts[i],
      new Date(entry.receivedAt ?? entry.at),
    ]),
  );
}

/** @param {Evidence[]} template @param {{ unit: Unit, order: PastOrder, rulePack: any, history: any, random: ReturnType<typeof seeded>, at: number }} how */
function clone(template, { unit, order, rulePack, history, random, at }) {
  const [opened] = template;
  if (opened?.kind !== 'opened') throw new Error('a visit begins with its opening');
  const today = new Date().toISOString().slice(0, 10);
  const checkedOn = dayjs().subtract(history.checkedDaysAgo, 'day').format('YYYY-MM-DD');
  const visitId = randomUUID();
  const renamed = (/** @type {object} */ data) =>
    JSON.parse(JSON.stringify(data).replaceAll(opened.data.serial, unit.serial).replaceAll(today, checkedOn));
  const pace = Math.exp(0.25 * random.normal());
  const hold =
    random.uniform() < history.heldShare ? history.holds[Math.floor(random.uniform() * history.holds.length)] : null;
  const holdAt = hold ? 2 + Math.floor(random.uniform() * (template.length - 4)) : -1;
  /** @type {Map<string, string>} */
  const ids = new Map();
  /** @type {Evidence[]} */
  const evidence = [];
  /** @type {string[]} */
  const texts = [];
  let [now, heldMs] = [at, 0];
  /** @param {any} deed */
  const add = (deed) => {
    const time = new Date(now).toISOString();
    const entry = { ...deed, visitId, seq: evidence.length + 1, at: time, receivedAt: time };
    delete entry.clockOffS;
    const sealed = sealedWithText(entry, evidence.at(-1)?.hash ?? CHAIN_START);
    evidence.push(sealed.entry);
    texts.push(sealed.text);
  };
  for (const [i, entry] of template.entries()) {
    const before = template[i - 1];
    const gapMs = before ? Math.min(Date.parse(entry.at) - Date.parse(before.at), 10 * 60_000) : 0;
    now += Math.max(500, gapMs * pace * Math.exp(0.3 * random.normal()));
    const id = randomUUID();
    ids.set(entry.id, id);
    const data = renamed(entry.data);
    if ('cause' in data) data.cause = ids.get(data.cause) ?? data.cause;
    if (data.order) data.order = { ...data.order, number: order.number, customer: order.customer };
    if (data.versions && rulePack) data.versions.rulePack = { id: rulePack.id, version: 1, name: rulePack.name };
    if (
      entry.kind === 'codeRead' &&
      random.uniform() < (history.mistyped.labels[entry.data.label] ?? history.mistyped.usual)
    ) {
      add({ ...entry, id: randomUUID(), data: { ...data, raw: (data.raw ?? 0) + 1 } });
      now += 4_000;
    }
    add({ ...entry, id, data });
    if (i === holdAt) {
      now += 30_000;
      add({ ...entry, kind: 'held', id: randomUUID(), data: { reason: hold.reason, words: hold.words } });
      heldMs = hold.hours * HOUR_MS * Math.exp(0.4 * random.normal());
      now += heldMs;
      add({ ...entry, kind: 'released', id: randomUUID(), data: { words: 'Put right', decision: { way: 'goOn' } } });
    }
  }
  return { evidence, texts, heldMs };
}

/** @param {EntityManager} manager @param {string} visitId @param {{ to: string, at: Date, by: Evidence['by'] }} handed */
async function handOut(manager, visitId, { to: name, at, by }) {
  const visit = await manager.findOneByOrFail(Visits, { id: visitId });
  await appendHandover(
    manager,
    visit,
    { id: randomUUID(), kind: 'unsigned', data: { name, words: 'Collected together, the delivery note is signed' } },
    by,
    at,
  );
}

/** Whoever signed the visit off. @param {EntityManager} manager @param {string} visitId */
async function somebody(manager, visitId) {
  const last = (await readEvidence(manager, visitId)).at(-1);
  if (!last) throw new Error('a sealed visit has entries');
  return last.by;
}

/** @param {EntityManager} manager @param {{ serial: string, daysAgo: number, moves: Record<string, number>, odometerKm: number, errors: string[] }} back */
async function comeBack(manager, { serial, daysAgo, moves, odometerKm, errors }) {
  const visit = await manager.findOneByOrFail(Visits, { serial });
  const { document: map } = await getDocument(manager, 'displayMap', visit.mapId, visit.mapVersion);
  const left = lastShown(foldAccepted(await readEvidence(manager, visit.id)));
  const values = Object.fromEntries(
    map.codes.flatMap(({ label, function: what }) => {
      const raw = left[label];
      if (raw === undefined) return [];
      return [[label, what === 'odometer' ? raw + odometerKm : raw + (moves[what] ?? 0)]];
    }),
  );
  const at = new Date(Date.now() - daysAgo * DAY_MS);
  await appendHandover(
    manager,
    visit,
    { id: randomUUID(), kind: 'cameBack', data: { values, asksPin: null, errors } },
    await somebody(manager, visit.id),
    at,
  );
}

/** The rules move, and a lead calls some of the units back, and lets some stay.
 * @param {import('./api-client.mjs').Client} lead @param {import('./api-client.mjs').Client} owner @param {any} history */
async function moveRules(lead, owner, { rules, recall }) {
  const pack = (await lead.get('/api/library/rulePack')).find(
    (/** @type {{ id: string }} */ each) => each.id === rules.id,
  );
  const classes = pack.document.classes.map((/** @type {object} */ each) => ({
    ...each,
    title: rules.then.title,
    limit: { value: rules.then.limitKmh, unit: 'km/h' },
    riderNote: rules.then.note,
    checked: null,
  }));
  await owner.post('/api/library', { kind: 'rulePack', document: { ...pack.document, classes } });
  await lead.post(`/api/library/rulePack/${rules.id}/classes/${rules.classes[0]}/confirm`, {
    version: pack.version + 1,
    authority: 'Salt Marsh parish',
    source: 'Byelaw 7, as amended',
    expiresOn: dayjs().add(40, 'day').format('YYYY-MM-DD'),
  });
  const version = pack.version + 2;
  const out = (await lead.get('/api/ledger/answer?order=2538&where=out')).items;
  const visitIds = (/** @type {string[]} */ serials) =>
    out
      .filter((/** @type {{ serial: string }} */ { serial }) => serials.includes(serial))
      .map((/** @type {{ visitId: string }} */ { visitId }) => visitId);
  const about = `/api/ledger/moved/rulePack/${rules.id}`;
  await lead.post(`${about}/stays`, { version, visitIds: visitIds(recall.stay), words: recall.stayWords });
  const called = out
    .map((/** @type {{ serial: string }} */ { serial }) => serial)
    .filter((/** @type {string} */ serial) => !recall.stay.includes(serial))
    .sort()
    .slice(0, recall.first);
  await lead.post(`${about}/recalls`, {
    id: randomUUID(),
    version,
    visitIds: visitIds(called),
    words: recall.words,
    number: `R-${rules.id}`,
    dueAt: `${dayjs().add(9, 'day').format('YYYY-MM-DD')}T12:00`,
  });
}
