import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { projectVisit, verifyChain } from '@decurio/core';
import type { BenchView, EntriesTaken, LineUnit, NewEvidence } from '@decurio/contract';
import { buildApp } from '../app.js';
import {
  Bench,
  CHECK_IN,
  errorOf,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  testConfig,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
let teo: Person;
let ines: Person;
let units: readonly LineUnit[];
let taken = 0;
beforeAll(async () => {
  server = await startTestServer();
  ines = await signInAs(server, 'lead');
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  ({ units } = await takeOrder(
    teo,
    orderFile(Array.from({ length: 24 }, (_, i) => `S28-${String(i + 1).padStart(4, '0')}`)),
  ));
});
afterAll(() => server.close());

const newBench = () => new Bench(teo, units[taken++]!.id).open();
const send = (bench: Bench, entries: readonly NewEvidence[], person = teo) =>
  person.post(`/api/units/${bench.unitId}/visits/${bench.visitId}/entries`, { entries });
const takenOf = async (bench: Bench, entries: readonly NewEvidence[]): Promise<EntriesTaken> => {
  const answer = await send(bench, entries);
  expect(answer.statusCode).toBe(200);
  return answer.json<EntriesTaken>();
};
const logOf = async ({ unitId }: Bench) => (await teo.get(`/api/units/${unitId}/bench`)).json<BenchView>().evidence;

/** Entries in a row, each with the number that is due after the one before. */
const row = (bench: Bench, ...acts: readonly (readonly [NewEvidence['kind'], object])[]): NewEvidence[] =>
  acts.map(([kind, data], i) => ({ ...bench.draft(kind, data), seq: bench.evidence.length + 1 + i }));
const seen = (bench: Bench, count: number): NewEvidence[] =>
  row(bench, ...Array.from({ length: count }, (_, i) => ['codeSeen', { label: 'L1.2', raw: (i % 4) + 1 }] as const));

/** What stands in the rows of a visit and its unit, beside what its log says of both. */
async function rowsAndLog(bench: Bench) {
  const evidence = await logOf(bench);
  bench.evidence.splice(0, bench.evidence.length, ...evidence);
  const [visit] = await server.app.source.query<{ lastSeq: number; headHash: string }[]>(
    'SELECT lastSeq, headHash FROM visit WHERE id = ?',
    [bench.visitId],
  );
  const [unit] = await server.app.source.query<Record<string, unknown>[]>('SELECT * FROM unit WHERE id = ?', [
    bench.unitId,
  ]);
  expect(verifyChain(evidence, visit!.headHash)).toMatchObject({ ok: true, entries: visit!.lastSeq });
  expect(unit).toMatchObject({ ...projectVisit(bench.state), visitId: bench.visitId });
  return evidence;
}

describe('entries that waited at a stand', () => {
  it('are taken in one request, in their order, and rows say what the log says', async () => {
    const bench = await newBench();
    await bench.toKeyIn();
    const entries = seen(bench, 20);
    const { taken: all, refused } = await takenOf(bench, entries);
    expect(refused).toBeNull();
    expect(all.map(({ entry }) => entry.id)).toEqual(entries.map(({ id }) => id));
    expect((await rowsAndLog(bench)).slice(-20).map(({ id }) => id)).toEqual(entries.map(({ id }) => id));
  });

  it('are taken up to the first that is refused, which is told; nothing behind it is kept', async () => {
    const bench = await newBench();
    await bench.toKeyIn();
    const entries = row(
      bench,
      ['codeSeen', { label: 'L1.2', raw: 3 }],
      ['checkedIn', CHECK_IN],
      ['codeSeen', { label: 'L1.2', raw: 4 }],
    );
    const { taken: all, refused } = await takenOf(bench, entries);
    expect(all).toHaveLength(1);
    expect(refused).toMatchObject({ status: 409, code: 'wrongStep' });
    expect((await rowsAndLog(bench)).at(-1)?.id).toBe(entries[0]!.id);
  });

  it('are kept once, however often and in whatever parts they are sent', async () => {
    const bench = await newBench();
    await bench.toKeyIn();
    const entries = seen(bench, 6);
    expect((await bench.send(entries[0]!)).statusCode).toBe(201);
    const first = await takenOf(bench, entries.slice(0, 4));
    expect(first.taken).toHaveLength(4);
    const again = await takenOf(bench, entries);
    expect(again.refused).toBeNull();
    expect(again.taken.slice(0, 4)).toEqual(first.taken);
    const [one, two] = await Promise.all([takenOf(bench, entries), takenOf(bench, entries)]);
    expect(one).toEqual(two);
    expect((await rowsAndLog(bench)).filter(({ kind }) => kind === 'codeSeen')).toHaveLength(6);
  });

  it('sent at one moment by two stands: one is first, and the other is told', async () => {
    const bench = await newBench();
    await bench.toKeyIn();
    const answers = await Promise.all([takenOf(bench, seen(bench, 5)), takenOf(bench, seen(bench, 5))]);
    expect(answers.map(({ taken: all }) => all.length).sort()).toEqual([0, 5]);
    expect(answers.find(({ refused }) => refused)?.refused).toMatchObject({ code: 'staleSeq' });
    await rowsAndLog(bench);
  });

  it('under an id that says something else already are refused from there on', async () => {
    const bench = await newBench();
    await bench.toKeyIn();
    const other = await newBench();
    await other.toKeyIn();
    const [theirs] = seen(other, 1);
    await takenOf(other, [theirs!]);
    const entries = seen(bench, 3);
    const { taken: all, refused } = await takenOf(bench, [
      entries[0]!,
      { ...entries[1]!, id: theirs!.id },
      entries[2]!,
    ]);
    expect(all).toHaveLength(1);
    expect(refused?.code).toBe('idReused');
    await rowsAndLog(bench);
    expect((await rowsAndLog(other)).at(-1)?.id).toBe(theirs!.id);
  });

  it('that set something off bring what followed; what was numbered before it is told to look again', async () => {
    const bench = await newBench();
    await bench.makeChecks('checkIn');
    await bench.act('checkedIn', CHECK_IN);
    await bench.makeSafe();
    await bench.readFound({ 'L7.1': 30 });
    const entries = row(bench, ['asFoundClosed', {}], ['codeSeen', { label: 'L1.2', raw: 3 }]);
    const { taken: all, refused } = await takenOf(bench, entries);
    expect(all.map(({ followed }) => followed.map(({ kind }) => kind))).toEqual([['setupRevised']]);
    expect(refused?.code).toBe('staleSeq');
    await rowsAndLog(bench);
  });

  it('of which one is a lead’s are refused whole to anybody else', async () => {
    const bench = await newBench();
    await bench.act('held', { reason: 'damage', words: 'bent fork' });
    const entries = row(bench, ['released', { words: 'fork changed' }]);
    expect(errorOf(await send(bench, entries)).code).toBe('notAllowed');
    expect((await send(bench, entries, ines)).json<EntriesTaken>().taken).toHaveLength(1);
    await rowsAndLog(bench);
  });

  it('are refused whole where one of them is malformed, or they are too many or none', async () => {
    const bench = await newBench();
    await bench.toKeyIn();
    const entries = seen(bench, 2);
    const bad = [entries[0]!, { ...entries[1]!, data: { label: 'L1.2', raw: 'three' } } as unknown as NewEvidence];
    expect((await send(bench, bad)).statusCode).toBe(400);
    for (const none of [[], seen(bench, 21)]) expect((await send(bench, none)).statusCode).toBe(400);
    const nowhere = await teo.post(`/api/units/${bench.unitId}/visits/${randomUUID()}/entries`, { entries });
    expect(errorOf(nowhere).code).toBe('visitNotFound');
    const before = bench.evidence.length;
    expect(await rowsAndLog(bench)).toHaveLength(before);
  });
});

describe('entries of several visits that come at one moment', () => {
  const atKeyIn = async (count: number): Promise<readonly Bench[]> => {
    const benches: Bench[] = [];
    for (let i = 0; i < count; i++) benches.push(await newBench());
    for (const bench of benches) await bench.toKeyIn();
    return benches;
  };

  it('are each taken once and in their order, whatever goes in one trip', async () => {
    const benches = await atKeyIn(4);
    const sent = await Promise.all(
      benches.map(async (bench) => {
        const entries = seen(bench, 10);
        for (const entry of entries) expect((await bench.send(entry)).statusCode).toBe(201);
        return entries.map(({ id }) => id);
      }),
    );
    for (const [i, bench] of benches.entries())
      expect((await rowsAndLog(bench)).slice(-10).map(({ id }) => id)).toEqual(sent[i]);
  });

  it('stand whatever becomes of the others: one refused, one sent before, one under an id of another', async () => {
    const [refused, before, other, well] = (await atKeyIn(4)) as [Bench, Bench, Bench, Bench];
    const [was] = seen(before, 1) as [NewEvidence];
    expect((await before.send(was)).statusCode).toBe(201);
    const answers = await Promise.all([
      refused.send({ ...seen(refused, 1)[0]!, seq: 99 }),
      before.send(was),
      other.send({ ...seen(other, 1)[0]!, id: was.id }),
      well.send(seen(well, 1)[0]!),
    ]);
    expect(answers.map(({ statusCode }) => statusCode)).toEqual([409, 200, 409, 201]);
    expect(errorOf(answers[0]!).code).toBe('staleSeq');
    expect(errorOf(answers[2]!).code).toBe('idReused');
    for (const bench of [refused, before, other, well]) await rowsAndLog(bench);
  });

  it('wait for nobody whose visit another has in hand; that one is taken once it is let go', async () => {
    const [locked, free] = (await atKeyIn(2)) as [Bench, Bench];
    const other = server.app.source.createQueryRunner();
    await other.startTransaction();
    try {
      await other.query('SELECT id FROM visit WHERE id = ? FOR UPDATE', [locked.visitId]);
      const waits = locked.send(seen(locked, 1)[0]!);
      expect((await free.send(seen(free, 1)[0]!)).statusCode).toBe(201);
      expect(await logOf(locked)).toHaveLength(locked.evidence.length);
      await other.commitTransaction();
      expect((await waits).statusCode).toBe(201);
    } finally {
      await other.release();
    }
    for (const bench of [locked, free]) await rowsAndLog(bench);
  });
});

describe('two servers over one database', () => {
  it('take turns at one visit, each going on from what the other wrote', async () => {
    const second = await buildApp(testConfig(server.applicationUrl));
    try {
      const bench = await newBench();
      await bench.toKeyIn();
      const cookie = teo.cookie;
      const url = `/api/units/${bench.unitId}/visits/${bench.visitId}/entries`;
      let seq = bench.evidence.length;
      for (let turn = 0; turn < 8; turn++) {
        const entries = seen(bench, 3).map((entry) => ({ ...entry, seq: (seq += 1) }));
        const app = turn % 2 === 0 ? server.app : second;
        const answer = await app.inject({ method: 'POST', url, headers: { cookie }, payload: { entries } });
        expect(answer.json<EntriesTaken>()).toMatchObject({ refused: null });
      }
      expect(await rowsAndLog(bench)).toHaveLength(seq);
    } finally {
      await second.close();
    }
  });
});
