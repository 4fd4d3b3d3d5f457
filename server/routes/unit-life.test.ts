import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { foldVisit, lastShown } from '@decurio/core';
import type { ComparedStates, LedgerRecordView, UnitLife } from '@decurio/contract';
import {
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
let bench: Bench;
let capLabel: string;

beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  const { units } = await takeOrder(teo, orderFile(['S26-0001'], 'life'));
  bench = await new Bench(teo, units[0]!.id).open();
  await bench.toSignOff();
  await bench.sign('ready');
  const record = (await teo.get(`/api/visits/${bench.visitId}`)).json<LedgerRecordView>();
  const state = foldVisit(record.evidence);
  if (!state.ok) throw new Error(state.problem.message);
  const left = lastShown(state.value);
  capLabel = record.map.codes.find((code) => code.function === 'speedCap')!.label;
  const add = (kind: string, data: object) =>
    teo.post(`/api/visits/${bench.visitId}/handover`, { id: randomUUID(), kind, data });
  await add('unsigned', { name: 'R. Maddock', words: 'by courier' });
  const values = { ...left, [capLabel]: (left[capLabel] ?? 0) + 3 };
  expect((await add('cameBack', { values, asksPin: null, errors: [] })).statusCode).toBe(200);
});
afterAll(() => server.close());

const life = async (serial: string) => teo.get(`/api/ledger/units/${encodeURIComponent(serial)}`);
const compared = async (oneAt: string, otherAt: string, other = bench.visitId) =>
  teo.get(`/api/ledger/compared?one=${bench.visitId}&oneAt=${oneAt}&other=${other}&otherAt=${otherAt}`);

describe('the life of a unit', () => {
  it('tells what was of note over all visits, and every state there is to compare', async () => {
    const { visits, hasMore } = (await life('S26-0001')).json<UnitLife>();
    expect([visits.length, hasMore]).toEqual([1, false]);
    const [visit] = visits;
    expect(visit?.events.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['begun', 'sealed', 'out', 'back']));
    expect(visit?.events.find(({ kind }) => kind === 'out')?.says).toContain('R. Maddock');
    expect(visit?.states.map(({ key }) => key)).toEqual(['found', 'left', 'back-1']);
    const times = visit?.events.map(({ at }) => at) ?? [];
    expect([...times].sort()).toEqual(times);
  });

  it('says of a serial that was never here that it was not', async () => {
    const answer = await life(`O'%_"; 0401`);
    expect(answer.statusCode).toBe(404);
    expect(errorOf(answer).message).toContain('was ever begun here');
  });
});

describe('two states side by side', () => {
  it('say what moved on the road', async () => {
    const { differences } = (await compared('left', 'back-1')).json<ComparedStates>();
    expect(differences.map(({ title, grade }) => [title.split(' ')[0], grade])).toEqual([[capLabel, 'outOfClass']]);
    expect(differences[0]?.says).toContain('Help ends at');
  });

  it('differ in nothing from themselves', async () => {
    expect((await compared('left', 'left')).json<ComparedStates>().differences).toEqual([]);
  });

  it.each([
    ['a state that was never read', 'left', 'back-7', 404],
    ['no state at all', 'left', 'right', 400],
  ])('are refused with %s', async (_what, one, other, status) => {
    expect((await compared(one, other)).statusCode).toBe(status);
  });

  it('are refused with a visit that does not exist', async () => {
    expect((await compared('left', 'left', randomUUID())).statusCode).toBe(404);
  });
});
