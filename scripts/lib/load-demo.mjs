import { randomUUID } from 'node:crypto';
import {
  calibratedBy,
  calibrationOf,
  checksLeft,
  factsOf,
  fittedBy,
  foldAll,
  fullPackAsked,
  fullPackV,
  isAsChosen,
  isSettled,
  proofsOf,
  resume,
  seeded,
  shownInOrder,
  trialOrder,
} from '@decurio/core';
import { DEMO_PASSWORD } from '../../server/dist/demo-password.js';
import { addAccount } from '../../server/dist/store/accounts.js';
import { makeDataSource } from '../../server/dist/store/data-source.js';
import { signIn } from './api-client.mjs';
import { demoText } from './demo-files.mjs';

/** @typedef {import('./api-client.mjs').Client} Client */
/** @typedef {{ serials: string[], by: string, station: string, until: string, packV?: number, misreads?: Record<string, number>, stuck?: Record<string, number>, found?: Record<string, number>, wheelMm?: number, proofs?: number, fails?: Record<string, string>, receivedBy?: string, labelAt?: string }} DemoVisit */

/**
 * Loads the demo scenario through the API, as a customer would; only its accounts are written directly.
 * @param {string} address
 * @param {string} databaseUrl
 * @param {() => void} [onBegin] called before anything of it is written
 * @returns {Promise<boolean>} false where it was loaded before
 */
export async function loadDemo(address, databaseUrl, onBegin) {
  const scenario = JSON.parse(demoText('scenario.json'));
  const source = await makeDataSource(databaseUrl, 1).initialize();
  try {
    const [{ count }] = await source.query('SELECT COUNT(*) AS count FROM account');
    if (Number(count) > 0) return false;
    onBegin?.();
    for (const account of scenario.accounts)
      await addAccount(source, { ...account, password: DEMO_PASSWORD, isDemo: true });
  } finally {
    await source.destroy();
  }
  const owner = await signIn(address, 'asta', DEMO_PASSWORD, 'office');
  for (const { kind, file } of scenario.library)
    await owner.post('/api/library', { kind, document: JSON.parse(demoText(file)) });
  for (const check of scenario.checks) await confirmClass(address, check);
  for (const file of scenario.orders) await takeOrder(owner, file);
  for (const decision of scenario.decisions) await decide(address, decision);
  await loadVisits(address, scenario.visits);
  for (const trial of scenario.trials) await runTrial(address, trial);
  return true;
}

/** @param {string} address @param {{ by: string, pack: string, class: string, authority: string, source: string, months: number }} check */
async function confirmClass(address, check) {
  const lead = await signIn(address, check.by, DEMO_PASSWORD, 'office');
  const expires = new Date();
  expires.setMonth(expires.getMonth() + check.months);
  const { pack, class: classId, authority, source } = check;
  const entry = (await lead.get('/api/library/rulePack')).find(
    (/** @type {{ id: string }} */ each) => each.id === pack,
  );
  await lead.post(`/api/library/rulePack/${pack}/classes/${classId}/confirm`, {
    version: entry.version,
    authority,
    source,
    expiresOn: expires.toISOString().slice(0, 10),
  });
}

/** @param {Client} client @param {string} file @param {Date} [now] the day from which its days are counted */
export async function takeOrder(client, file, now = new Date()) {
  const intakeId = randomUUID();
  const report = await client.postText(
    `/api/intakes?id=${intakeId}&fileName=${encodeURIComponent(file)}`,
    demoText(file, now),
    'text/csv',
  );
  if (report.problemsInAll > 0) throw new Error(`${file}: ${report.problems[0].message}`);
  await client.post(`/api/intakes/${intakeId}/take`, {});
}

/**
 * A lead's written choice on a finding, for each type of these orders.
 * @param {string} address @param {{ by: string, orders: string[], finding: string, words: string }} decision
 */
export async function decide(address, { by, orders, finding, words }) {
  const lead = await signIn(address, by, DEMO_PASSWORD, 'office');
  const all = (await lead.get('/api/orders')).items;
  for (const { id } of all.filter((/** @type {{ number: string }} */ order) => orders.includes(order.number))) {
    const { groups } = await lead.get(`/api/orders/${id}`);
    for (const typeId of new Set(groups.map((/** @type {{ typeId: string }} */ group) => group.typeId)))
      await lead.post(`/api/orders/${id}/decisions`, { id: randomUUID(), finding, typeId, words });
  }
}

