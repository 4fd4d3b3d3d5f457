import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { foldHandover, lastShown, foldVisit } from '@decurio/core';
import type { HandoverView, LedgerAnswer, LedgerRecordView, LineView } from '@decurio/contract';
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
let orderId: string;
let left: Readonly<Record<string, number>>;
let cap: string;

beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  const { taken, units } = await takeOrder(teo, orderFile(['S26-0001'], 'back'));
  orderId = taken.orderId;
  bench = await new Bench(teo, units[0]!.id).open();
  await bench.toSignOff();
  expect((await bench.sign('ready')).statusCode).toBe(201);
  const record = (await teo.get(`/api/visits/${bench.visitId}`)).json<LedgerRecordView>();
  const state = foldVisit(record.evidence);
  if (!state.ok) throw new Error(state.problem.message);
  left = lastShown(state.value);
  cap = record.map.codes.find((code) => code.function === 'speedCap')!.label;
});
afterAll(() => server.close());

const add = (kind: string, data: object, id: string = randomUUID()) =>
  teo.post(`/api/visits/${bench.visitId}/handover`, { id, kind, data });
const handOut = () => add('unsigned', { name: 'R. Maddock', words: 'by courier' });
const back = (values: object, over: object = {}) => add('cameBack', { values, asksPin: null, errors: [], ...over });
const out = async () => {
  const answer = await teo.get('/api/ledger/answer?where=out');
  return answer.json<LedgerAnswer>().items.map(({ serial }) => serial);
};

describe('a unit back from hire', () => {
  it('is read only once it was out', async () => {
    expect(errorOf(await back(left)).message).toContain('in the house');
    expect((await handOut()).statusCode).toBe(200);
    expect(await out()).toEqual(['S26-0001']);
  });

  it.each([
    ['no values', { asksPin: null, errors: [] }],
    ['words for digits', { values: { L1: 'x' }, asksPin: null, errors: [] }],
    [
      'a heap of codes',
      { values: Object.fromEntries(Array.from({ length: 300 }, (_, i) => [`c${i}`, 1])), asksPin: null, errors: [] },
    ],
    ['its own verdict', { values: {}, asksPin: null, errors: [], mayGoOut: true }],
  ])('is refused with %s', async (_what, data) => {
    expect((await add('cameBack', data)).statusCode).toBe(400);
  });

  it('goes out again where nothing moved, and is in the house meanwhile', async () => {
    const { state } = (await back(left)).json<HandoverView>();
    expect(state.back).toMatchObject({ mayGoOut: true, from: 'R. Maddock', drifts: [] });
    expect(state.out).toBeNull();
    expect(await out()).toEqual([]);
    const came = (await teo.get('/api/ledger/answer?where=back')).json<LedgerAnswer>();
    expect(came.items.map(({ serial }) => serial)).toEqual(['S26-0001']);
    expect((await handOut()).statusCode).toBe(200);
  });

  it('stays where its cap was raised, whatever the client says of it, and the chain holds', async () => {
    const id = randomUUID();
    const data = { values: { ...left, [cap]: left[cap]! + 5 }, asksPin: false, errors: [] };
    const view = (await add('cameBack', data, id)).json<HandoverView>();
    expect(view.state.back?.says).toMatch(/^Do not send it out: speed cap moved/);
    const moved = (await teo.get('/api/ledger/answer?where=moved')).json<LedgerAnswer>();
    expect(moved.items.map(({ serial }) => serial)).toEqual(['S26-0001']);
    expect(view.state.back?.drifts?.[0]).toMatchObject({ label: cap, grade: 'outOfClass' });
    expect((await add('cameBack', data, id)).json<HandoverView>().entries).toHaveLength(view.entries.length);
    expect(errorOf(await handOut()).message).toContain('may not go out as it is');
    expect(foldHandover(view.seal, view.entries)).toMatchObject({ ok: true });
    const silent = view.entries.map((entry) =>
      entry.kind === 'cameBack' ? { ...entry, data: { ...entry.data, mayGoOut: true } } : entry,
    );
    expect(foldHandover(view.seal, silent)).toMatchObject({ ok: false, problem: { code: 'changed' } });
  });

  it('is taken up again, once, and its next visit begins from there', async () => {
    const id = randomUUID();
    const body = { id, why: 'Cap raised while out' };
    const taken = await teo.post(`/api/visits/${bench.visitId}/taken-up`, body);
    expect(taken.json()).toEqual({ unitId: bench.unitId });
    expect((await teo.post(`/api/visits/${bench.visitId}/taken-up`, body)).statusCode).toBe(200);
    const line = (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>();
    expect(line.units[0]).toMatchObject({
      status: 'waiting',
      returnedWhy: expect.stringContaining('Cap raised') as string,
    });
    const again = await teo.post(`/api/visits/${bench.visitId}/taken-up`, { id: randomUUID(), why: 'once more' });
    expect(errorOf(again).message).toContain('being prepared already');
    const next = await new Bench(teo, bench.unitId).open();
    expect(next.evidence[0]).toMatchObject({ kind: 'opened', data: { follows: { visitId: bench.visitId } } });
  });
});
