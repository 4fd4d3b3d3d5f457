import { randomUUID } from 'node:crypto';
import { createConnection } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { foldVisit, type VisitState } from '@decurio/core';
import type { BenchView, EntryTaken, LineUnit, LineView } from '@decurio/contract';
import { likelyActs } from '../../core/testing/any-visit.js';
import { nextProof } from '../../core/testing/proofs.js';
import { seeded } from '../../core/statistics/seeded.js';
import { verifyLedger, type LedgerFinding } from '../ledger/verify-ledger.js';
import { refreshHeld } from '../store/refresh-held.js';
import {
  Bench,
  CHECK_IN,
  DUE,
  errorOf,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

const PEOPLE = 4;
const ACTS_EACH = 70;
/** Hundreds of requests, each with its hashes: how long they take is the machine's, and no race hides in it. */
const LONG_MS = 180_000;
/** Nothing that people do at once may end in a fault of the server. */
const ANSWERS = new Set([200, 201, 400, 403, 404, 409]);

let server: TestServer;
let teo: Person;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  [teo, ines] = [await signInAs(server, 'technician'), await signInAs(server, 'lead')];
});
afterAll(() => server.close());

async function findings(): Promise<readonly LedgerFinding[]> {
  const all: LedgerFinding[] = [];
  await verifyLedger(server.app.source, (finding) => all.push(finding));
  return all;
}
const lineOf = async (orderId: string) => (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>();
const begin = (unitId: string, person = teo) =>
  person.post(`/api/units/${unitId}/visits`, {
    visitId: randomUUID(),
    entryId: randomUUID(),
    at: new Date().toISOString(),
  });
const withdraw = (orderId: string, unitId: string) =>
  ines.post(`/api/orders/${orderId}/withdrawals`, { id: randomUUID(), unitIds: [unitId], reason: 'sold elsewhere' });
const amend = (orderId: string, kmh: number, customer: string) =>
  ines.post(`/api/orders/${orderId}/amendments`, {
    id: randomUUID(),
    reason: `the site said ${kmh}`,
    customer,
    rulePackId: 'port-isel',
    classId: 'pedelec-25',
    houseRulesId: 'hire-default',
    dueAt: DUE.replace(' ', 'T'),
    notes: '',
    terms: { siteLimit: { value: kmh, unit: 'km/h' }, orderLimit: null, throttle: 'asClass', privateLand: null },
  });

describe('a unit that is begun and withdrawn at the same moment', () => {
  it.each(['begun first', 'withdrawn first'])('%s, is withdrawn, and its order counts it once', async (which) => {
    const { taken, units } = await takeOrder(
      teo,
      orderFile([`S-${which.slice(0, 5)}-1`, `S-${which.slice(0, 5)}-2`], which),
    );
    const unit = units[0]!;
    const other = await createConnection({ uri: server.ownerUrl });
    await other.query('START TRANSACTION');
    await other.query('SELECT id FROM unit WHERE id = ? FOR UPDATE', [unit.id]);
    const acts = [() => begin(unit.id), () => withdraw(taken.orderId, unit.id)];
    const [first, second] = which === 'begun first' ? acts : acts.toReversed();
    const before = await waiting();
    const early = first!();
    await until(async () => (await waiting()) > before);
    const late = second!();
    await until(async () => (await waiting()) > before + 1);
    await other.query('COMMIT');
    await other.end();
    const answers = await Promise.all([early, late]);
    expect(answers.map(({ statusCode }) => statusCode).filter((status) => !ANSWERS.has(status))).toEqual([]);
    const { order, units: now } = await lineOf(taken.orderId);
    expect(now.find(({ id }) => id === unit.id)?.status ?? 'withdrawn').toBe('withdrawn');
    expect([order.units, order.held, order.sealed]).toEqual([1, 0, 0]);
    expect(errorOf(await begin(unit.id)).code).toMatch(/withdrawn|visitOpen/);
    expect(await findings()).toEqual([]);
  });
});

/** How many of the server's own connections wait to lock a row. */
async function waiting(): Promise<number> {
  const threads = await server.app.source.manager.query<{ Info: string | null }[]>('SHOW FULL PROCESSLIST');
  return threads.filter(({ Info }) => Info?.includes('FOR UPDATE') === true).length;
}

async function until(holds: () => Promise<boolean>): Promise<void> {
  while (!(await holds())) await new Promise((resolve) => setImmediate(resolve));
}

describe('several people who do what they like with one order', () => {
  const done = new Map<string, number>();

  it.each([1, 2, 3])(
    'leave every column saying what the entries say (%i)',
    async (seed) => {
      const serials = Array.from({ length: 4 }, (_, i) => `S${seed}-${i + 1}`);
      const { taken } = await takeOrder(teo, orderFile(serials, `any-${seed}`));
      await Promise.all(
        Array.from({ length: PEOPLE }, async (_, n) => {
          const { uniform } = seeded(100 * seed + n);
          for (let i = 0; i < ACTS_EACH; i++) {
            const what = await anyAct(taken.orderId, serials, uniform, n === 0 ? ines : teo);
            if (what) done.set(what, (done.get(what) ?? 0) + 1);
          }
        }),
      );
      await finishOne(taken.orderId);
      expect(await findings()).toEqual([]);
    },
    LONG_MS,
  );

  it('and did all there is to do', () => {
    for (const what of ['begun', 'codeKeyed', 'amended', 'withdrawn', 'taken again', 'held', 'released', 'undone'])
      expect([...done.keys()]).toContain(what);
    expect(done.get('signedOff')).toBeGreaterThan(0);
  });

  /** One act of somebody who looks at a unit and does what seems next, or something else. */
  async function anyAct(
    orderId: string,
    serials: readonly string[],
    uniform: () => number,
    person: Person,
  ): Promise<string | null> {
    const pick = <T>(list: readonly T[]): T => list[Math.floor(uniform() * list.length)]!;
    const asked = (answer: { readonly statusCode: number; readonly body: string }, what: string): string | null => {
      if (!ANSWERS.has(answer.statusCode)) throw new Error(`${what}: ${answer.statusCode} ${answer.body}`);
      return answer.statusCode < 300 ? what : null;
    };
    const { units } = await lineOf(orderId);
    const unit: LineUnit = pick(units);
    const chance = uniform();
    if (chance < 0.02)
      return asked(await amend(orderId, pick([16, 18, 20, 25]), pick(['Causeway', 'Quay'])), 'amended');
    if (chance < 0.03 && units.filter(({ status }) => status !== 'withdrawn').length > 2)
      return asked(await withdraw(orderId, unit.id), 'withdrawn');
    if (chance < 0.05)
      return asked(
        await ines.post(`/api/orders/${orderId}/units`, {
          id: randomUUID(),
          units: [{ serial: pick(serials), typeId: 'samphire-26', mapId: null }],
        }),
        'taken again',
      );
    const answer = await person.get(`/api/units/${unit.id}/bench`);
    if (answer.statusCode !== 200) return asked(answer, 'looked');
    const bench = answer.json<BenchView>();
    if (bench.evidence.length === 0) return asked(await begin(unit.id, person), 'begun');
    const fold = foldVisit(bench.evidence);
    if (!fold.ok) throw new Error(fold.problem.message);
    return asked(...(await act(bench, fold.value, uniform, person)));
  }

  async function act(bench: BenchView, state: VisitState, uniform: () => number, person: Person) {
    const acts = likelyActs(state);
    const isStraight = uniform() < 0.9;
    // What stops a unit or takes something back is one act among very many, and is what goes wrong.
    const stops = acts.filter(([kind]) => STOPS.has(kind));
    const among = uniform() < 0.7 ? stops : acts;
    const wild = among[Math.floor(uniform() * among.length)]!;
    const [kind, data] = isStraight ? (acts.find((each) => isNext(state, each[0], each[1])) ?? wild) : wild;
    const sent = kind === 'signedOff' ? { words: '', check: bench.classCheck } : data;
    const body = { id: randomUUID(), seq: state.seq + 1, kind, at: new Date().toISOString(), data: sent };
    const answer = await person.post(`/api/units/${bench.unit.id}/visits/${state.visitId}/evidence`, body);
    if (isStraight && answer.statusCode === 201) await proveOn(bench, answer.json<EntryTaken>(), person);
    return [answer, kind] as const;
  }

  /** Whatever they left behind, a lead brings one unit to its seal by doing what is next. */
  async function finishOne(orderId: string): Promise<void> {
    const { units } = await lineOf(orderId);
    for (const unit of units.filter(({ status }) => status !== 'withdrawn')) {
      for (let acts = 0; acts < 120; acts++) {
        const bench = (await ines.get(`/api/units/${unit.id}/bench`)).json<BenchView>();
        const fold = bench.evidence.length === 0 ? null : foldVisit(bench.evidence);
        if (fold === null) await begin(unit.id, ines);
        if (!fold?.ok) continue;
        if (fold.value.step === null) {
          done.set('signedOff', (done.get('signedOff') ?? 0) + 1);
          return;
        }
        await act(bench, fold.value, () => 0, ines);
      }
    }
  }

  /** Whoever proves a unit makes its tests one after another, while nobody else writes. */
  async function proveOn(bench: BenchView, taken: EntryTaken, person: Person): Promise<void> {
    const evidence = [...bench.evidence, taken.entry, ...taken.followed];
    for (;;) {
      const fold = foldVisit(evidence);
      const next = fold.ok ? nextProof(fold.value) : null;
      if (!fold.ok || next === null) return;
      const body = {
        id: randomUUID(),
        seq: evidence.length + 1,
        kind: next[0],
        at: new Date().toISOString(),
        data: next[1],
      };
      const answer = await person.post(`/api/units/${bench.unit.id}/visits/${fold.value.visitId}/evidence`, body);
      if (!ANSWERS.has(answer.statusCode)) throw new Error(`${next[0]}: ${answer.statusCode} ${answer.body}`);
      if (answer.statusCode !== 201) return;
      evidence.push(answer.json<EntryTaken>().entry);
    }
  }
});

const STOPS: ReadonlySet<string> = new Set(['held', 'released', 'undone', 'takenOver']);

const STEPS_OF: Readonly<Record<string, readonly string[]>> = {
  checkIn: ['checkedIn'],
  makeSafe: ['madeSafe'],
  asFound: ['asFoundRead', 'asFoundClosed'],
  keyIn: ['codeKeyed', 'keyInClosed'],
  restart: ['restarted'],
  readBack: ['codeRead', 'readBackClosed'],
  calibrate: ['stepByHand'],
  prove: ['fullRead', 'proofSeen', 'proofAgain', 'proved'],
  signOff: ['signedOff'],
};

function isNext(state: VisitState, kind: string, data: object): boolean {
  if (state.held) return kind === 'released';
  if (!state.isSafe && state.step !== 'checkIn') return kind === 'madeSafe';
  if (kind === 'asFoundRead') return state.toFind.length > 0 && state.step === 'asFound';
  if (kind === 'codeKeyed') return state.toKey.length > 0 && state.step === 'keyIn';
  if (kind === 'codeRead')
    return (
      state.step === 'readBack' && state.verdicts.some((v) => v.verdict === 'notRead' && state.toRead.includes(v.label))
    );
  if (kind === 'stepByHand') return 'step' in data && data.step === state.step;
  return (STEPS_OF[state.step ?? ''] ?? []).includes(kind);
}

it('a unit that was done is known by its new customer, and found by it, once its order was amended', async () => {
  const { taken, units } = await takeOrder(teo, orderFile(['S-late-1'], 'late'));
  const bench = await new Bench(teo, units[0]!.id).open();
  await amend(taken.orderId, 25, 'Gull Point Quay');
  const now = (await teo.get(`/api/units/${bench.unitId}/bench`)).json<BenchView>().evidence;
  expect(now.at(-1)?.kind).toBe('setupRevised');
  const [row] = await server.app.source.manager.query<{ customer: string }[]>(
    'SELECT customer FROM visit WHERE id = ?',
    [bench.visitId],
  );
  expect(row?.customer).toBe('Gull Point Quay');
  expect(await findings()).toEqual([]);
});

it('a unit that an earlier release held in other words is said in those of this one, and its record holds', async () => {
  const { units } = await takeOrder(teo, orderFile(['S-held-1'], 'held'));
  const bench = await new Bench(teo, units[0]!.id).open();
  await bench.act('checkedIn', { ...CHECK_IN, packV: 18 });
  const words = async () =>
    (
      await server.app.source.manager.query<{ heldWords: string }[]>('SELECT heldWords FROM unit WHERE id = ?', [
        bench.unitId,
      ])
    )[0]?.heldWords;
  const own = await words();
  await server.app.source.query("UPDATE unit SET heldWords = 'Below its floor.' WHERE id = ?", [bench.unitId]);
  expect((await findings()).length).toBe(1);
  await refreshHeld(server.app.source);
  expect(await words()).toBe(own);
  expect(await findings()).toEqual([]);
});