/**
 * A trial with every run made, each scattered about what its value shows; the same at each loading.
 * @param {string} address
 * @param {{ by: string, map: string, label: string, values: number[], quantity: import('@decurio/core').QuantityId, each: number, matters: number, unit: string, seed: number, shows: number[], scatter: number }} trial
 */
async function runTrial(address, { by, map, shows, scatter, ...plan }) {
  const client = await signIn(address, by, DEMO_PASSWORD, 'yard');
  const id = randomUUID();
  await client.post('/api/trials', { id, mapId: map, mapVersion: 1, ...plan });
  const { normal } = seeded(plan.seed);
  for (const [i, raw] of trialOrder(plan).entries()) {
    const measured = Number(((shows[plan.values.indexOf(raw)] ?? 0) + scatter * normal()).toFixed(2));
    await client.post(`/api/trials/${id}/runs`, { n: i + 1, raw, measured });
  }
}

/** Vehicles of one type are worked one after another, as what one shows decides about the next; those of other types meanwhile.
 * @param {string} address @param {DemoVisit[]} visits */
async function loadVisits(address, visits) {
  const lines = new Map();
  for (const visit of visits) {
    const type = (visit.serials[0] ?? '').split('-')[0];
    lines.set(type, [...(lines.get(type) ?? []), visit]);
  }
  await Promise.all([...lines.values()].map((line) => loadLine(address, line)));
}

/** @param {string} address @param {DemoVisit[]} visits */
async function loadLine(address, visits) {
  const clock = { at: Date.now() - 5 * 3_600_000 };
  /** @type {Map<string, Client>} */
  const clients = new Map();
  for (const visit of visits) {
    const client = clients.get(visit.by) ?? (await signIn(address, visit.by, DEMO_PASSWORD, visit.station));
    clients.set(visit.by, client);
    for (const serial of visit.serials) await playVisit(client, serial, visit, clock);
  }
}

/** Works one unit as far as the scenario says, each act some seconds after the one before.
 * @param {Client} client @param {string} serial @param {DemoVisit} script @param {{ at: number }} clock */
export async function playVisit(client, serial, script, clock) {
  const unit = await client.get(`/api/units?serial=${encodeURIComponent(serial)}`);
  const stand = await openAtStand(client, unit.id, clock);
  await workUnit(client, { unit, stand, serial, script });
  await stand.send();
  if (script.until === 'handedOver') await handOver(client, stand.visitId, script);
}

/** Entries that are sent together: as many as one request takes. */
const TOGETHER = 20;

/**
 * Begins a visit as a stand that works ahead of the server: entries count here at once and are sent some together, sooner
 * where the server may add some of its own.
 * @param {Client} client @param {string} unitId @param {{ at: number }} clock
 */
async function openAtStand(client, unitId, clock) {
  const tick = (seconds = 7) => new Date((clock.at += seconds * 1000)).toISOString();
  const visitId = randomUUID();
  const opened = await client.post(`/api/units/${unitId}/visits`, { visitId, entryId: randomUUID(), at: tick() });
  let taken = foldOf(opened);
  let ahead = taken;
  /** @type {any[]} */
  let waiting = [];
  const send = async () => {
    if (waiting.length === 0) return;
    const answer = await client.post(`/api/units/${unitId}/visits/${visitId}/entries`, { entries: waiting });
    if (answer.refused) throw new Error(`${waiting[answer.taken.length].kind}: ${answer.refused.message}`);
    for (const { entry, followed } of answer.taken)
      for (const each of [entry, ...followed]) taken = resume(taken, each);
    waiting = [];
    ahead = taken;
  };
  /** @param {string} kind @param {any} data @param {number} [seconds] */
  const act = async (kind, data, seconds) => {
    const draft = { id: randomUUID(), seq: ahead.state.seq + 1, kind, at: tick(seconds), data };
    waiting.push(draft);
    ahead = resume(ahead, /** @type {any} */ ({ ...draft, visitId, by: opened.by, prevHash: '', hash: '' }));
    if (waiting.length === TOGETHER || mayBeFollowed(draft)) await send();
  };
  return { visitId, state: () => ahead.state, act, send };
}

/** @param {{ kind: any, data: { text?: string } }} draft */
const mayBeFollowed = ({ kind, data }) =>
  kind === 'calibrated' || (kind === 'checkMade' && data.text !== '') || factsOf(kind).setupAnew !== null;

/**
 * @param {Client} client
 * @param {{ unit: { id: string }, stand: Awaited<ReturnType<typeof openAtStand>>, serial: string, script: DemoVisit }} work
 */
