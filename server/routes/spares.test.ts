import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lastShown } from '@decurio/core';
import type { HandoverView, LineView, PapersView, SealCheck, SpareView } from '@decurio/contract';
import { saidBy, seenPdf } from '../testing/seen-pdf.js';
import {
  Bench,
  CHECK_IN,
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
let orderId: string;
let unit: Bench;
let spare: Bench;

beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  const { taken, units } = await takeOrder(teo, orderFile(['S-worn-1', 'S-stored-2'], 'spare'));
  orderId = taken.orderId;
  unit = new Bench(teo, units[0]!.id);
});
afterAll(() => server.close());

const line = async () => (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>().units;
const addSpare = (serial: string) =>
  teo.post(`/api/orders/${orderId}/units`, {
    id: randomUUID(),
    units: [{ serial, typeId: 'samphire-26', mapId: 'tallow-four-key', isSpare: true }],
  });
const spares = async () => (await teo.get(`/api/units/${unit.unitId}/spares`)).json<SpareView[]>();
const fitted = (one: SpareView, over: object = {}) =>
  unit.draft('partReplaced', {
    part: 'display',
    words: 'The glass is broken.',
    oldOdometerKm: 310,
    newOdometerKm: 1,
    packV: null,
    spare: { serial: one.serial, visitId: one.visitId, values: one.values, ...over },
  });
const seal = async (visitId: string) => (await teo.post(`/api/visits/${visitId}/seal-check`, {})).json<SealCheck>();

describe('a spare display', () => {
  it('comes into an order, and is keyed and read back without anything that only a vehicle shows', async () => {
    expect((await addSpare('SP-1')).statusCode).toBe(201);
    const [row] = (await line()).filter(({ isSpare }) => isSpare);
    expect(row).toMatchObject({ serial: 'SP-1', status: 'waiting', ladder: 'xtttttxxtt' });
    spare = await new Bench(teo, row!.id).open();
    expect(spare.state.opened).toMatchObject({ isSpare: true });
    expect(spare.state.step).toBe('makeSafe');
    await spare.makeSafe();
    await spare.readFound();
    await spare.act('asFoundClosed');
    await spare.keyAll();
    for (const label of spare.state.toRead) await spare.act('codeRead', { label, raw: spare.state.values[label] });
    await spare.act('readBackClosed');
    expect(spare.state.step).toBe('signOff');
    const signed = await spare.sign();
    expect(signed.statusCode, signed.body).toBe(201);
    expect(await seal(spare.visitId)).toMatchObject({ holds: true, findings: [] });
  });

  it('is offered to units of its display, with what it was read back at', async () => {
    await unit.open();
    const [one, ...more] = await spares();
    expect(more).toEqual([]);
    expect(one).toMatchObject({ serial: 'SP-1', visitId: spare.visitId, values: lastShown(spare.state) });
  });

  it('goes on with what its record says and nothing else', async () => {
    await unit.toKeyIn();
    const [one] = await spares();
    const [label] = Object.keys(one!.values) as [string];
    const lied = fitted(one!, { values: { ...one!.values, [label]: one!.values[label]! + 1 } });
    expect(errorOf(await unit.send(lied)).code).toBe('spareDiffers');
    expect(errorOf(await unit.send(fitted(one!, { serial: 'SP-9' }))).code).toBe('spareDiffers');
    expect(errorOf(await unit.send(fitted(one!, { visitId: unit.visitId }))).code).toBe('spareGone');
    const tyre = unit.draft('partReplaced', { ...fitted(one!).data, part: 'tyre' });
    expect(errorOf(await unit.send(tyre)).code).toBe('spareIsDisplay');
    expect(await spares()).toHaveLength(1);
  });

  it('leaves nothing to key that it was keyed to already, and all of it to be read', async () => {
    const [one] = await spares();
    const wanted = unit.state.toKey;
    expect(wanted.length).toBeGreaterThan(0);
    unit.keep(await unit.send(fitted(one!)));
    expect(unit.state.step).toBe('checkIn');
    expect(unit.state.toKey).toEqual([]);
    expect(unit.state.toRead.length).toBeGreaterThan(0);
    expect(unit.state.carriedKm).toBe(309);
  });

  it('is on that unit from then on, in its own chain and on Line, and on no second one', async () => {
    expect(await spares()).toEqual([]);
    const own = (await teo.get(`/api/visits/${spare.visitId}/handover`)).json<HandoverView>();
    expect(own.state.out).toMatchObject({ to: 'S-worn-1' });
    expect((await line()).find(({ isSpare }) => isSpare)).toMatchObject({ handedTo: 'S-worn-1' });
    expect(await seal(spare.visitId)).toMatchObject({ holds: true, findings: [] });
    await unit.makeChecks('checkIn');
    await unit.act('checkedIn', CHECK_IN);
    const again = fitted({ serial: 'SP-1', visitId: spare.visitId, sealedAt: '', orderNumber: '', values: {} });
    expect(errorOf(await unit.send(again)).code).toBe('spareGone');
    const claimed = { id: randomUUID(), kind: 'fitted', data: { serial: 'S-x', visitId: unit.visitId } };
    expect((await teo.post(`/api/visits/${spare.visitId}/handover`, claimed)).statusCode).toBe(400);
  });

  it('gives the vehicle a letter on its kilometres, and others none', async () => {
    const view = (await teo.get(`/api/visits/${unit.visitId}/papers`)).json<PapersView>();
    expect(view.hasOdometerLetter).toBe(true);
    const pdf = await teo.get(`/api/visits/${unit.visitId}/odometer-letter.pdf`);
    const says = saidBy(await seenPdf(pdf.rawPayload));
    expect(says).toContain('309 km more');
    expect(says).toContain('SP-1');
    expect((await teo.get(`/api/visits/${spare.visitId}/odometer-letter.pdf`)).statusCode).toBe(404);
  });
});

describe('a unit that is put away', () => {
  let bench: Bench;
  const add = (kind: string, data: object) =>
    teo.post(`/api/visits/${bench.visitId}/handover`, { id: randomUUID(), kind, data });
  const row = async () => (await line()).find(({ serial }) => serial === 'S-stored-2')!;

  beforeAll(async () => {
    bench = await new Bench(teo, (await row()).id).open();
    await bench.toSignOff();
    await bench.sign();
  });

  it('has its pack measured, is told what that asks for, and is due again in a month', async () => {
    expect(errorOf(await add('packTaken', { packV: 37 })).code).toBe('notHandedOver');
    expect((await add('packStored', { packV: -1 })).statusCode).toBe(400);
    expect((await add('packStored', { packV: 41 })).statusCode).toBe(200);
    const { stored } = await row();
    expect(stored).toMatchObject({ packV: 41, act: 'use' });
    const days = (Date.parse(stored!.measureAt) - Date.parse(stored!.since)) / 86_400_000;
    expect(days).toBe(30);
    await add('packStored', { packV: 20 });
    expect((await row()).stored).toMatchObject({ packV: 20, act: 'stop', since: stored!.since });
    expect(await seal(bench.visitId)).toMatchObject({ holds: true, findings: [] });
  });

  it('is not handed over before it came out, measured', async () => {
    const out = { name: 'R. Maddock', words: 'Collected in the dark.' };
    expect(errorOf(await add('unsigned', out)).message).toMatch(/in storage/);
    await add('packTaken', { packV: 40.8 });
    expect((await row()).stored).toBeNull();
    expect((await add('unsigned', out)).statusCode).toBe(200);
    const { state, entries } = (await teo.get(`/api/visits/${bench.visitId}/handover`)).json<HandoverView>();
    expect(state.storage).toBeNull();
    expect(entries.filter(({ kind }) => kind === 'packStored')).toHaveLength(2);
  });
});
