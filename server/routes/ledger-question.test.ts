import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LedgerAnswer, LedgerChoices, KeptQuestion } from '@decurio/contract';
import { fillLeft } from '../store/left-rows.js';
import {
  asDatabaseOwner,
  Bench,
  errorOf,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

let server: TestServer;
let teo: Person;
const serials = ['S26-0001', 'S26-0002', 'S26_0003'];
beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  const { units } = await takeOrder(teo, orderFile(serials));
  for (const unit of units) {
    const bench = await new Bench(teo, unit.id).open();
    await bench.toSignOff();
    expect((await bench.sign('ready')).statusCode).toBe(201);
  }
});
afterAll(() => server.close());

const ask = async (question: Record<string, string>) => teo.get(`/api/ledger/answer?${new URLSearchParams(question)}`);
const found = async (question: Record<string, string>) => {
  const answer = await ask(question);
  expect(answer.statusCode).toBe(200);
  return answer.json<LedgerAnswer>().items.map(({ serial }) => serial);
};
const all = [...serials].reverse();

describe('a question to the ledger', () => {
  it.each<[string, Record<string, string>, number]>([
    ['nothing', {}, 3],
    ['a cap over 20', { code: 'speedCap', is: 'over', value: '20' }, 3],
    ['a cap under 20', { code: 'speedCap', is: 'under', value: '20' }, 0],
    ['a cap by number, never as text: 9 is under 20', { code: 'speedCap', is: 'over', value: '9' }, 3],
    ['its customer', { customer: 'Causeway Holiday Park' }, 3],
    ['another customer', { customer: 'Gull Point' }, 0],
    ['its order', { order: '2611' }, 3],
    ['since long ago', { from: '2020-01-01' }, 3],
    ['until long ago', { to: '2020-01-01' }, 0],
    ['out', { where: 'out' }, 0],
    ['in the house', { where: 'house' }, 3],
    ['came back', { where: 'back' }, 0],
    ['every visit', { where: 'every' }, 3],
    ['came back unlike how they left', { where: 'moved' }, 0],
    ['a test that was proved', { proof: 'TEST', proved: 'shows' }, 3],
    ['a test left out', { proof: 'TEST', proved: 'left' }, 0],
    ['a test that nobody asked', { proof: 'nothing' }, 0],
    ['words nobody said', { words: "100%_'" }, 0],
    ['who worked on it', { worked: 'TEO' }, 3],
    ['who never worked', { worked: '00000000-0000-4000-8000-000000000000' }, 0],
    [
      'all at once',
      { code: 'speedCap', is: 'over', value: '20', customer: 'Causeway Holiday Park', where: 'house' },
      3,
    ],
  ])('finds by %s', async (_what, question, many) => {
    const { workers, proofs } = (await teo.get('/api/ledger/choices')).json<LedgerChoices>();
    const named: Record<string, string | undefined> = { TEST: proofs[0]?.test, TEO: workers[0]?.id };
    const asked = Object.fromEntries(Object.entries(question).map(([field, says]) => [field, named[says] ?? says]));
    expect(await found(asked)).toEqual(many === 3 ? all : []);
  });

  it('finds by any part of a serial, wild signs as they stand', async () => {
    expect(await found({ serial: '0002' })).toEqual(['S26-0002']);
    expect(await found({ serial: '26_0' })).toEqual(['S26_0003']);
    expect(await found({ serial: '%' })).toEqual([]);
    expect(await found({ serial: "'; DROP TABLE visit; --" })).toEqual([]);
    expect(await found({ serial: '\u202e\u0627' })).toEqual([]);
  });

  it('tells what the codes asked for were left at', async () => {
    const { items } = (await ask({ code: 'speedCap', is: 'over', value: '20' })).json<LedgerAnswer>();
    expect(items[0]?.codes).toEqual([expect.objectContaining({ says: 'km/h' })]);
    expect(items[0]?.isOut).toBe(false);
  });

  it.each([
    [{ code: 'speedCap', is: 'over', value: 'fast' }, 'is no number'],
    [{ code: 'constructor', value: '1' }, ''],
    [{ from: '2026-13-45' }, 'There is no day'],
    [{ from: 'yesterday' }, ''],
    [{ serial: 'x'.repeat(10_000) }, ''],
    [{ after: 'broken' }, 'page address'],
    [{ strange: 'x' }, ''],
  ])('is refused where it makes no sense: %j', async (question, says) => {
    const answer = await ask(question as unknown as Record<string, string>);
    expect(answer.statusCode).toBe(400);
    expect(errorOf(answer).message).toContain(says);
  });

  it('offers what there is to choose from', async () => {
    const choices = (await teo.get('/api/ledger/choices')).json<LedgerChoices>();
    expect(choices).toMatchObject({ customers: ['Causeway Holiday Park'], wanting: 0 });
    expect(choices.maps).toEqual([{ id: 'tallow-four-key', title: 'Tallow four-key, revision C' }]);
    expect(choices.people.map(({ name }) => name)).toEqual(['The technician']);
    expect(choices.codes.find(({ code }) => code === 'speedCap')).toBeDefined();
  });

  it('is answered as a file too, of which a spreadsheet takes no cell for a formula', async () => {
    const csv = await teo.get('/api/ledger/answer/file/csv?where=every');
    const lines = csv.body.split('\r\n');
    expect(lines[0]).toContain('serial,type,order');
    expect(lines).toHaveLength(5);
    const json = await teo.get('/api/ledger/answer/file/jsonl');
    expect(
      json.body
        .trim()
        .split('\n')
        .map((line) => (JSON.parse(line) as { serial: string }).serial),
    ).toEqual(all);
    expect((await teo.get('/api/ledger/answer/file/exe')).statusCode).toBe(400);
  });

  it('is kept under a name, once, and taken out', async () => {
    const id = randomUUID();
    const body = { id, name: 'Too fast', question: { code: 'speedCap', is: 'over', value: '20' } };
    expect((await teo.post('/api/ledger/questions', body)).statusCode).toBe(201);
    expect((await teo.post('/api/ledger/questions', body)).statusCode).toBe(201);
    const kept = (await teo.get('/api/ledger/questions')).json<readonly KeptQuestion[]>();
    expect(kept).toEqual([{ ...body, keptBy: 'The technician' }]);
    expect((await teo.post(`/api/ledger/questions/${id}/dropped`)).statusCode).toBe(200);
    expect((await teo.get('/api/ledger/questions')).json()).toEqual([]);
  });
});