async function workUnit(client, { unit, stand: { state, act }, serial, script }) {
  await makeChecks('checkIn', serial, state, act);
  await act('checkedIn', checkInData(script), 60);
  if (script.until === 'checkedIn' || state().held) return;
  await act('madeSafe', { cautions: state().opened.bench?.cautions ?? [] }, 15);
  if (script.until === 'madeSafe') return;
  for (let [label] = state().toFind; label !== undefined; [label] = state().toFind) {
    await act('asFoundRead', { label, raw: script.found?.[label] ?? state().values[label] }, 4);
    if (script.until === 'asFound' && Object.keys(state().found).length === 5) return;
  }
  await act('asFoundClosed', {});
  if (script.until === 'foundAll') return;
  if (await workCodes(script, state, act)) return;
  if (state().held || script.until === 'calibrate') return;
  if (script.wheelMm !== undefined) {
    const { map } = await client.get(`/api/units/${unit.id}/bench`);
    await runWheel({ ...script, wheelMm: script.wheelMm + wheelOffMm(serial) }, map, state, act);
  } else {
    await act('stepByHand', { step: 'calibrate', done: false, words: '' }, 5);
  }
  if (script.until === 'prove') return;
  await makeChecks('prove', serial, state, act);
  if (script.until === 'atProve') return;
  if (await proveUnit(serial, script, state, act)) return;
  const { classCheck: check } = await client.get(`/api/units/${unit.id}/bench`);
  await act('signedOff', { words: '', check }, 15);
}

/** @param {any} opened */
function foldOf(opened) {
  const fold = foldAll([opened]);
  if (!fold.ok) throw new Error(fold.problem.message);
  return fold.value;
}

/** What goes along with a sealed unit, and who received it.
 * @param {Client} client @param {string} visitId @param {DemoVisit} script */
async function handOver(client, visitId, { receivedBy = '', labelAt = '' }) {
  /** @param {string} kind @param {object} data */
  const add = (kind, data) => client.post(`/api/visits/${visitId}/handover`, { id: randomUUID(), kind, data });
  const { toShow, cameWith, pins } = await client.get(`/api/visits/${visitId}/papers`);
  await add('labelFixed', { where: labelAt });
  await add('wentAlong', { things: cameWith });
  for (const opens of pins) await add('pinTold', { opens, to: `${receivedBy}, fleet desk` });
  await add('riderShown', { items: toShow });
  await add('received', { name: receivedBy, strokes: SIGNATURE });
}

/** A made-up hand. */
const SIGNATURE = [
  Array.from({ length: 40 }, (_, i) => [
    Math.round((0.1 + 0.018 * i) * 1000) / 1000,
    Math.round((0.5 + 0.3 * Math.sin(i / 2.3) * Math.exp(-i / 30)) * 1000) / 1000,
  ]),
];

/** @typedef {(kind: string, data: object, seconds?: number) => Promise<void>} Acts */
/** @typedef {() => import('@decurio/core').VisitState} Now */

/** Every check of a step, and each as it should be.
 * @param {'checkIn' | 'prove'} step @param {string} serial @param {Now} state @param {Acts} act */
async function makeChecks(step, serial, state, act) {
  for (const { id, asks } of checksLeft(state(), step))
    await act('checkMade', {
      check: id,
      outcome: 'good',
      figure: asks.kind === 'figure' ? (asks.from ?? asks.to ?? 3) : null,
      text: asks.kind === 'number' ? (asks.known?.[0] ?? `${asks.of.charAt(0).toUpperCase()}-${serial}`) : '',
      tool: asks.kind === 'figure' && asks.withTool ? 'wrench 3' : '',
      words: '',
    });
}

/** Keys, restarts and reads back until the unit is past it, held, or where the scenario leaves it.
 * @param {DemoVisit} script @param {Now} state @param {Acts} act @returns {Promise<boolean>} whether it is left there */
async function workCodes(script, state, act) {
  /** @type {Set<string>} */
  const misread = new Set();
  while (state().step !== 'calibrate' && !state().held) {
    for (const label of state().toKey) {
      const {
        values: known,
        opened: { setup },
      } = state();
      const stuck = script.stuck?.[label];
      const target = setup.targets.find((t) => t.label === label);
      if (stuck !== undefined) await act('codeStuck', { label, raw: stuck });
      else
        await act('codeKeyed', {
          label,
          fromRaw: known[label],
          raw: target?.raw,
          presses: Math.abs((target?.raw ?? 0) - (known[label] ?? 0)) + 1,
        });
      if (script.until === 'keyIn') return true;
    }
    await act('keyInClosed', {});
    if (script.until === 'restart') return true;
    await act(
      'restarted',
      {
        acts: ['Glass dark', 'Pack off and on', 'Glass lit'],
        ...(state().opened.bench?.unplugCheck ? { unplugged: true } : {}),
      },
      20,
    );
    for (const label of state().toRead) {
      const slip = misread.has(label) ? undefined : script.misreads?.[label];
      await act('codeRead', { label, raw: slip ?? script.stuck?.[label] ?? state().values[label] });
      misread.add(label);
      if (state().verdicts.some((v) => v.label === label && v.verdict === 'notRead')) {
        await act('codeRead', { label, raw: script.stuck?.[label] ?? state().values[label] });
      }
      if (script.until === 'readBack' && state().verdicts.filter((v) => v.verdict !== 'notRead').length === 6)
        return true;
    }
    await act('readBackClosed', {});
  }
  return false;
}

