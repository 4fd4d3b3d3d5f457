import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { verifyChain, type Evidence, type VisitRecord } from '@decurio/core';
import type { EntryTaken, LedgerRow, LineUnit, Page } from '@decurio/contract';
import {
  asDatabaseOwner,
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
let units: readonly LineUnit[];
let next = 0;
beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  ({ units } = await takeOrder(teo, orderFile(Array.from({ length: 9 }, (_, i) => `Z26-000${i}`))));
});
afterAll(() => server.close());

const MINUTE_MS = 60_000;
const ago = (minutes: number): string => new Date(Date.now() - minutes * MINUTE_MS).toISOString();
const newUnit = (): LineUnit => units[next++]!;
const openAt = (unit: LineUnit, at: string) =>
  teo.post(`/api/units/${unit.id}/visits`, { visitId: randomUUID(), entryId: randomUUID(), at });
const NO_TIME = [
  '2026-13-45T99:99:99Z',
  '2026-02-30T10:00:00Z',
  '2026-11-28T24:00:00Z',
  '2026-11-28T10:00:00',
  'soon',
  '',
];

describe('the time that a stand says', () => {
  it.each(NO_TIME)('is refused where there is no such time: %j', async (at) => {
    const unit = newUnit();
    next--;
    expect(errorOf(await openAt(unit, at)).fields).toHaveProperty('at');
  });

  it('is refused for an entry of every kind, before it is written', async () => {
    const bench = await new Bench(teo, newUnit().id).open();
    const send = (at: string) => bench.send({ ...bench.draft('checkedIn', CHECK_IN), at });
    for (const at of NO_TIME) expect(errorOf(await send(at)).fields).toHaveProperty('at');
    expect(errorOf(await send(ago(-2))).code).toBe('clockAhead');
    expect(errorOf(await send(ago(10 * 365 * 24 * 60))).code).toBe('clockBehind');
    expect(errorOf(await send(ago(2))).code).toBe('clockBehind');
    expect((await send(ago(0.5))).statusCode).toBe(201);
  });

  it('of an opening is of today', async () => {
    const unit = newUnit();
    expect(errorOf(await openAt(unit, ago(-5))).code).toBe('clockAhead');
    expect(errorOf(await openAt(unit, ago(25 * 60))).code).toBe('clockBehind');
    expect((await openAt(unit, ago(5 * 60))).statusCode).toBe(201);
  });

  it('may be hours old where the entry waited on a device, and its arrival stands beside it', async () => {
    const unit = newUnit();
    const opened = (await openAt(unit, ago(5 * 60))).json<Evidence>();
    const entry = { id: randomUUID(), seq: 2, kind: 'checkedIn', at: ago(4 * 60), data: CHECK_IN };
    const taken = (await teo.post(`/api/units/${unit.id}/visits/${opened.visitId}/evidence`, entry)).json<EntryTaken>()
      .entry;
    expect(taken.at).toBe(entry.at);
    expect(Math.abs(Date.parse(taken.receivedAt ?? '') - Date.now())).toBeLessThan(MINUTE_MS);
    expect(verifyChain([opened, taken]).ok).toBe(true);
    expect(verifyChain([opened, { ...taken, receivedAt: entry.at }]).ok).toBe(false);
  });
});

describe('a clock that is off', () => {
  const withClock = (bench: Bench, offS: number, said?: string) =>
    server.app.inject({
      method: 'POST',
      url: `/api/units/${bench.unitId}/visits/${bench.visitId}/evidence`,
      headers: { cookie: teo.cookie, 'x-stand-clock': said ?? String(Date.now() + offS * 1000) },
      payload: bench.draft('checkedIn', CHECK_IN),
    });

  it.each([
    [-600, -600],
    [420, 420],
  ])('by %i s is noted in the entry, under its hash', async (offS, noted) => {
    const bench = await new Bench(teo, newUnit().id).open();
    const { entry } = (await withClock(bench, offS)).json<EntryTaken>();
    expect(Math.abs((entry.clockOffS ?? 0) - noted)).toBeLessThan(30);
    expect(verifyChain([bench.evidence[0]!, entry]).ok).toBe(true);
    expect(verifyChain([bench.evidence[0]!, { ...entry, clockOffS: 0 }]).ok).toBe(false);
  });

  it('by little, or that says nonsense, is not', async () => {
    const bench = await new Bench(teo, newUnit().id).open();
    expect((await withClock(bench, 60)).json<EntryTaken>().entry).not.toHaveProperty('clockOffS');
    bench.evidence.push(
      (await teo.get(`/api/units/${bench.unitId}/bench`)).json<{ evidence: Evidence[] }>().evidence[1]!,
    );
    const safe = await server.app.inject({
      method: 'POST',
      url: `/api/units/${bench.unitId}/visits/${bench.visitId}/evidence`,
      headers: { cookie: teo.cookie, 'x-stand-clock': 'half past nine' },
      payload: bench.draft('madeSafe', { cautions: bench.state.opened.bench?.cautions ?? [] }),
    });
    expect(safe.json<EntryTaken>().entry).not.toHaveProperty('clockOffS');
  });

  it('is told by every answer, which carries the clock of the house', async () => {
    const { headers } = await teo.get('/api/orders');
    expect(Math.abs(Number(headers['x-server-clock']) - Date.now())).toBeLessThan(MINUTE_MS);
  });
});

describe('a seal', () => {
  it('is of when it arrived here, on the list, the record and its file alike', async () => {
    const bench = await new Bench(teo, newUnit().id).open();
    await bench.toSignOff();
    expect((await bench.sign()).statusCode).toBe(201);
    const last = bench.evidence.at(-1)!;
    const row = (await teo.get('/api/ledger'))
      .json<Page<LedgerRow>>()
      .items.find(({ visitId }) => visitId === bench.visitId);
    expect(row?.sealedAt).toBe(last.receivedAt);
    expect((await teo.get(`/api/visits/${bench.visitId}/record.json`)).json<VisitRecord>().sealedAt).toBe(
      last.receivedAt,
    );
  });
});

describe('a unit whose entries were damaged in the database', () => {
  it('says so at the bench, and is no fault of the server', async () => {
    const bench = await new Bench(teo, units[0]!.id).open().catch(() => null);
    const { visitId } = (await teo.get(`/api/units?serial=${units[0]!.serial}`)).json<{ visitId: string }>();
    await asDatabaseOwner(server, "UPDATE evidence SET body = 'null' WHERE visitId = ? AND seq = 1", [visitId]);
    const look = await teo.get(`/api/units/${units[0]!.id}/bench`);
    expect([look.statusCode, errorOf(look).code]).toEqual([409, 'recordDamaged']);
    expect(bench).toBeNull();
  });
});
