import { fullMap } from '@decurio/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { DisplayMap, Evidence } from '@decurio/core';
import type {
  BenchView,
  DisputeView,
  LibraryEntry,
  LineUnit,
  PaceView,
  WelcomeView,
  VersionView,
} from '@decurio/contract';
import {
  Bench,
  CHECK_IN,
  demoFile,
  errorOf,
  fillLibrary,
  orderFile,
  orderRow,
  ORDER_HEADER,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';
import { changeAccount, readPace } from '../store/accounts.js';

let server: TestServer;
let teo: Person;
let ines: Person;
let asta: Person;
let units: readonly LineUnit[];
let couriers: readonly LineUnit[];
beforeAll(async () => {
  server = await startTestServer();
  [teo, ines, asta] = await Promise.all([
    signInAs(server, 'technician'),
    signInAs(server, 'lead'),
    signInAs(server, 'owner'),
  ]);
  await fillLibrary(asta);
  for (const id of ['dunlin-a', 'dunlin-b', 'dunlin-c'])
    await asta.post('/api/library', { kind: 'displayMap', document: JSON.parse(demoFile(`maps/${id}.json`)) });
  await asta.post('/api/library', { kind: 'vehicleType', document: JSON.parse(demoFile('types/withy-700.json')) });
  ({ units } = await takeOrder(teo, orderFile(['S26-0001', 'S26-0002'])));
  ({ units: couriers } = await takeOrder(
    teo,
    [ORDER_HEADER, ...['W70-0001', 'W70-0002', 'W70-0003'].map((serial) => orderRow(serial, '2618', 'Withy 700'))].join(
      '\n',
    ),
  ));
});
afterAll(() => server.close());

const tallow = (over: Partial<DisplayMap> = {}): DisplayMap => ({
  ...(fullMap(JSON.parse(demoFile('maps/tallow-four-key.json'))) as DisplayMap),
  confirmed: null,
  ...over,
});
const benchOf = async (unit: LineUnit) => (await teo.get(`/api/units/${unit.id}/bench`)).json<BenchView>();

describe('a map that is changed', () => {
  const draft = tallow({ id: 'tallow-draft', notes: 'first' });

  it('is kept as a draft in a version of its own', async () => {
    expect((await ines.post('/api/library', { kind: 'displayMap', document: draft })).statusCode).toBe(201);
    expect(
      (
        await ines.post('/api/library', { kind: 'displayMap', document: { ...draft, notes: 'second' } })
      ).json<LibraryEntry>().version,
    ).toBe(2);
    const versions = (await teo.get('/api/library/displayMap/tallow-draft/versions')).json<VersionView[]>();
    expect(versions.map((v) => [v.version, v.addedBy, v.confirmed])).toEqual([
      [2, 'The lead', null],
      [1, 'The lead', null],
    ]);
    expect(
      (await teo.get('/api/library/displayMap/tallow-draft/versions/1')).json<LibraryEntry<'displayMap'>>().document
        .notes,
    ).toBe('first');
  });

  it('is not changed by a technician, nor brought in as confirmed by a lead', async () => {
    expect((await teo.post('/api/library', { kind: 'displayMap', document: draft })).statusCode).toBe(403);
    const confirmed = await ines.post('/api/library', {
      kind: 'displayMap',
      document: { ...draft, confirmed: { by: 'me', on: '2026-11-24', unit: 'x', firmware: 'y' } },
    });
    expect(errorOf(confirmed).code).toBe('confirmedElsewhere');
  });

  it('is confirmed by a second person against a unit, not by its writer', async () => {
    const body = { version: 2, unit: 'S26-0001', firmware: 'C 2.4' };
    expect(errorOf(await ines.post('/api/library/displayMap/tallow-draft/confirm', body)).code).toBe('ownDraft');
    expect((await teo.post('/api/library/displayMap/tallow-draft/confirm', body)).statusCode).toBe(403);
    expect(errorOf(await asta.post('/api/library/displayMap/tallow-draft/confirm', { ...body, version: 1 })).code).toBe(
      'staleVersion',
    );
    expect(
      errorOf(await asta.post('/api/library/displayMap/tallow-draft/confirm', { ...body, unit: '' })).fields,
    ).toMatchObject({ unit: expect.any(String) });
    const done = await asta.post('/api/library/displayMap/tallow-draft/confirm', body);
    expect(done.statusCode).toBe(201);
    expect(done.json<LibraryEntry<'displayMap'>>()).toMatchObject({
      version: 3,
      document: { confirmed: { by: 'The lead, The owner', unit: 'S26-0001', firmware: 'C 2.4' } },
    });
    expect(errorOf(await asta.post('/api/library/displayMap/tallow-draft/confirm', { ...body, version: 3 })).code).toBe(
      'confirmedAlready',
    );
  });

  it('that is not sound is refused with a path', async () => {
    const { menu } = draft;
    const answer = await ines.post('/api/library', {
      kind: 'displayMap',
      document: { ...draft, menu: { ...menu, next: { kind: 'tap', key: 'sett' } } },
    });
    expect(errorOf(answer)).toMatchObject({ code: 'badDocument' });
    expect(JSON.stringify(errorOf(answer).fields)).toContain('menu.next.key');
  });
});

describe('a dispute', () => {
  it('is raised by a code that will not change, once for each code and version', async () => {
    const bench = await new Bench(teo, units[0]!.id).open();
    await bench.toKeyIn();
    await bench.act('codeStuck', { label: 'L4.1', raw: 30 });
    const disputes = (await teo.get('/api/disputes?mapId=tallow-four-key')).json<DisputeView[]>();
    expect(disputes).toEqual([
      expect.objectContaining({
        label: 'L4.1',
        kind: 'doesNotChange',
        serial: 'S26-0001',
        by: 'The technician',
        says: 'Shows 30 and does not change to 24.',
        settled: null,
      }),
    ]);
    const second = await new Bench(teo, units[1]!.id).open();
    await second.toKeyIn();
    await second.act('codeStuck', { label: 'L4.1', raw: 30 });
    expect((await teo.get('/api/disputes?mapId=tallow-four-key')).json<DisputeView[]>()).toHaveLength(1);
  });

  it('is raised by a value that the map does not know', async () => {
    const bench = new Bench(teo, units[1]!.id);
    const { evidence } = await benchOf(units[1]!);
    bench.evidence.push(...evidence);
    const answer = await teo.post(
      `/api/units/${units[1]!.id}/visits/${evidence[0]!.visitId}/evidence`,
      bench.draft('codeSeen', { label: 'L1.2', raw: 9 }),
    );
    expect(answer.statusCode).toBe(201);
    expect((await teo.get('/api/disputes?mapId=tallow-four-key')).json<DisputeView[]>()).toContainEqual(
      expect.objectContaining({ label: 'L1.2', kind: 'otherRange', says: 'Shows 9, outside what the map says.' }),
    );
  });

  it('is written by anyone, and settled in writing by a lead', async () => {
    const dispute = {
      id: randomUUID(),
      mapId: 'dunlin-a',
      mapVersion: 1,
      label: null,
      kind: 'other',
      says: 'The glass flickers in the cold.',
      serial: null,
    };
    expect((await teo.post('/api/disputes', dispute)).statusCode).toBe(201);
    expect((await teo.post('/api/disputes', dispute)).json<DisputeView>().id).toBe(dispute.id);
    expect((await teo.post(`/api/disputes/${dispute.id}/settle`, { words: 'seen' })).statusCode).toBe(403);
    expect(errorOf(await ines.post(`/api/disputes/${dispute.id}/settle`, { words: '' })).fields).toBeDefined();
    expect(
      (await ines.post(`/api/disputes/${dispute.id}/settle`, { words: 'It is the cold.' })).json<DisputeView>().settled,
    ).toMatchObject({ by: 'The lead', words: 'It is the cold.' });
    expect(errorOf(await ines.post(`/api/disputes/${dispute.id}/settle`, { words: 'again' })).code).toBe(
      'settledAlready',
    );
    expect((await teo.get('/api/disputes?mapId=dunlin-a')).json<DisputeView[]>()).toHaveLength(1);
  });

  it('of a map that is not there is refused', async () => {
    expect(
      (
        await teo.post('/api/disputes', {
          id: randomUUID(),
          mapId: 'nothing',
          mapVersion: 1,
          label: null,
          kind: 'other',
          says: 'something',
          serial: null,
        })
      ).statusCode,
    ).toBe(404);
    expect((await ines.post(`/api/disputes/${randomUUID()}/settle`, { words: 'seen' })).statusCode).toBe(404);
  });
});

describe('displays that look alike', () => {
  const tell = (bench: Bench, mapId: string, told = [{ asks: 'How many entries?', says: '9' }], id = randomUUID()) =>
    teo.post(`/api/units/${bench.unitId}/visits/${bench.visitId}/display`, {
      id,
      seq: bench.evidence.length + 1,
      at: new Date().toISOString(),
      mapId,
      told,
    });

  it('are taken in without naming one, and all are put before who checks in', async () => {
    const view = await benchOf(couriers[0]!);
    expect(view.lookAlikes.map((map) => map.id)).toEqual(['dunlin-a', 'dunlin-b', 'dunlin-c']);
    expect(view).toMatchObject({ map: { id: 'dunlin-a' }, batch: null });
    expect((await benchOf(units[0]!)).lookAlikes).toHaveLength(1);
  });

  it('once told change the map and the setup of the visit, in an entry of their own', async () => {
    const bench = await new Bench(teo, couriers[0]!.id).open();
    const id = randomUUID();
    const first = await tell(bench, 'dunlin-c', undefined, id);
    expect(first.statusCode).toBe(201);
    expect((await tell(bench, 'dunlin-c', undefined, id)).json<Evidence>().hash).toBe(first.json<Evidence>().hash);
    bench.evidence.push(first.json<Evidence>());
    expect(bench.state.opened.versions.map.id).toBe('dunlin-c');
    const view = await benchOf(couriers[0]!);
    expect(view).toMatchObject({ map: { id: 'dunlin-c' } });
    await bench.toSignOff();
    expect((await bench.sign()).statusCode).toBe(201);
    expect(bench.state.step).toBeNull();
  });

  it('are remembered for the next unit of the batch', async () => {
    expect((await benchOf(couriers[1]!)).batch).toEqual({ mapId: 'dunlin-c', serial: 'W70-0001' });
  });

  it('must be ones that the type carries, and told at check in', async () => {
    const bench = await new Bench(teo, couriers[2]!.id).open();
    expect(errorOf(await tell(bench, 'tallow-four-key')).code).toBe('notFitted');
    await bench.act('checkedIn', CHECK_IN);
    expect(errorOf(await tell(bench, 'dunlin-b')).code).toBe('wrongStep');
    expect((await benchOf(couriers[2]!)).map.id).toBe('dunlin-a');
  });
});

describe('a pace', () => {
  it("is each person's own, and nobody's before it is learnt", async () => {
    expect((await teo.get('/api/pace')).json<PaceView>()).toEqual({ pace: null });
    const put = (pace: object) =>
      server.app.inject({
        method: 'PUT',
        url: '/api/pace',
        headers: { cookie: teo.cookie, 'content-type': 'application/json' },
        payload: JSON.stringify(pace),
      });
    expect((await put({ tapMs: 300, holdExtraMs: 200, lookMs: 600 })).json<PaceView>().pace).toMatchObject({
      tapMs: 300,
    });
    expect((await put({ tapMs: 0, holdExtraMs: 200, lookMs: 600 })).statusCode).toBe(400);
    expect((await teo.get('/api/pace')).json<PaceView>()).toEqual({
      pace: { tapMs: 300, holdExtraMs: 200, lookMs: 600 },
    });
    expect((await ines.get('/api/pace')).json<PaceView>()).toEqual({ pace: null });
    const { userId } = (
      await server.app.inject({ url: '/api/welcome', headers: { cookie: teo.cookie } })
    ).json<WelcomeView>().session!;
    await changeAccount(server.app.source, {
      signInName: 'technician',
      displayName: 'The technician',
      role: 'technician',
      password: 'another-one',
    });
    // Another password ends every session of before.
    expect((await teo.get('/api/pace')).statusCode).toBe(401);
    expect(await readPace(server.app.source, userId)).toMatchObject({ tapMs: 300 });
  });
});
