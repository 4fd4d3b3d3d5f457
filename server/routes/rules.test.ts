import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BenchView, LibraryEntry, StarterView } from '@decurio/contract';
import type { RulePack, VehicleClass } from '@decurio/core';
import {
  asDatabaseOwner,
  Bench,
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
let asta: Person;

beforeAll(async () => {
  server = await startTestServer();
  [teo, ines, asta] = [
    await signInAs(server, 'technician'),
    await signInAs(server, 'lead'),
    await signInAs(server, 'owner'),
  ];
  await fillLibrary(asta);
});
afterAll(() => server.close());

const newest = async (): Promise<LibraryEntry<'rulePack'>> =>
  (await teo.get('/api/library/rulePack'))
    .json<LibraryEntry<'rulePack'>[]>()
    .find((entry) => entry.id === 'port-isel')!;
const classIn = async (id: string): Promise<VehicleClass> =>
  (await newest()).document.classes.find((each) => each.id === id)!;
const save = (document: RulePack, person = ines) => person.post('/api/library', { kind: 'rulePack', document });
const change = (document: RulePack, id: string, over: Partial<VehicleClass>): RulePack => ({
  ...document,
  classes: document.classes.map((each) => (each.id === id ? { ...each, ...over } : each)),
});

describe('a class', () => {
  it('is confirmed by a lead with own authority, source and last day, as a new version', async () => {
    const before = await newest();
    expect(errorOf(await confirmClass(teo, 'scooter-20', before.version)).code).toBe('notAllowed');
    expect((await confirmClass(ines, 'scooter-20', before.version)).statusCode).toBe(201);
    const { checked } = await classIn('scooter-20');
    expect(checked).toMatchObject({
      by: 'The lead',
      authority: 'Port Isel harbour office',
      source: 'Letter 12 of the office',
      expiresOn: '2099-12-31',
      on: expect.stringMatching(/^\d{4}-\d\d-\d\d$/),
    });
    expect((await newest()).version).toBe(before.version + 1);
  });

  it('is not confirmed on a version that is not the newest, nor until a day that is past', async () => {
    expect(errorOf(await confirmClass(ines, 'scooter-20', 1)).code).toBe('staleVersion');
    const { version } = await newest();
    const past = await ines.post('/api/library/rulePack/port-isel/classes/scooter-20/confirm', {
      version,
      authority: 'the office',
      source: 'a letter',
      expiresOn: '2020-01-01',
    });
    expect(errorOf(past).code).toBe('expiresBefore');
    const noDay = await ines.post('/api/library/rulePack/port-isel/classes/scooter-20/confirm', {
      version,
      authority: 'x',
      source: '',
      expiresOn: '2026-02-30',
    });
    expect(errorOf(noDay).fields).toMatchObject({
      authority: 'Name the authority that was asked.',
      source: expect.any(String),
      expiresOn: 'There is no such day.',
    });
    expect(
      errorOf(
        await ines.post('/api/library/rulePack/port-isel/classes/nothing/confirm', {
          version,
          authority: 'the office',
          source: 'a letter',
          expiresOn: '2099-01-01',
        }),
      ).code,
    ).toBe('classGone');
  });

  it('that says something new is not checked any more, and a check cannot be brought in', async () => {
    const { document } = await newest();
    expect(errorOf(await save(change(document, 'scooter-20', { limit: { value: 22, unit: 'km/h' } }))).code).toBe(
      'checkedElsewhere',
    );
    expect(
      (await save(change(document, 'scooter-20', { limit: { value: 22, unit: 'km/h' }, checked: null }))).statusCode,
    ).toBe(201);
    expect((await classIn('pedelec-25')).checked).not.toBeNull();
    const twin = { ...document, id: 'elsewhere' };
    expect(errorOf(await save(twin, asta)).code).toBe('placeTaken');
    const foreign = { ...twin, place: 'Elsewhere' };
    expect(errorOf(await save(foreign, asta)).code).toBe('checkedElsewhere');
  });

  it('with a slip is told by its place', async () => {
    const { document } = await newest();
    const answer = await save(change(document, 'scooter-20', { limit: null, greatestMassKg: -4 }));
    expect(errorOf(answer)).toMatchObject({
      code: 'badDocument',
      fields: {
        'classes[1].limit': 'A class for public roads names its limit.',
        'classes[1].greatestMassKg': 'Above zero.',
      },
    });
  });
});

describe('signing off', () => {
  const ready = async (order: string): Promise<Bench> => {
    const { units } = await takeOrder(teo, orderFile([`R26-${order}`], order));
    const bench = await new Bench(teo, units[0]!.id).open();
    return bench.toSignOff();
  };

  it('waits until a lead has confirmed the class, and while its check has run out', async () => {
    const bench = await ready('9001');
    const { document } = await newest();
    await save(change(document, 'pedelec-25', { checked: null }));
    expect(errorOf(await bench.sign()).code).toBe('classNotChecked');
    const { version } = await newest();
    await asDatabaseOwner(
      server,
      "UPDATE library_document SET body = JSON_SET(body, '$.classes[0].checked', JSON_OBJECT('by', 'I', 'authority', 'office', 'source', 'letter', 'on', '2020-01-01', 'expiresOn', '2020-12-31')) WHERE docId = 'port-isel' AND version = ?",
      [version],
    );
    expect(errorOf(await bench.sign()).code).toBe('checkRanOut');
    await confirmClass(ines, 'pedelec-25', version);
    expect((await bench.sign('ready')).statusCode).toBe(201);
    expect(bench.evidence.at(-1)).toMatchObject({
      kind: 'signedOff',
      data: { check: { by: 'The lead', on: expect.stringMatching(/^\d{4}-\d\d-\d\d$/) } },
    });
  });

  it('is refused under a check that is not the one on the screen', async () => {
    const bench = await ready('9002');
    const { classCheck } = (await teo.get(`/api/units/${bench.unitId}/bench`)).json<BenchView>();
    const other = await bench.send(
      bench.draft('signedOff', { words: '', check: classCheck && { ...classCheck, by: 'Somebody' } }),
    );
    expect(errorOf(other).code).toBe('checkMoved');
    expect(errorOf(await bench.send(bench.draft('signedOff', { words: '', check: null }))).code).toBe('checkMoved');
  });

  it('is refused where the class moved since the unit was set up, until its order is worked out anew', async () => {
    const bench = await ready('9003');
    const { document } = await newest();
    await save(change(document, 'pedelec-25', { limit: { value: 20, unit: 'km/h' }, checked: null }));
    await confirmClass(ines, 'pedelec-25', (await newest()).version);
    expect(errorOf(await bench.sign()).code).toBe('rulesMoved');
    const order = (await teo.get(`/api/units?serial=R26-9003`)).json<{ orderId: string }>();
    const acted = await ines.post(`/api/orders/${order.orderId}/setups`, {
      id: crypto.randomUUID(),
      reason: 'the class was lowered',
    });
    expect(acted.json()).toMatchObject({ revised: 1, returned: [] });
  });
});

describe('starter rule packs', () => {
  it('ship unchecked, and are brought in one by one', async () => {
    const before = (await teo.get('/api/starters')).json<StarterView[]>();
    expect(before.map(({ place }) => place)).toEqual(
      expect.arrayContaining(['United Kingdom', 'California', 'Private land, anywhere']),
    );
    expect(errorOf(await teo.post('/api/starters/california')).code).toBe('notAllowed');
    expect((await ines.post('/api/starters/california')).statusCode).toBe(201);
    // The country's pack that California's follows is brought along.
    expect((await teo.get('/api/starters')).json<StarterView[]>()).toHaveLength(before.length - 2);
    const brought = (await teo.get('/api/library/rulePack')).json<LibraryEntry<'rulePack'>[]>();
    expect(brought.find(({ id }) => id === 'california')?.document.parent).toEqual({
      id: 'usa-three-classes',
      version: 1,
    });
    expect(errorOf(await ines.post('/api/starters/nowhere')).code).toBe('notFound');
    expect(errorOf(await ines.post('/api/starters/california')).code).toBe('sameDocument');
  });
});

describe('a pack that follows another', () => {
  it('names one that is there at that version, follows nothing itself and holds the class', async () => {
    const child = JSON.parse(JSON.stringify((await newest()).document)) as RulePack;
    const save = (over: Partial<RulePack>) =>
      asta.post('/api/library', {
        kind: 'rulePack',
        document: {
          ...child,
          id: 'part-of-it',
          place: 'Part of it',
          classes: child.classes.map((each) => ({ ...each, follows: each.id, checked: null })),
          ...over,
        },
      });
    expect(errorOf(await save({ parent: { id: 'nowhere', version: 1 } })).code).toBe('parentMissing');
    expect(errorOf(await save({ parent: { id: 'port-isel', version: 900 } })).code).toBe('parentMissing');
    const stray = child.classes.map((each) => ({ ...each, follows: 'other', checked: null }));
    expect(errorOf(await save({ parent: { id: 'port-isel', version: 1 }, classes: stray })).message).toContain(
      '"other"',
    );
    expect((await save({ parent: { id: 'port-isel', version: 1 } })).statusCode).toBe(201);
    const third = await save({ id: 'third', place: 'Third', parent: { id: 'part-of-it', version: 1 } });
    expect(errorOf(third).message).toContain('follows another one');
  });
});

describe('house rules of a customer', () => {
  it('are taken by an order that names none', async () => {
    const document = JSON.parse(demoFile('rules/lantern-couriers.json')) as object;
    await ines.post('/api/library', {
      kind: 'houseRules',
      document: { ...document, id: 'a-causeway', customer: 'Causeway Holiday Park' },
    });
    const { taken } = await takeOrder(teo, orderFile(['R26-9010'], '9010'));
    expect((await teo.get(`/api/orders/${taken.orderId}`)).json()).toMatchObject({ houseRulesId: 'a-causeway' });
  });
});

describe('what an order names by its words', () => {
  it('means one thing: no second type of a name, and none with displays that are not there', async () => {
    const type = { ...(JSON.parse(demoFile('types/samphire-26.json')) as object), checkList: null };
    const answer = async (over: object) =>
      errorOf(await ines.post('/api/library', { kind: 'vehicleType', document: { ...type, ...over } }));
    expect(await answer({ id: 'other-26', name: 'samphire 26' })).toMatchObject({
      code: 'nameTaken',
      message: expect.stringContaining('samphire-26'),
    });
    expect((await answer({ id: 'other-26', name: 'Other 26', checkList: 'nowhere' })).code).toBe('listMissing');
    expect(await answer({ id: 'other-26', name: 'Other 26', maps: ['tallow-four-key', 'nowhere'] })).toMatchObject({
      code: 'mapsMissing',
      fields: { maps: 'Not in the library: nowhere.' },
    });
  });
});
