import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LineView, TakenView } from '@decurio/contract';
import { addAccount } from '../server/store/accounts.js';
import { makeDataSource } from '../server/store/data-source.js';
import { fillLibrary, orderFile, PASSWORD, type Person } from '../server/testing/test-server.js';
import { signIn, type Client } from './lib/api-client.mjs';
import { STATE } from './lib/paths.mjs';
import { openHouse, type House } from './testing/faults/house.js';
import { notAsAcknowledged, runSchedule, type Outcome } from './testing/faults/run-schedule.js';
import { MACHINE_FAULTS, scheduleOf } from './testing/faults/schedule.js';
import type { StandOptions } from './testing/faults/stand.js';

const RUNS = Number(process.env['DECURIO_FAULT_RUNS'] ?? 20);
const SEED = Number(process.env['DECURIO_FAULT_SEED'] ?? 1);

let house: House;
let lead: Client;
let people: readonly StandOptions['person'][];
beforeAll(async () => {
  house = await openHouse(join(STATE, 'faults'));
  const source = await makeDataSource(house.databaseUrl, 2).initialize();
  const roles = { technician: 'technician', ines: 'lead', owner: 'owner' } as const;
  for (const [signInName, role] of Object.entries(roles))
    await addAccount(source, { signInName, displayName: signInName, role, password: PASSWORD, isDemo: false });
  await source.destroy();
  const [at = ''] = house.addresses;
  const owner = await signIn(at, 'owner', PASSWORD, 'office');
  await fillLibrary(owner as unknown as Person);
  lead = await signIn(at, 'ines', PASSWORD, 'bay 2');
  people = await Promise.all(
    [
      ['technician', 'bay 1'],
      ['ines', 'bay 2'],
    ].map(async ([name = '', station = '']) => {
      const { cookie, get } = await signIn(at, name, PASSWORD, station);
      const { session } = (await get('/api/welcome')) as { session: { userId: string; role: 'technician' | 'lead' } };
      return { cookie, userId: session.userId, role: session.role };
    }),
  );
});
afterAll(() => house.close());

async function unitsFor(seed: number): Promise<readonly string[]> {
  const intakeId = randomUUID();
  const serials = [`F${seed}-1`, `F${seed}-2`];
  await lead.postText(
    `/api/intakes?id=${intakeId}&fileName=order.csv`,
    orderFile(serials, `faults-${seed}`),
    'text/csv',
  );
  const { orderId } = (await lead.post(`/api/intakes/${intakeId}/take`, {})) as TakenView;
  return ((await lead.get(`/api/orders/${orderId}/line`)) as LineView).units.map(({ id }) => id);
}

describe('whatever fails while two stands work', () => {
  const outcomes: Outcome[] = [];

  it.each(Array.from({ length: RUNS }, (_, i) => SEED + i))(
    'every entry that was acknowledged is there once, and the ledger holds (npm run faults -- --runs 1 --seed %i)',
    async (seed) => {
      const outcome = await runSchedule(house, seed, people, await unitsFor(seed));
      outcomes.push(outcome);
      expect(outcome.wrong).toEqual([]);
    },
  );

  it('was the machines and the ways between them, and entries were taken and refused meanwhile', () => {
    const [taken, refused, lost] = (['acknowledged', 'refused', 'lost'] as const).map((each) =>
      outcomes.reduce((sum, outcome) => sum + outcome[each], 0),
    );
    const faults = Object.fromEntries(
      MACHINE_FAULTS.map((fault) => [
        fault,
        outcomes.flatMap((outcome) => outcome.faults).filter((each) => each === fault).length,
      ]),
    );
    console.info(
      JSON.stringify({ runs: outcomes.length, taken, refused, lost, ...faults, hasSmallDisk: house.hasSmallDisk }),
    );
    expect(taken).toBeGreaterThan(5 * RUNS);
    expect(lost).toBeGreaterThan(RUNS);
    if (RUNS < 20) return;
    for (const [fault, count] of Object.entries(faults))
      if (fault !== 'diskFull' || house.hasSmallDisk) expect(count, fault).toBeGreaterThan(0);
  });
});

it('an entry that was acknowledged and is gone, is another, or stands though it was refused, is found', async () => {
  const source = await makeDataSource(house.databaseUrl, 1).initialize();
  try {
    const [there] = await source.query<{ id: string }[]>('SELECT id FROM evidence LIMIT 1');
    const id = there?.id ?? '';
    const found = await notAsAcknowledged(source, {
      name: 'bay 1',
      acknowledged: new Map([
        [id, 'another hash'],
        ['00000000-0000-4000-8000-000000000000', 'any'],
      ]),
      refused: new Set([id]),
    });
    expect(found.map((says) => says.split(' ').slice(-2).join(' '))).toEqual(['is another', 'is gone', 'and stands']);
  } finally {
    await source.destroy();
  }
});

it('a schedule is the same for the same seed', () => {
  expect(scheduleOf(7)).toEqual(scheduleOf(7));
  expect(new Set([1, 2, 3, 4, 5].map((seed) => JSON.stringify({ ...scheduleOf(seed), seed: 0 }))).size).toBe(5);
});
