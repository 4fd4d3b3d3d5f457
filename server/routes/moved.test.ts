import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { HeldLine, LibraryEntry, LineView, MovedView, OrderView, Recalled, UnitMoved } from '@decurio/contract';
import type { VehicleClass } from '@decurio/core';
import { holdAgainst } from '../ledger/hold-against.js';
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
let ines: Person;
const visits: string[] = [];
const serials = ['S26-0001', 'S26-0002', 'S26-0003'];

beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  [teo, ines] = [await signInAs(server, 'technician'), await signInAs(server, 'lead')];
  const { units } = await takeOrder(teo, orderFile(serials, 'moved'));
  for (const unit of units) {
    const bench = await new Bench(teo, unit.id).open();
    await bench.toSignOff();
    await bench.sign('ready');
    visits.push(bench.visitId);
  }
  // The third stays in the house.
  for (const visitId of visits.slice(0, 2))
    await teo.post(`/api/visits/${visitId}/handover`, {
      id: randomUUID(),
      kind: 'unsigned',
      data: { name: 'R. Maddock', words: 'by courier' },
    });
});
afterAll(() => server.close());

const newest = async (): Promise<LibraryEntry<'rulePack'>> =>
  (await teo.get('/api/library/rulePack'))
    .json<LibraryEntry<'rulePack'>[]>()
    .find((entry) => entry.id === 'port-isel')!;
async function change(over: (each: VehicleClass) => Partial<VehicleClass>): Promise<number> {
  const { document } = await newest();
  const classes = document.classes.map((each) => ({ ...each, ...over(each), checked: null }));
  const answer = await ines.post('/api/library', { kind: 'rulePack', document: { ...document, classes } });
  expect(answer.statusCode).toBe(201);
  return (await newest()).version;
}
const held = async (kind = 'rulePack', id = 'port-isel'): Promise<readonly HeldLine[]> => {
  const answer = await ines.get(`/api/ledger/moved/${kind}/${id}`);
  expect(answer.statusCode).toBe(200);
  return answer.body
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as HeldLine);
};
const unitsIn = (lines: readonly HeldLine[]): readonly UnitMoved[] =>
  lines.flatMap((line) => (line.line === 'unit' ? [line.unit] : []));
const post = (person: Person, act: string, body: object) =>
  person.post(`/api/ledger/moved/rulePack/port-isel/${act}`, body);