/** A roller bench whose readings the scenario's wheel would give. */
const ROLLER = {
  reference: 'roller',
  instrument: '105 mm',
  uKmh: 0.08,
  uCommon: 0.0027,
  unit: 'km/h',
  offGround: false,
  words: 'roller 105 mm',
};

/** Reads speeds, chooses wheel and cap by them, keys those, and confirms them by a check run.
 * @param {DemoVisit & { wheelMm: number }} script @param {import('@decurio/core').DisplayMap} map @param {Now} state @param {Acts} act */
async function runWheel(script, map, state, act) {
  const found = () => {
    const all = calibrationOf(state(), map);
    if (!all) throw new Error('this visit was opened before speeds were read');
    return all;
  };
  /** @param {number} trueKmh */
  const read = (trueKmh) =>
    act(
      'speedRead',
      { ...ROLLER, trueKmh, shown: Math.round((10 * trueKmh * found().codes.wheelMm) / script.wheelMm) / 10 },
      20,
    );
  for (const trueKmh of [9.8, 16.2, 24.4]) await read(trueKmh);
  const [pick] = found().candidates;
  if (pick && !isAsChosen(found())) {
    await act('wheelFitted', fittedBy(found(), pick));
    await workCodes({ ...script, until: 'calibrate' }, state, act);
    for (const trueKmh of [12.1, 23.2]) await read(trueKmh);
  }
  await act('calibrated', calibratedBy(found()));
}

/** How much the wheel of one unit differs from the next, mm: the same for the same serial. @param {string} serial */
const wheelOffMm = (serial) => 4 * seeded(Number(serial.replace(/\D/g, ''))).normal();

/** Makes every test of a unit, as one in order shows it, but for those that the scenario has otherwise.
 * @param {string} serial @param {DemoVisit} script @param {Now} state @param {Acts} act @returns {Promise<boolean>} whether it is left there */
async function proveUnit(serial, script, state, act) {
  const { normal } = seeded(Number(serial.replace(/\D/g, '')));
  let made = 0;
  for (;;) {
    const due = proofsOf(state()).find((proof) => !isSettled(proof));
    if (!due || state().held) break;
    if (script.until === 'proving' && made === (script.proofs ?? 6)) return true;
    const { test } = due;
    if (test.pack === 'full' && fullPackAsked(state()) !== null) {
      if (script.until === 'charging') {
        const dueAt = new Date(Date.now() + 100 * 60_000).toISOString();
        await act('waitBegun', { test: null, words: 'Charging to full', dueAt }, 5);
        return true;
      }
      await act('fullRead', { packV: fullPackV(state().opened) + 0.4, isCharged: true }, 40);
    }
    const otherwise = script.fails?.[test.id];
    const seen =
      otherwise === undefined
        ? shownInOrder(test, state().opened.pack, normal())
        : { kind: 'outcome', outcome: otherwise };
    await act('proofSeen', { test: test.id, seen }, test.at === 'yard' ? 45 : 9);
    made++;
    if (otherwise === undefined) continue;
    const { judgement } = proofsOf(state()).find(({ test: each }) => each.id === test.id) ?? due;
    if (judgement.verdict === 'doesNot')
      await act(
        'held',
        { reason: 'proof', words: `${test.title}: ${judgement.says} ${judgement.cure.says}`.slice(0, 500) },
        20,
      );
  }
  if (state().held) return true;
  await act('proved', {}, 5);
  return !['sealed', 'handedOver'].includes(script.until);
}

/** @param {DemoVisit} script */
const checkInData = ({ packV = 39.8 }) => ({
  revisionConfirmed: true,
  odometerKm: 2,
  packV,
  packCondition: 'sound',
  tyreBar: 2.8,
  cablesFree: true,
  clampSound: true,
  accessories: 'charger, 2 keys',
  damage: '',
});
