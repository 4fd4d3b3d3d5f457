import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PLAIN_TERMS } from '@decurio/core';
import type {
  EndingAuthority,
  LineUnit,
  LineView,
  NewOrderRequest,
  OrderActed,
  OrderPageView,
  PinView,
} from '@decurio/contract';
import {
  Bench,
  DUE,
  confirmClass,
  demoFile,
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

beforeAll(async () => {
  server = await startTestServer();
  [teo, ines] = [await signInAs(server, 'technician'), await signInAs(server, 'lead')];
  await fillLibrary(await signInAs(server, 'owner'));
  await (
    await signInAs(server, 'owner')
  ).post('/api/library', {
    kind: 'houseRules',
    document: JSON.parse(demoFile('rules/lantern-couriers.json')) as object,
  });
});
afterAll(() => server.close());

const { siteLimit, orderLimit, throttle } = PLAIN_TERMS;
const terms = { siteLimit, orderLimit, throttle, privateLand: null };
let numbers = 3000;
const byHand = (over: Partial<NewOrderRequest> = {}): NewOrderRequest => ({
  id: randomUUID(),
  number: String(++numbers),
  customer: 'Harbour Tours',
  rulePackId: 'port-isel',
  classId: 'pedelec-25',
  houseRulesId: 'hire-default',
  dueAt: DUE.replace(' ', 'T'),
  notes: '',
  terms,
  units: [],
  expected: [],
  ...over,
});
const unit = (serial: string, typeId = 'samphire-26') => ({ serial, typeId, mapId: null });
const page = async (id: string): Promise<OrderPageView> => (await teo.get(`/api/orders/${id}`)).json<OrderPageView>();
const line = async (id: string): Promise<readonly LineUnit[]> =>
  (await teo.get(`/api/orders/${id}/line`)).json<LineView>().units;
const amend = (id: string, over: object, person = ines) =>
  person.post(`/api/orders/${id}/amendments`, {
    id: randomUUID(),
    reason: 'the site said so',
    customer: 'Causeway Holiday Park',
    rulePackId: 'port-isel',
    classId: 'pedelec-25',
    houseRulesId: 'hire-default',
    dueAt: DUE.replace(' ', 'T'),
    notes: '',
    terms,
    ...over,
  });
const slower = { terms: { ...terms, siteLimit: { value: 18, unit: 'km/h' } } };
let serials = 0;
const order = async (count = 1) =>
  takeOrder(
    teo,
    orderFile(
      Array.from({ length: count }, () => `A26-${String(++serials).padStart(4, '0')}`),
      String(++numbers),
    ),
  );

describe('an order by hand', () => {
  it('takes serials and units to come, and answers twice the same', async () => {
    const request = byHand({
      units: [unit('H26-0001')],
      expected: [
        { typeId: 'cockle-20', mapId: null, count: 3 },
        { typeId: 'samphire-26', mapId: null, count: 2 },
      ],
      notes: 'Baskets last.',
      terms: { ...terms, siteLimit: { value: 12.5, unit: 'mph' } },
    });
    const first = await teo.post('/api/orders', request);
    expect(first.statusCode).toBe(201);
    expect((await teo.post('/api/orders', request)).json()).toEqual(first.json());
    expect(await page(request.id)).toMatchObject({
      notes: 'Baskets last.',
      order: { units: 1, limitKmh: expect.closeTo(20.117, 3) },
      groups: [{ typeId: 'samphire-26', units: 1, sealed: 0 }],
      expected: [
        { typeId: 'cockle-20', typeName: 'Cockle 20', mapId: 'fescue-three-key', count: 3 },
        { typeId: 'samphire-26', count: 2 },
      ],
      changes: [{ kind: 'taken', by: 'The technician' }],
    });
  });

  it.each([
    ['a number that is taken', () => byHand({ number: '2611' }), 'orderExists'],
    ['a type for another kind', () => byHand({ classId: 'scooter-20', units: [unit('H26-0009')] }), 'unknownHere'],
    [
      'a display the type does not carry',
      () => byHand({ units: [{ ...unit('H26-0009'), mapId: 'fescue-three-key' }] }),
      'unknownHere',
    ],
    ['a serial twice', () => byHand({ units: [unit('H26-0009'), unit('h26-0009')] }), 'serialTaken'],
    ['a class that is not there', () => byHand({ classId: 'moped' }), 'notFound'],
    ['a negative limit', () => byHand({ terms: { ...terms, orderLimit: { value: -5, unit: 'km/h' } } }), 'badFields'],
    [
      'private land with a class for roads',
      () =>
        byHand({
          terms: {
            ...terms,
            privateLand: { acknowledgement: 'letter', endsOn: '2099-01-01', label: 'Yard only', isUncapped: false },
          },
        }),
      'badFields',
    ],
  ])('with %s is refused, and nothing is taken', async (_says, request, code) => {
    await takeOrder(teo, orderFile(['H26-2611'], '2611'));
    const made = request();
    expect(errorOf(await teo.post('/api/orders', made)).code).toBe(code);
    expect((await teo.get(`/api/orders/${made.id}`)).statusCode).toBe(404);
  });

  it('for private land wants a lead, an acknowledgement and an end', async () => {
    const land = { acknowledgement: 'letter 7', endsOn: '2099-12-31', label: 'Harbour yard only', isUncapped: false };
    const request = byHand({
      classId: 'harbour-yard',
      units: [unit('H26-0020')],
      terms: { ...terms, siteLimit: { value: 30, unit: 'km/h' }, privateLand: land },
    });
    expect(errorOf(await teo.post('/api/orders', request)).code).toBe('needsAuthority');
    expect(errorOf(await ines.post('/api/orders', { ...request, terms })).code).toBe('badFields');
    expect((await ines.post('/api/orders', request)).statusCode).toBe(201);
    const shown = await page(request.id);
    expect(shown.terms.privateLand).toEqual({ ...land, authorityBy: 'The lead' });
    expect(shown.order.privateLand).toEqual({ label: 'Harbour yard only', endsOn: '2099-12-31' });
    const [only] = await line(request.id);
    const bench = await new Bench(teo, only!.id).open();
    expect(bench.state.opened.order.privateLand).toMatchObject({ label: 'Harbour yard only', authorityBy: 'The lead' });
    // Out under an authority that has ended: named until it is back.
    const ending = async () => (await teo.get('/api/orders/ending')).json<EndingAuthority[]>();
    expect(await ending()).toEqual([]);
    await server.app.source.query(
      "UPDATE customer_order SET sealed = 1, terms = JSON_SET(terms, '$.privateLand.endsOn', '2026-01-31') WHERE id = ?",
      [request.id],
    );
    expect(await ending()).toEqual([
      expect.objectContaining({
        id: request.id,
        label: 'Harbour yard only',
        endsOn: '2026-01-31',
        hasEnded: true,
        sealed: 1,
      }),
    ]);
  });
});

describe('units of an order', () => {
  it('arrive one after another, and fewer are to come', async () => {
    const request = byHand({ expected: [{ typeId: 'samphire-26', mapId: null, count: 2 }] });
    await teo.post('/api/orders', request);
    const act = { id: randomUUID(), units: [unit('H26-0101')] };
    expect((await teo.post(`/api/orders/${request.id}/units`, act)).statusCode).toBe(201);
    await teo.post(`/api/orders/${request.id}/units`, act);
    expect((await page(request.id)).expected[0]?.count).toBe(1);
    await teo.post(`/api/orders/${request.id}/units`, { id: randomUUID(), units: [unit('H26-0102')] });
    expect(await page(request.id)).toMatchObject({ expected: [], order: { units: 2 } });
    expect(
      errorOf(await teo.post(`/api/orders/${request.id}/units`, { id: randomUUID(), units: [unit('H26-0102')] }))
        .message,
    ).toBe('H26-0102 is in this order already. Nothing was changed.');
    expect((await line(request.id)).map(({ serial }) => serial)).toEqual(['H26-0101', 'H26-0102']);
  });

  it('are withdrawn by a lead with a reason, begun or not, and may come again', async () => {
    const { taken, units } = await order(3);
    const bench = await new Bench(teo, units[1]!.id).open();
    const act = { id: randomUUID(), reason: 'sold at the quay', unitIds: [units[0]!.id, units[1]!.id] };
    expect(errorOf(await teo.post(`/api/orders/${taken.orderId}/withdrawals`, act)).code).toBe('notAllowed');
    expect((await ines.post(`/api/orders/${taken.orderId}/withdrawals`, act)).statusCode).toBe(200);
    expect((await line(taken.orderId)).map(({ serial }) => serial)).toEqual([units[2]!.serial]);
    expect((await page(taken.orderId)).order.units).toBe(1);
    expect(
      errorOf(
        await bench.send({
          ...bench.draft('checkedIn', {
            revisionConfirmed: true,
            odometerKm: 1,
            packV: 39,
            packCondition: 'sound',
            tyreBar: null,
            cablesFree: true,
            clampSound: true,
            accessories: '',
            damage: '',
          }),
          seq: 3,
        }),
      ).code,
    ).toBe('withdrawn');
    expect(
      errorOf(await ines.post(`/api/orders/${taken.orderId}/withdrawals`, { ...act, id: randomUUID() })).code,
    ).toBe('notInOrder');
    expect(
      (await teo.post(`/api/orders/${taken.orderId}/units`, { id: randomUUID(), units: [unit(units[0]!.serial)] }))
        .statusCode,
    ).toBe(201);
    expect((await line(taken.orderId)).map(({ serial, status }) => [serial, status])).toEqual([
      [units[0]!.serial, 'waiting'],
      [units[2]!.serial, 'waiting'],
    ]);
  });
});

describe('an amendment', () => {
  it("is a lead's, with a reason, and says what it moved", async () => {
    const { taken } = await order();
    expect(errorOf(await amend(taken.orderId, slower, teo)).code).toBe('notAllowed');
    expect(errorOf(await amend(taken.orderId, { ...slower, reason: '' })).fields).toMatchObject({
      reason: expect.any(String),
    });
    expect(errorOf(await amend(taken.orderId, {})).code).toBe('nothingChanged');
    expect((await amend(taken.orderId, slower)).statusCode).toBe(200);
    const [change] = (await page(taken.orderId)).changes;
    expect(change).toMatchObject({
      kind: 'amended',
      by: 'The lead',
      reason: 'the site said so',
      says: ['Site limit: was none, is 18 km/h.'],
    });
  });

  it('works a unit under way out anew, and leaves one nobody has begun to its opening', async () => {
    const { taken, units } = await order(2);
    const bench = await new Bench(teo, units[0]!.id).open();
    await bench.toSignOff();
    expect((await amend(taken.orderId, slower)).json<OrderActed>()).toEqual({ revised: 1, returned: [] });
    const { evidence } = (await teo.get(`/api/units/${units[0]!.id}/bench`)).json<{
      evidence: typeof bench.evidence;
    }>();
    bench.evidence.splice(0, bench.evidence.length, ...evidence);
    expect(bench.state).toMatchObject({ step: 'keyIn', round: 2, toKey: ['L4.1'], toRead: ['L4.1'] });
    expect((await line(taken.orderId)).map(({ step }) => step)).toEqual(['keyIn', null]);
    const second = await new Bench(teo, units[1]!.id).open();
    expect(second.state.opened.setup.targets.find((t) => t.label === 'L4.1')?.raw).toBe(17);
  });

  it('brings a unit that was done and differs back to the line, taken up where it was left', async () => {
    const { taken, units } = await order(2);
    for (const { id } of units) {
      const bench = await new Bench(teo, id).open();
      expect((await (await bench.toSignOff()).sign()).statusCode).toBe(201);
    }
    expect((await page(taken.orderId)).order.sealed).toBe(2);
    const acted = (await amend(taken.orderId, slower)).json<OrderActed>();
    expect(acted.returned).toEqual(units.map(({ serial }) => ({ serial, says: 'L4.1 left at 24, must be 17.' })));
    expect(await page(taken.orderId)).toMatchObject({ order: { sealed: 0, units: 2 } });
    const [first] = await line(taken.orderId);
    expect(first).toMatchObject({
      status: 'waiting',
      visitId: null,
      returnedWhy: expect.stringContaining('L4.1 left at 24, must be 17.'),
    });
    const again = await new Bench(teo, first!.id).open();
    expect(again.state.opened.follows?.why).toContain('the site said so');
    expect(again.state.toKey).toEqual(['L4.1']);
    await again.toSignOff();
    expect((await again.sign()).statusCode).toBe(201);
    expect((await page(taken.orderId)).order.sealed).toBe(1);
    expect((await teo.get(`/api/ledger?search=${first!.serial}`)).json<{ items: unknown[] }>().items).toHaveLength(2);
  });

  it('that ends its time on private land brings every unit back, to be read and proved in full', async () => {
    const land = { acknowledgement: 'letter 7', endsOn: '2099-12-31', label: 'Harbour yard only', isUncapped: false };
    const request = byHand({
      classId: 'harbour-yard',
      units: [unit('H26-0031'), unit('H26-0032')],
      terms: { ...terms, siteLimit: { value: 15, unit: 'km/h' }, privateLand: land },
    });
    const packs = (await ines.get('/api/library/rulePack')).json<{ id: string; version: number }[]>();
    const { version } = packs.find(({ id }) => id === 'port-isel')!;
    expect((await confirmClass(ines, 'harbour-yard', version)).statusCode).toBe(201);
    expect((await ines.post('/api/orders', request)).statusCode).toBe(201);
    for (const { id } of await line(request.id)) {
      const bench = await new Bench(teo, id).open();
      expect(bench.state.opened.follows).toBeUndefined();
      expect((await (await bench.toSignOff()).sign()).statusCode).toBe(201);
    }
    const { customer, rulePackId, houseRulesId, dueAt, notes } = request;
    const acted = await ines.post(`/api/orders/${request.id}/amendments`, {
      id: randomUUID(),
      reason: 'the yard gives them up',
      customer,
      rulePackId,
      classId: 'pedelec-25',
      houseRulesId,
      dueAt,
      notes,
      terms: { ...terms, siteLimit: { value: 15, unit: 'km/h' } },
    });
    expect(acted.json<OrderActed>().returned.map(({ serial }) => serial)).toEqual(['H26-0031', 'H26-0032']);
    const [first] = await line(request.id);
    expect(first?.returnedWhy).toContain('Its time on private land is over: it is restored and proved.');
    const again = await new Bench(teo, first!.id).open();
    expect(again.state.opened.follows?.fromPrivateLand).toEqual({ label: 'Harbour yard only', endsOn: '2099-12-31' });
    expect(again.state.opened.bench).toMatchObject({
      asFound: { reads: 'all' },
      proving: { runs: 'all', unproved: 'never' },
    });
  });

  it('of a due time or a note brings nobody back, whatever moved in the library', async () => {
    const { taken, units } = await order();
    const bench = await new Bench(teo, units[0]!.id).open();
    await (await bench.toSignOff()).sign();
    const rules = JSON.parse(demoFile('rules/hire-default.json')) as { choices: object };
    await ines.post('/api/library', {
      kind: 'houseRules',
      document: { ...rules, choices: { ...rules.choices, autoOffMin: 5 } },
    });
    expect((await amend(taken.orderId, { dueAt: '2099-12-24T08:00' })).json()).toEqual({ revised: 0, returned: [] });
    expect((await line(taken.orderId))[0]?.status).toBe('sealed');
    const anew = await ines.post(`/api/orders/${taken.orderId}/setups`, {
      id: randomUUID(),
      reason: 'the house rules moved',
    });
    expect(anew.json<OrderActed>().returned).toEqual([
      { serial: units[0]!.serial, says: 'L7.2 left at 10, must be 5.' },
    ]);
    await ines.post('/api/library', { kind: 'houseRules', document: rules });
  });

  it('that moves nothing for a unit leaves it sealed', async () => {
    const { taken, units } = await order();
    const bench = await new Bench(teo, units[0]!.id).open();
    await (await bench.toSignOff()).sign();
    expect((await amend(taken.orderId, { notes: 'Ring before delivery.' })).json()).toEqual({
      revised: 0,
      returned: [],
    });
    expect((await line(taken.orderId))[0]?.status).toBe('sealed');
  });
});

describe("a lead's choice", () => {
  it('stands in the setup of every unit of the type, and lets it be signed off', async () => {
    const source = (await teo.get('/api/library/vehicleType'))
      .json<{ id: string; document: object }[]>()
      .find(({ id }) => id === 'samphire-26')!.document;
    await ines.post('/api/library', {
      kind: 'vehicleType',
      document: { ...source, id: 'slow-26', name: 'Slow 26', attainableKmh: 22 },
    });
    const request = byHand({ units: [unit('H26-0300', 'slow-26')] });
    await ines.post('/api/orders', request);
    const [only] = await line(request.id);
    const bench = await new Bench(teo, only!.id).open();
    await bench.toSignOff();
    expect(errorOf(await bench.sign()).code).toBe('undecided');
    const choice = {
      id: randomUUID(),
      finding: 'aboveAttainable:unit',
      typeId: 'slow-26',
      words: 'measured end speed is enough',
    };
    expect(errorOf(await teo.post(`/api/orders/${request.id}/decisions`, choice)).code).toBe('notAllowed');
    expect(
      errorOf(
        await ines.post(`/api/orders/${request.id}/decisions`, {
          ...choice,
          id: randomUUID(),
          finding: 'nothing:unit',
        }),
      ).code,
    ).toBe('notAsked');
    expect(
      errorOf(
        await ines.post(`/api/orders/${request.id}/decisions`, { ...choice, id: randomUUID(), typeId: 'cockle-20' }),
      ).code,
    ).toBe('notAsked');
    expect((await ines.post(`/api/orders/${request.id}/decisions`, choice)).json()).toEqual({
      revised: 1,
      returned: [],
    });
    const { evidence } = (await teo.get(`/api/units/${only!.id}/bench`)).json<{ evidence: typeof bench.evidence }>();
    bench.evidence.splice(0, bench.evidence.length, ...evidence);
    expect(bench.state.opened.setup.findings).toContainEqual(
      expect.objectContaining({ id: 'aboveAttainable:unit', decided: expect.objectContaining({ by: 'The lead' }) }),
    );
    expect((await bench.sign()).statusCode).toBe(201);
  });
});

describe('one unit otherwise', () => {
  it('has its own wishes with their reason, within the class, and they can be taken back', async () => {
    const { taken, units } = await order(2);
    const bench = await new Bench(teo, units[0]!.id).open();
    const wishes = {
      choices: { assistLevels: 3 },
      limit: { value: 16, unit: 'km/h' },
      why: 'one rider wants it gentler',
    };
    const put = (body: unknown, person = ines) =>
      person.put(`/api/units/${units[0]!.id}/wishes`, { id: randomUUID(), wishes: body });
    expect(errorOf(await put(wishes, teo)).code).toBe('notAllowed');
    expect(errorOf(await put({ ...wishes, choices: { assistLevels: 'many' } })).code).toBe('badFields');
    expect((await put(wishes)).json()).toMatchObject({ revised: 1 });
    const raws = async (id: string) => {
      const { evidence } = (await teo.get(`/api/units/${id}/bench`)).json<{ evidence: typeof bench.evidence }>();
      bench.evidence.splice(0, bench.evidence.length, ...evidence);
      return ['L4.1', 'L5.1'].map((label) => bench.state.opened.setup.targets.find((t) => t.label === label)?.raw);
    };
    expect(await raws(units[0]!.id)).toEqual([15, 3]);
    expect((await line(taken.orderId)).map(({ own }) => own?.why ?? null)).toEqual([
      'one rider wants it gentler',
      null,
    ]);
    expect((await put(null)).json()).toMatchObject({ revised: 1 });
    expect(await raws(units[0]!.id)).toEqual([24, 5]);
    expect((await page(taken.orderId)).changes.map(({ kind }) => kind)).toEqual(['wishes', 'wishes']);
  });
});

describe('a PIN by policy', () => {
  const look = (id: string, unitId: string | null, person = ines, why = 'handing over', opens = 'start') =>
    person.post(`/api/orders/${id}/pin-looks`, { opens, unitId, why });
  const menu = (id: string, unitId: string | null) => look(id, unitId, ines, 'handing over', 'menu');

  it('is one for the order, shown to a lead who says why, and every look is recorded', async () => {
    const { taken } = await order();
    expect(errorOf(await look(taken.orderId, null, teo)).code).toBe('notAllowed');
    expect(errorOf(await look(taken.orderId, null, ines, '')).code).toBe('badFields');
    const first = (await look(taken.orderId, null)).json<PinView>();
    expect(first).toMatchObject({ digits: expect.stringMatching(/^\d{4}$/), looks: [] });
    const second = (await look(taken.orderId, null, ines, 'customer rang')).json<PinView>();
    expect(second.digits).toBe(first.digits);
    expect(second.looks).toEqual([{ by: 'The lead', at: expect.any(String), why: 'handing over' }]);
    const rows = await server.app.source.query<{ sealedDigits: string }[]>(
      'SELECT sealedDigits FROM pin WHERE orderId = ?',
      [taken.orderId],
    );
    expect(rows[0]?.sealedDigits).not.toContain(first.digits);
  });

  it('is one for each unit where the house rules say so', async () => {
    const request = byHand({ units: [unit('H26-0401'), unit('H26-0402')] });
    await ines.post('/api/orders', request);
    const [a, b] = await line(request.id);
    expect(errorOf(await menu(request.id, null)).code).toBe('noPin');
    const digits = [
      (await menu(request.id, a!.id)).json<PinView>().digits,
      (await menu(request.id, b!.id)).json<PinView>().digits,
    ];
    expect((await menu(request.id, a!.id)).json<PinView>().digits).toBe(digits[0]);
    const { units: others } = await order();
    expect(errorOf(await menu(request.id, others[0]!.id)).code).toBe('notInOrder');
    const start = (await look(request.id, null)).json<PinView>().digits;
    expect(digits).not.toContain(start);
  });

  it("cannot be unrecorded with the application's rights", async () => {
    await expect(server.app.source.query('DELETE FROM pin_look')).rejects.toThrow(/denied/);
    await expect(server.app.source.query('UPDATE order_change SET reason = ?', ['none'])).rejects.toThrow(/denied/);
  });
});

it('an order whose class has no row is refused at the door of the file', async () => {
  await confirmClass(ines, 'pedelec-25', 2);
  const csv =
    'order,customer,due,place,class,type,serial\n3999,Harbour Tours,2099-12-11 09:00,Port Isel,harbour-yard,Samphire 26,H26-0900';
  const report = (await teo.post(`/api/intakes?id=${randomUUID()}&fileName=o.csv`, csv, 'text/csv')).json<{
    problems: { code: string }[];
  }>();
  expect(report.problems.map(({ code }) => code)).toEqual(['needsAuthority']);
});
