import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import type { PinView } from '@decurio/contract';
import { buildApp } from '../app.js';
import {
  errorOf,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  testConfig,
  type TestServer,
} from '../testing/test-server.js';
import { sealPinsAnew } from './pins.js';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
});
afterAll(() => server.close());

it('PINs are read under a new secret as long as the one before is known, and without it once they were sealed anew', async () => {
  const lead = await signInAs(server, 'lead');
  const { taken, units } = await takeOrder(lead, orderFile(['S-pin-1'], 'pin'));
  const body = { opens: 'menu', unitId: units[0]?.id, why: 'for the tests' };
  const look = async (app: TestServer['app']) =>
    app.inject({
      method: 'POST',
      url: `/api/orders/${taken.orderId}/pin-looks`,
      headers: { cookie: lead.cookie },
      payload: body,
    });
  const first = await look(server.app);
  expect(first.statusCode).toBe(200);
  const { digits } = first.json<PinView>();
  const under = async (pinSecret: string, pinSecretBefore: string | null) => {
    const app = await buildApp(testConfig(server.applicationUrl, { pinSecret, pinSecretBefore }));
    try {
      return await look(app);
    } finally {
      await app.close();
    }
  };
  const fresh = randomUUID();
  expect(errorOf(await under(fresh, null)).code).toBe('pinLocked');
  expect((await under(fresh, 'for tests only')).json<PinView>().digits).toBe(digits);

  const secrets = { now: fresh, before: 'for tests only' };
  expect(await sealPinsAnew(server.app.source, secrets)).toEqual({ sealed: 1, wereNew: 0, locked: 0 });
  expect(await sealPinsAnew(server.app.source, secrets)).toEqual({ sealed: 0, wereNew: 1, locked: 0 });
  expect((await under(fresh, null)).json<PinView>().digits).toBe(digits);
  expect(errorOf(await look(server.app)).code).toBe('pinLocked');
  expect(await sealPinsAnew(server.app.source, { now: 'a third', before: 'a fourth' })).toEqual({
    sealed: 0,
    wereNew: 0,
    locked: 1,
  });
});