describe('rows that an earlier release wrote', () => {
  it('say less, and are written anew, each once', async () => {
    const all = async () =>
      JSON.stringify(await asDatabaseOwner(server, 'SELECT * FROM left_visit ORDER BY visitId')) +
      JSON.stringify(await asDatabaseOwner(server, 'SELECT * FROM left_step ORDER BY visitId, step'));
    const before = await all();
    await asDatabaseOwner(
      server,
      'UPDATE left_visit SET packId = NULL, typeId = NULL, worstKmh = NULL, orderId = NULL WHERE serial = ?',
      ['S26-0001'],
    );
    await asDatabaseOwner(server, 'DELETE FROM left_step');
    expect((await teo.get('/api/ledger/choices')).json<LedgerChoices>().wanting).toBe(1);
    await asDatabaseOwner(server, 'UPDATE left_visit SET packId = NULL');
    expect(await fillLeft(server.app.source)).toBe(3);
    expect(await all()).toBe(before);
  });
});

describe('what was sealed before it could be asked for', () => {
  it('is taken in, goes on where it was stopped, and is the same', async () => {
    const rows = async () =>
      JSON.stringify(await asDatabaseOwner(server, 'SELECT * FROM left_code ORDER BY visitId, label'));
    const before = await rows();
    for (const table of ['left_code', 'left_proof', 'left_visit'])
      await asDatabaseOwner(server, `DELETE FROM ${table}`);
    expect((await teo.get('/api/ledger/choices')).json<LedgerChoices>().wanting).toBe(3);
    expect(await Promise.all([fillLeft(server.app.source), fillLeft(server.app.source)])).toContain(3);
    expect(await rows()).toBe(before);
    expect(await fillLeft(server.app.source)).toBe(0);
    expect(await found({})).toEqual(all);
  });
});
