import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Crew, Shop } from '@decurio/core';
import type {
  AfterwardsView,
  AskedChange,
  OfferView,
  PlanOutlook,
  PlanView,
  Scenario,
  WhatIfRequest,
} from '@decurio/contract';
import {
  Bench,
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
let owner: Person;
let ines: Person;
let teo: Person;
let benches: readonly Bench[] = [];

/** Everybody is there around the clock, so that it does not matter when the tests run. */
const ALWAYS = [1, 2, 3, 4, 5, 6, 7].map((day) => ({ day, from: '00:00', to: '24:00' }));
const crew = (over: (person: Crew['people'][number]) => Partial<Crew['people'][number]> = () => ({})): Crew => {
  const document = JSON.parse(demoFile('day/crew.json')) as Crew;
  const signInNames = { ines: 'lead', teo: 'technician', asta: 'owner' } as Record<string, string>;
  return {
    ...document,
    people: document.people.map((person) => ({
      ...person,
      signInName: signInNames[person.id] ?? null,
      hours: ALWAYS,
      ...over(person),
    })),
  };
};
const shop = (): Shop => {
  const document = JSON.parse(demoFile('day/shop.json')) as Shop;
  return { ...document, places: document.places.map((place) => ({ ...place, hours: ALWAYS })) };
};
const planOf = async (person: Person): Promise<PlanView> => (await person.get('/api/plan')).json<PlanView>();
const keep = (person: Person, revision: number, ...changes: AskedChange[]) =>
  person.post('/api/plan/changes', { revision, changes });
const startsOf = ({ bars }: PlanView, unitId: string): string | null | undefined =>
  bars.find((bar) => bar.unitId === unitId && bar.personId !== null)?.personId;

beforeAll(async () => {
  server = await startTestServer();
  owner = await signInAs(server, 'owner');
  await fillLibrary(owner);
  ines = await signInAs(server, 'lead');
  teo = await signInAs(server, 'technician');
});
afterAll(() => server.close());

describe('before anybody is entered', () => {
  it('says who and what is missing, and plans nothing', async () => {
    const { units } = await takeOrder(teo, orderFile(['S26-5001', 'S26-5002', 'S26-5003', 'S26-5004'], '7001'));
    benches = units.map(({ id }) => new Bench(teo, id));
    const plan = await planOf(teo);
    expect(plan.notes.map(({ code }) => code)).toEqual(expect.arrayContaining(['noCrew', 'noShop']));
    expect(plan.bars).toEqual([]);
    expect(plan.unplaced).toHaveLength(4);
  });

  it('takes a crew only whole: hours that end before they begin, a skill nobody knows, two of one id', async () => {
    const bad = [
      crew(() => ({ hours: [{ day: 1, from: '12:00', to: '08:00' }] })),
      crew(() => ({ skills: ['juggle'] as never })),
      crew(() => ({ id: 'same' })),
      { ...crew(), id: 'another' },
    ];
    for (const document of bad) {
      const answer = await ines.post('/api/library', { kind: 'crew', document });
      expect(answer.statusCode).toBe(400);
    }
    expect((await teo.post('/api/library', { kind: 'crew', document: crew() })).statusCode).toBe(403);
  });
});

describe('a plan', () => {
  beforeAll(async () => {
    for (const [kind, document] of [
      ['crew', crew()],
      ['shop', shop()],
    ] as const)
      expect((await ines.post('/api/library', { kind, document })).statusCode).toBe(201);
  });

  it('lays every unit out, with who, where and when, and when the order is ready', async () => {
    const plan = await planOf(teo);
    expect(plan.unplaced).toEqual([]);
    const [order] = plan.orders;
    expect(order).toMatchObject({ number: '7001', left: 4, units: 4 });
    expect(order!.readyBy![50]).toBeLessThanOrEqual(order!.readyBy![95]);
    expect(order!.readyMs).toBeGreaterThan(plan.madeAtMs - 60_000);
    const own = plan.bars.filter(({ unitId }) => unitId === benches[0]!.unitId);
    expect(own.map(({ tone }) => tone)).toEqual(expect.arrayContaining(['stand', 'wait', 'ride', 'prove', 'sign']));
    expect(own.find(({ tone }) => tone === 'ride')?.placeId).toBe('yard');
    expect(plan.people.find(({ isYou }) => isYou)?.id).toBe('teo');
  });

  it('is the same for everybody, and stays while nothing moves', async () => {
    const [one, other] = [await planOf(ines), await planOf(teo)];
    expect(other.revision).toBe(one.revision);
    expect(other.bars).toEqual(one.bars);
  });

  it('tells each what is next, with why, to whoever it is', async () => {
    const { nextForYou, orders } = (await teo.get('/api/plan/outlook')).json<PlanOutlook>();
    expect(orders).toHaveLength(1);
    const everybody = [nextForYou, (await ines.get('/api/plan/outlook')).json<PlanOutlook>().nextForYou].flat();
    expect(everybody.length).toBeGreaterThan(0);
    for (const next of everybody) expect(next.because).not.toBe('');
  });

  it('tells what a change would cost and keeps none of it', async () => {
    const before = await planOf(ines);
    const unitId = benches[0]!.unitId;
    const asked = {
      revision: before.revision,
      scenarios: [
        [{ kind: 'give', unitId, personId: 'teo' }],
        [{ kind: 'leaves', personId: 'ines', fromMs: before.madeAtMs, untilMs: before.madeAtMs + 86_400_000 }],
      ],
    };
    const answered = async (look: WhatIfRequest['look']) =>
      (await ines.post('/api/plan/what-if', { ...asked, look })).json<readonly Scenario[]>();
    const [[, gone], [, atOnce]] = [await answered('careful'), await answered('atOnce')];
    expect(atOnce!.orders[0]).toMatchObject({ readyMs: gone!.orders[0]!.readyMs, readyBy: null, inTime: null });
    expect(atOnce!.moved).toEqual(gone!.moved);
    expect(gone!.orders[0]!.readyBy![50]).toBeGreaterThanOrEqual(before.orders[0]!.readyBy![50] - 60_000);
    expect((await planOf(ines)).revision).toBe(before.revision);
  });

  it('tells what one more order would do, which is not the plan’s to keep', async () => {
    const { revision, madeAtMs, orders } = await planOf(ines);
    const more = (units: number): AskedChange => ({
      kind: 'takes',
      typeId: 'samphire-26',
      units,
      dueMs: madeAtMs + 21 * 86_400_000,
    });
    const scenarios = [[more(1)], [more(20)]];
    const [one, many] = (await ines.post('/api/plan/what-if', { revision, scenarios, look: 'careful' })).json<
      readonly Scenario[]
    >();
    expect(one!.tried).toHaveLength(1);
    expect(one!.tried[0]!.inTime).toBeGreaterThan(50);
    expect(many!.tried[0]!.readyMs).toBeGreaterThan(one!.tried[0]!.readyMs!);
    expect(one!.orders.map(({ orderId }) => orderId)).toEqual(orders.map(({ id }) => id));
    const unknown = { kind: 'takes', typeId: 'nothing', units: 1, dueMs: madeAtMs };
    expect(
      (await ines.post('/api/plan/what-if', { revision, scenarios: [[unknown]], look: 'atOnce' })).statusCode,
    ).toBe(404);
    expect(errorOf(await keep(ines, revision, more(1))).message).toContain('taken in under Orders');
  });

  it('is kept by a lead alone, obeyed, and told with what set it off', async () => {
    const { revision } = await planOf(ines);
    const unitId = benches[1]!.unitId;
    expect((await keep(teo, revision, { kind: 'give', unitId, personId: 'asta' })).statusCode).toBe(403);
    const next = (await keep(ines, revision, { kind: 'give', unitId, personId: 'asta' })).json<PlanView>();
    expect(startsOf(next, unitId)).toBe('asta');
    expect(next.units.find(({ id }) => id === unitId)?.givenTo).toBe('asta');
    expect(next.moves?.why).toBe('S26-5002 was given to Asta V.');
  });

  it('refuses what was decided on an older plan, and changes nothing', async () => {
    const { revision } = await planOf(ines);
    const unitId = benches[2]!.unitId;
    await keep(ines, revision, { kind: 'give', unitId, personId: 'teo' });
    const second = await keep(owner, revision, { kind: 'give', unitId, personId: 'asta' });
    expect(errorOf(second).code).toBe('planMoved');
    expect((await planOf(ines)).units.find(({ id }) => id === unitId)?.givenTo).toBe('teo');
  });

  it('sends somebody home as a new version of who is there, and shuts a place likewise', async () => {
    const { revision, madeAtMs } = await planOf(ines);
    const day = 86_400_000;
    const next = (
      await keep(
        ines,
        revision,
        { kind: 'leaves', personId: 'asta', fromMs: madeAtMs, untilMs: madeAtMs + day },
        { kind: 'shuts', placeId: 'roller', fromMs: madeAtMs, untilMs: madeAtMs + day },
      )
    ).json<PlanView>();
    const [entry] = (await ines.get('/api/library/crew')).json<{ version: number; document: Crew }[]>();
    expect(entry!.version).toBe(2);
    expect(entry!.document.people.find(({ id }) => id === 'asta')?.away).toHaveLength(1);
    expect(next.bars.filter(({ personId, fromMs }) => personId === 'asta' && fromMs < madeAtMs + day - 60_000)).toEqual(
      [],
    );
  });

  it('refuses changes that are not the plan’s to keep, and such that name nobody', async () => {
    const { revision } = await planOf(ines);
    const [order] = (await planOf(ines)).orders;
    for (const [change, says] of [
      [{ kind: 'due', orderId: order!.id, dueMs: Date.now() }, 'amend the order'],
      [{ kind: 'follow', orderId: order!.id, units: 1 }, 'agreed with the customer'],
      [{ kind: 'leaves', personId: 'nobody', fromMs: 1, untilMs: 2 }, 'Nobody of the crew'],
      [{ kind: 'give', unitId: benches[0]!.unitId, personId: 'nobody' }, 'Nobody of the crew'],
      [{ kind: 'opens', placeId: 'nowhere', untilMs: 5 }, 'no such place'],
    ] as const) {
      const answer = await keep(ines, revision, change as AskedChange);
      expect(answer.statusCode).toBe(400);
      expect(errorOf(answer).message).toContain(says);
    }
    for (const bad of [
      { kind: 'fly' },
      { kind: 'give', unitId: 'x', personId: null },
      { kind: 'stays', personId: 'teo' },
      null,
    ])
      expect((await ines.post('/api/plan/what-if', { revision, scenarios: [[bad]], look: 'careful' })).statusCode).toBe(
        400,
      );
  });

  it('takes only one of two that decide at once on the same plan, and loses neither', async () => {
    const { revision, madeAtMs } = await planOf(ines);
    const from = madeAtMs + 3 * 86_400_000;
    const away = (personId: string): AskedChange => ({
      kind: 'leaves',
      personId,
      fromMs: from,
      untilMs: from + 3_600_000,
    });
    const absences = async (): Promise<number> => {
      const [entry] = (await ines.get('/api/library/crew')).json<{ document: Crew }[]>();
      return entry!.document.people.reduce((sum, person) => sum + person.away.length, 0);
    };
    const before = await absences();
    const both = await Promise.all([keep(ines, revision, away('ines')), keep(owner, revision, away('teo'))]);
    expect(both.map(({ statusCode }) => statusCode).sort()).toEqual([200, 409]);
    expect(await absences()).toBe(before + 1);
    const again = await planOf(ines);
    expect((await keep(ines, again.revision, away('asta'))).statusCode).toBe(200);
    expect(await absences()).toBe(before + 2);
  });

  it('leaves a unit with whoever took it, whatever the plan or a lead had in mind', async () => {
    const bench = benches[3]!;
    const { revision } = await planOf(ines);
    await keep(ines, revision, { kind: 'give', unitId: bench.unitId, personId: 'asta' });
    await bench.open();
    const plan = await planOf(ines);
    expect(startsOf(plan, bench.unitId)).toBe('teo');
    const { nextForYou } = await planOf(teo);
    expect(nextForYou.find(({ unitId }) => unitId === bench.unitId)?.because).toBe('in your hands');
  });

  it('mends itself when a unit is held, and says so', async () => {
    const bench = benches[3]!;
    await bench.act('held', { reason: 'other', words: 'Its fork is bent.' });
    const plan = await planOf(ines);
    expect(plan.moves?.why).toBe('S26-5004 is held.');
    expect(plan.notes.map(({ code }) => code)).toContain('heldReckoned');
  });
});

describe('an order that is offered', () => {
  it('is told when it can be ready, and what it would push', async () => {
    const units = [{ typeId: 'samphire-26', mapId: null, count: 6 }];
    const answer = await teo.post('/api/plan/offers', { units, wanted: '2030-01-01T12:00', arrives: null });
    const offer = answer.json<OfferView>();
    expect(offer.behind![90]).toBeGreaterThan(Date.now());
    expect(offer.wanted).toMatchObject({ inTime: 100, pushes: [] });
  });

  it('of a type that is not there, or by no such time, is refused', async () => {
    const units = [{ typeId: 'samphire-26', mapId: null, count: 1 }];
    expect(
      (await teo.post('/api/plan/offers', { units: [{ ...units[0], typeId: 'none' }], wanted: null, arrives: null }))
        .statusCode,
    ).toBe(404);
    expect((await teo.post('/api/plan/offers', { units, wanted: '2026-13-40T99:00', arrives: null })).statusCode).toBe(
      400,
    );
    expect((await teo.post('/api/plan/offers', { units: [], wanted: null, arrives: null })).statusCode).toBe(400);
  });
});

describe('what leaves the plan', () => {
  it('is a calendar of an order and of a person, and a table whose cells are no formulas', async () => {
    const plan = await planOf(ines);
    const order = await ines.get(`/api/plan/orders/${plan.orders[0]!.id}/ready.ics`);
    expect([order.body, order.headers['content-type']].join()).toContain('text/calendar');
    expect(order.body).toContain('BEGIN:VEVENT');
    expect(order.body).toContain('7001 ready');
    const person = await ines.get('/api/plan/people/teo/day.ics');
    expect(person.body.match(/BEGIN:VEVENT/g)?.length).toBe(
      plan.bars.filter(({ personId }) => personId === 'teo').length,
    );
    expect((await ines.get('/api/plan/people/nobody/day.ics')).statusCode).toBe(404);
    const table = await ines.get('/api/plan.csv');
    expect(table.body.split('\r\n')[0]).toContain('from,to,order,unit,step,person,place');
    expect(table.body.split('\r\n').length).toBe(plan.bars.length + 1);
  });

  it('is what could be done for an order, and a search that ends by itself', async () => {
    const [order] = (await planOf(ines)).orders;
    expect((await ines.get(`/api/plan/orders/${order!.id}/remedies`)).json()).toEqual(expect.any(Array));
    expect((await teo.get('/api/plan/longer')).statusCode).toBe(403);
  });

  it('is held against what came of it', async () => {
    const told = (await ines.get('/api/plan/afterwards?from=2026-01-01&to=2099-12-31')).json<AfterwardsView>();
    expect(told).toEqual({ steps: [], orders: [] });
    expect((await ines.get('/api/plan/afterwards?from=2026-02-31&to=2026-03-01')).statusCode).toBe(400);
    expect((await teo.get('/api/plan/afterwards?from=2026-01-01&to=2026-02-01')).statusCode).toBe(403);
  });
});
