import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { HOUSE_UNSAID, type HouseView, type OrderView, type WelcomeView } from '@decurio/contract';
import { dayIn } from '@decurio/core';
import {
  asDatabaseOwner,
  errorOf,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

/** Never the same day in both. */
const [EAST, WEST] = ['Pacific/Kiritimati', 'Pacific/Pago_Pago'];

let server: TestServer;
let owner: Person;
let teo: Person;
beforeAll(async () => {
  server = await startTestServer();
  owner = await signInAs(server, 'owner');
  teo = await signInAs(server, 'technician');
  await fillLibrary(owner);
});
afterAll(() => server.close());

const put = (zone: string, person = owner, fireService = '') =>
  person.put('/api/house', { ...HOUSE_UNSAID, zone, fireService });

describe('the house', () => {
  it('is where its machine is, until an owner says otherwise; others look', async () => {
    const machine = new Intl.DateTimeFormat().resolvedOptions().timeZone;
    expect((await teo.get('/api/house')).json()).toEqual({ ...HOUSE_UNSAID, zone: machine });
    expect(errorOf(await put(EAST!, await signInAs(server, 'lead'))).code).toBe('notAllowed');
    const said = { ...HOUSE_UNSAID, zone: EAST, fireService: '0118 999' };
    expect((await put(EAST!, owner, '0118 999')).json<HouseView>()).toEqual(said);
    const { house } = (await server.app.inject({ url: '/api/welcome' })).json<WelcomeView>();
    expect(house).toEqual(said);
  });

  it.each(['', 'Mars/Olympus', 'x'.repeat(61), 'UTC; DROP TABLE house'])('is in no zone "%s"', async (zone) => {
    expect(errorOf(await put(zone)).code).toBe('badFields');
  });

  it.each([
    { bounceMs: -1 },
    { bounceMs: 1001 },
    { bounceMs: 2.5 },
    { bounceMs: '250' },
    { cautions: 'never' },
    { cautions: undefined },
  ])('asks for keys and cautions that can be: %o', async (slip) => {
    expect(errorOf(await owner.put('/api/house', { ...HOUSE_UNSAID, ...slip })).code).toBe('badFields');
  });

  it('decides which day it is, for checks of a class as for everything else', async () => {
    const { taken } = await takeOrder(teo, orderFile(['S-1'], 'H1'));
    const checked = async (zone: string, expiresOn: string): Promise<string> => {
      await put(zone);
      await asDatabaseOwner(
        server,
        "UPDATE customer_order SET classCheck = JSON_OBJECT('by', 'I', 'authority', 'a', 'source', 's', 'on', '2020-01-01', 'expiresOn', ?) WHERE id = ?",
        [expiresOn, taken.orderId],
      );
      const { items } = (await teo.get('/api/orders')).json<{ items: OrderView[] }>();
      return items.find(({ id }) => id === taken.orderId)?.classChecked ?? '';
    };
    const yesterdayInEast = dayIn(WEST!, Date.now());
    expect(await checked(EAST!, yesterdayInEast)).toContain('ran out');
    expect(await checked(WEST!, yesterdayInEast)).not.toContain('ran out');
  });
});
