import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checkRecord, ERASED_NAME, type VisitRecord } from '@decurio/core';
import type { HandoverView, HouseView, LedgerRecordView, PersonalView, SealCheck } from '@decurio/contract';
import { eraseOld, erasePerson } from '../store/erase-personal.js';
import { keepPersonal } from '../store/personal.js';
import { addAccount } from '../store/accounts.js';
import {
  asDatabaseOwner,
  Bench,
  errorOf,
  fillLibrary,
  orderFile,
  PASSWORD,
  signIn,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
let owner: Person;
let ada: Person;
let benches: Bench[];

/** Works at the first two units, and leaves. */
const ADA = 'Ada Quill';

beforeAll(async () => {
  server = await startTestServer();
  owner = await signInAs(server, 'owner');
  await fillLibrary(owner);
  await addAccount(server.app.source, {
    signInName: 'ada',
    displayName: ADA,
    role: 'technician',
    password: PASSWORD,
    isDemo: false,
  });
  ada = await signIn(server, 'ada');
  const { units } = await takeOrder(ada, orderFile(['S-pers-1', 'S-pers-2', 'S-pers-3'], 'pers'));
  benches = [];
  for (const unit of units) {
    const bench = await new Bench(ada, unit.id).open();
    await bench.toSignOff();
    await bench.sign();
    benches.push(bench);
  }
  await receive(benches[0]!, 'Brook Alder');
  await receive(benches[1]!, 'Carr Hazel');
});
afterAll(() => server.close());

const strokes = [Array.from({ length: 20 }, (_, i) => [i / 20, 0.5])];
const receive = async ({ visitId }: Bench, name: string) => {
  const done = await ada.post(`/api/visits/${visitId}/handover`, {
    id: randomUUID(),
    kind: 'received',
    data: { name, strokes },
  });
  expect(done.statusCode).toBe(200);
};
const handover = async ({ visitId }: Bench) =>
  (await owner.get(`/api/visits/${visitId}/handover`)).json<HandoverView>();
const erase = ({ visitId }: Bench, what: 'signature' | 'all', person = owner) =>
  person.post(`/api/visits/${visitId}/handover/erase`, { what, why: 'They asked for it' });
const seal = async ({ visitId }: Bench) =>
  (await owner.post(`/api/visits/${visitId}/seal-check`, {})).json<SealCheck>();
const record = async ({ visitId }: Bench) =>
  (await owner.get(`/api/visits/${visitId}/record.json`)).json<VisitRecord>();
/** Everything that the database keeps, as text. */
const kept = async () => {
  const tables = ['evidence', 'handover_entry', 'personal', 'visit', 'unit', 'account', 'order_change'];
  const rows = await Promise.all(tables.map((table) => server.app.source.query<object[]>(`SELECT * FROM ${table}`)));
  return JSON.stringify(rows);
};

describe('whoever received a unit', () => {
  it('is kept apart: no chain holds a name or a stroke', async () => {
    const rows = await server.app.source.query<{ body: string }[]>(
      'SELECT body FROM handover_entry UNION ALL SELECT body FROM evidence',
    );
    expect(rows.map(({ body }) => body).join()).not.toMatch(/Alder|Hazel|Quill|"strokes":/);
    expect((await handover(benches[0]!)).state.out).toMatchObject({ to: 'Brook Alder', by: ADA, strokes });
  });

  it('is erased by an owner alone, with a reason', async () => {
    expect(errorOf(await erase(benches[0]!, 'all', ada)).code).toBe('notAllowed');
    const wordless = await owner.post(`/api/visits/${benches[0]!.visitId}/handover/erase`, { what: 'all', why: ' ' });
    expect(errorOf(wordless).code).toBe('badFields');
    expect(errorOf(await erase(benches[2]!, 'all')).code).toBe('nothingToErase');
  });

  it('may have the signature erased and the name kept', async () => {
    const after = (await erase(benches[1]!, 'signature')).json<HandoverView>();
    expect(after.state.out).toMatchObject({ to: 'Carr Hazel', strokes: [] });
    expect(await seal(benches[1]!)).toMatchObject({ holds: true, findings: [] });
  });

  it('is gone from every table once erased, and the seal holds', async () => {
    const after = (await erase(benches[0]!, 'all')).json<HandoverView>();
    expect(after.state.out).toMatchObject({ to: ERASED_NAME, strokes: [] });
    expect(await kept()).not.toContain('Alder');
    expect(await seal(benches[0]!)).toMatchObject({ holds: true, findings: [] });
    expect(errorOf(await erase(benches[0]!, 'all')).code).toBe('nothingToErase');
    expect(errorOf(await erase(benches[1]!, 'signature')).code).toBe('nothingToErase');
  });

  it('that was altered or taken away without being erased is found', async () => {
    const of = `subject = '${benches[1]!.visitId}' AND kind = 'receiver'`;
    await asDatabaseOwner(server, `UPDATE personal SET says = '"Carr Hazell"' WHERE ${of}`);
    await asDatabaseOwner(server, `UPDATE unit SET handedTo = 'Carr Hazell' WHERE serial = 'S-pers-2'`);
    expect((await seal(benches[1]!)).findings).toEqual([expect.stringContaining('is not the one that was sealed')]);
    await asDatabaseOwner(server, `UPDATE personal SET says = '"Carr Hazel"' WHERE ${of}`);
    await asDatabaseOwner(server, `UPDATE unit SET handedTo = 'Carr Hazel' WHERE serial = 'S-pers-2'`);
    expect(await seal(benches[1]!)).toMatchObject({ holds: true });
    await asDatabaseOwner(
      server,
      `DELETE FROM personal WHERE subject = '${benches[1]!.visitId}' AND kind = 'signature'`,
    );
    expect((await seal(benches[1]!)).findings).toEqual([expect.stringContaining('nobody noted that it was erased')]);
  });
});

describe('the name of somebody who works here', () => {
  const people = async () => (await owner.get('/api/personal')).json<PersonalView>().people;
  const idOf = async (name: string) => (await people()).find((person) => person.name === name)!.id;

  it('stands in a record that shows it is the right one', async () => {
    const whole = await record(benches[0]!);
    expect(whole.evidence.at(-1)?.by.name).toBe(ADA);
    expect(checkRecord(whole)).toMatchObject({ ok: true });
    const check = (file: object) => owner.post('/api/record-checks', file);
    expect((await check(whole)).json()).toMatchObject({ holds: true });
    const forged = JSON.parse(JSON.stringify(whole).replaceAll(ADA, 'Eve Other')) as object;
    expect((await check(forged)).json()).toMatchObject({
      holds: false,
      says: expect.stringContaining('names somebody else'),
    });
  });

  it('is not erased by its bearer, nor while two have the same, nor while they are at a unit', async () => {
    const url = async (name: string) => `/api/personal/people/${await idOf(name)}/erase`;
    const why = { why: 'Left the house' };
    expect(errorOf(await owner.post(await url('The owner'), why)).code).toBe('ownName');
    await asDatabaseOwner(server, `UPDATE unit SET worker = '${ADA}', status = 'open' WHERE serial = 'S-pers-3'`);
    expect(errorOf(await owner.post(await url(ADA), why))).toMatchObject({
      code: 'atUnit',
      message: expect.stringContaining('S-pers-3'),
    });
    await asDatabaseOwner(server, `UPDATE unit SET worker = '${ADA}', status = 'sealed' WHERE serial = 'S-pers-3'`);
    await addAccount(server.app.source, {
      signInName: 'other',
      displayName: ADA,
      role: 'technician',
      password: PASSWORD,
      isDemo: false,
    });
    expect(errorOf(await owner.post(await url(ADA), why)).code).toBe('sameName');
    await asDatabaseOwner(server, `DELETE FROM account WHERE signInName = 'other'`);
    await asDatabaseOwner(
      server,
      `DELETE FROM personal WHERE subject NOT IN (SELECT id FROM account) AND kind = 'worker'`,
    );
  });

  it('is gone from every table once erased; their records hold and their account is closed', async () => {
    const before = (await record(benches[2]!)).seal;
    const done = await owner.post(`/api/personal/people/${await idOf(ADA)}/erase`, { why: 'Left the house' });
    expect(done.json<PersonalView>().people.map(({ name }) => name)).not.toContain(ADA);
    expect(await kept()).not.toContain('Quill');
    const view = (await owner.get(`/api/visits/${benches[2]!.visitId}`)).json<LedgerRecordView>();
    expect(new Set(view.evidence.map(({ by }) => by.name))).toEqual(new Set([ERASED_NAME]));
    expect(view).toMatchObject({ sealedBy: ERASED_NAME, seal: before });
    for (const bench of [benches[0]!, benches[2]!])
      expect(await seal(bench)).toMatchObject({ holds: true, findings: [] });
    expect(checkRecord(await record(benches[2]!))).toMatchObject({ ok: true });
    expect((await ada.get('/api/house')).statusCode).toBe(401);
    await expect(signIn(server, 'ada')).rejects.toThrow();
  });
});

describe('what the house keeps for so many months', () => {
  it('is erased when they are over, and not before', async () => {
    const house = (await owner.get('/api/house')).json<HouseView>();
    await owner.put('/api/house', { ...house, keepReceiverMonths: 24 });
    const row = `subject = '${benches[1]!.visitId}' AND kind = 'receiver'`;
    await asDatabaseOwner(server, `UPDATE personal SET at = UTC_TIMESTAMP(3) - INTERVAL 23 MONTH WHERE ${row}`);
    await eraseOld(server.app.source);
    expect((await handover(benches[1]!)).state.out).toMatchObject({ to: 'Carr Hazel' });
    await asDatabaseOwner(server, `UPDATE personal SET at = UTC_TIMESTAMP(3) - INTERVAL 25 MONTH WHERE ${row}`);
    await eraseOld(server.app.source);
    expect((await handover(benches[1]!)).state.out).toMatchObject({ to: ERASED_NAME });
    const [{ why, erasedBy }] = (await server.app.source.query<{ why: string; erasedBy: null }[]>(
      `SELECT why, erasedBy FROM personal WHERE ${row}`,
    )) as [{ why: string; erasedBy: null }];
    expect([why, erasedBy]).toEqual([expect.stringContaining('time'), null]);
  });
});

describe('what nobody erases', () => {
  it('is the only owner, whoever or whatever asks, nor a name that another account had or has', async () => {
    const { people } = (await owner.get('/api/personal')).json<PersonalView>();
    const [own, lead] = ['The owner', 'The lead'].map((name) => people.find((person) => person.name === name)!);
    await expect(erasePerson(server.app.source, own!.id, 'too old', null)).rejects.toMatchObject({ code: 'lastOwner' });
    // The lead was called as the technician is now, for a while.
    await keepPersonal(server.app.source.manager, 'worker', lead!.id, 'The technician');
    const url = `/api/personal/people/${lead!.id}/erase`;
    expect(errorOf(await owner.post(url, { why: 'Left the house' })).code).toBe('sameName');
    expect((await owner.get('/api/personal')).json<PersonalView>().people).toEqual(people);
  });

  it('is a name that a list still shows: of a unit that is called back too', async () => {
    const { unitId, visitId } = benches[1]!;
    await keepPersonal(server.app.source.manager, 'receiver', visitId, 'Carr Hazel');
    await asDatabaseOwner(server, `UPDATE unit SET handedTo = 'Carr Hazel' WHERE id = '${unitId}'`);
    await asDatabaseOwner(
      server,
      `UPDATE unit SET visitId = NULL, lastVisitId = '${visitId}', status = 'waiting' WHERE id = '${unitId}'`,
    );
    expect((await erase(benches[1]!, 'all')).statusCode).toBe(200);
    const [row] = await server.app.source.query<{ handedTo: string }[]>(
      `SELECT handedTo FROM unit WHERE id = '${unitId}'`,
    );
    expect(row?.handedTo).toBe(ERASED_NAME);
  });
});