describe('rules that move while units are out', () => {
  let version: number;

  it('name nothing while nothing moved', async () => {
    const view = (await teo.get('/api/ledger/moved')).json<MovedView>();
    expect(view.documents).toEqual([]);
    expect(unitsIn(await held())).toEqual([]);
  });

  it('call nobody back for words alone', async () => {
    await change(() => ({ riderNote: 'Give way at the ferry.' }));
    const view = (await teo.get('/api/ledger/moved')).json<MovedView>();
    expect(view.documents).toMatchObject([{ kind: 'rulePack', id: 'port-isel', unitsBehind: 2 }]);
    const lines = await held();
    expect(unitsIn(lines)).toEqual([]);
    expect(lines.at(-1)).toMatchObject({ line: 'ended', units: 2, moved: 0, unreadable: 0 });
  });

  it('name every unit that is out and too fast for them now, with the reason', async () => {
    version = await change(({ limit }) => (limit ? { limit: { value: 20, unit: 'km/h' } } : {}));
    const units = unitsIn(await held());
    expect(units.map(({ serial }) => serial).sort()).toEqual(['S26-0001', 'S26-0002']);
    for (const { reasons, decided } of units) {
      expect(reasons[0]).toMatchObject({ grade: 'outOfClass' });
      expect(reasons[0]?.says).toMatch(/^Help may run to .* and 20 km\/h is allowed/);
      expect(decided).toBeNull();
    }
  });

  it('are held by a lead alone, and against a document that is there', async () => {
    expect((await teo.get('/api/ledger/moved/rulePack/port-isel')).statusCode).toBe(403);
    expect((await ines.get('/api/ledger/moved/rulePack/nowhere')).statusCode).toBe(404);
    expect((await ines.get('/api/ledger/moved/account/port-isel')).statusCode).toBe(400);
  });

  it('let a unit stay in writing, by whom', async () => {
    const body = { version, visitIds: [visits[0]], words: 'Ridden on the pier alone' };
    expect((await post(teo, 'stays', body)).statusCode).toBe(403);
    expect(errorOf(await post(ines, 'stays', { ...body, version: version - 1 })).code).toBe('staleVersion');
    expect((await post(ines, 'stays', body)).statusCode).toBe(200);
    const unit = unitsIn(await held()).find(({ visitId }) => visitId === visits[0]);
    expect(unit?.decided).toEqual({ what: 'stays', words: 'Ridden on the pier alone', by: 'The lead' });
  });

  it('make a recall order in one step, once, in which the unit begins from how it left', async () => {
    const id = randomUUID();
    const body = {
      id,
      version,
      visitIds: [visits[1]],
      words: 'Twenty since the first',
      number: 'R-1',
      dueAt: '2099-01-01T08:00',
    };
    const made = (await post(ines, 'recalls', body)).json<Recalled>();
    expect(made).toMatchObject({ orders: [{ number: 'R-1', units: 1 }], left: [] });
    expect((await post(ines, 'recalls', body)).json<Recalled>().orders).toEqual(made.orders);
    const orderId = made.orders[0]!.orderId;
    const order = (await teo.get(`/api/orders/${orderId}`)).json<OrderView>();
    expect(order).toMatchObject({ order: { number: 'R-1', customer: 'Causeway Holiday Park', units: 1 } });
    const line = (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>();
    expect(line.units[0]).toMatchObject({ serial: 'S26-0002', returnedWhy: 'Recall: Twenty since the first' });
    const bench = await new Bench(teo, line.units[0]!.id).open();
    expect(bench.evidence[0]).toMatchObject({ data: { follows: { visitId: visits[1] } } });
    const unit = unitsIn(await held()).find(({ visitId }) => visitId === visits[1]);
    expect(unit?.decided?.what).toBe('recalled');
    const house = await post(ines, 'recalls', {
      ...body,
      id: randomUUID(),
      number: 'R-3',
      visitIds: [visits[0], visits[2]],
    });
    expect(house.json<Recalled>()).toMatchObject({
      orders: [{ number: 'R-3', units: 1 }],
      left: [{ serial: 'S26-0003', says: expect.stringContaining('back') as string }],
    });
    const again = await post(ines, 'recalls', { ...body, id: randomUUID(), number: 'R-2' });
    expect(errorOf(again).message).toContain('None of them is out');
  });

  it('are held by house rules too: what a rider would notice is told, and is not out of class', async () => {
    const [house] = (await teo.get('/api/library/houseRules')).json<LibraryEntry<'houseRules'>[]>();
    const { document } = house!;
    const other = { ...document, choices: { ...document.choices, brightness: 'middle', startRamp: 'strong' } };
    expect((await ines.post('/api/library', { kind: 'houseRules', document: other })).statusCode).toBe(201);
    const [unit] = unitsIn(await held('houseRules', house!.id));
    expect(unit?.reasons).toMatchObject([
      { grade: 'harmless', says: expect.stringMatching(/^Brightness left at/) as string },
    ]);
  });

  it('stop between two groups where nobody listens any more', async () => {
    const stopped = new AbortController();
    const lines: HeldLine[] = [];
    for await (const line of holdAgainst(server.app.source, { kind: 'rulePack', id: 'port-isel' }, stopped.signal)) {
      lines.push(line);
      stopped.abort();
    }
    expect(lines.map(({ line }) => line)).toEqual(['begun']);
  });

  it('tell of a check that ends before long, with the units out under it', async () => {
    const endsOn = new Date(Date.now() + 20 * 86_400_000).toISOString().slice(0, 10);
    const { version: now } = await newest();
    const answer = await ines.post('/api/library/rulePack/port-isel/classes/pedelec-25/confirm', {
      version: now,
      authority: 'Port Isel harbour office',
      source: 'Letter 12 of the office',
      expiresOn: endsOn,
    });
    expect(answer.statusCode).toBe(201);
    const { lapsing } = (await teo.get('/api/ledger/moved')).json<MovedView>();
    expect(lapsing).toMatchObject([{ what: 'class', endsOn, unitsOut: 2 }]);
  });

  it('say of a class that is gone that it is', async () => {
    const { document } = await newest();
    const left = document.classes.filter(({ id }) => id !== 'pedelec-25');
    expect(left.length).toBe(document.classes.length - 1);
    const answer = await ines.post('/api/library', { kind: 'rulePack', document: { ...document, classes: left } });
    expect(answer.statusCode).toBe(201);
    expect(unitsIn(await held())[0]?.reasons[0]?.says).toContain('not in version');
  });
});
