import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LineView, OrderActed, OrderPageView } from '@decurio/contract';
import { catchUpAll } from '../store/behind-units.js';
import {
  Bench,
  CHECK_IN,
  DUE,
  errorOf,
  fillLibrary,
  orderFile,
  signInAs,
  startTestServer,
  takeOrder,
  type Person,
  type TestServer,
} from '../testing/test-server.js';

const BENCHES = 10;
const ACTS = 5;
const READ = 8;

let server: TestServer;
let teo: Person;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  [teo, ines] = [await signInAs(server, 'technician'), await signInAs(server, 'lead')];
});
afterAll(() => server.close());

const amendment = (kmh: number) => ({
  id: randomUUID(),
  reason: `the site said ${kmh}`,
  customer: 'Causeway Holiday Park',
  rulePackId: 'port-isel',
  classId: 'pedelec-25',
  houseRulesId: 'hire-default',
  dueAt: DUE.replace(' ', 'T'),
  notes: '',
  terms: { siteLimit: { value: kmh, unit: 'km/h' }, orderLimit: null, throttle: 'asClass', privateLand: null },
});
const setups = async (unitId: string) =>
  (await teo.get(`/api/units/${unitId}/bench`)).json<{ evidence: { kind: string; data: { order?: object } }[] }>()
    .evidence;

/** Reads some codes as found, one entry after another, looking again where someone else wrote. */
async function readOn(bench: Bench): Promise<void> {
  let seq = bench.evidence.length + 1;
  for (const label of bench.state.toFind.slice(0, READ)) {
    const draft = bench.draft('asFoundRead', { label, raw: bench.state.values[label] });
    for (;;) {
      const answer = await bench.send({ ...draft, seq });
      if (answer.statusCode === 201) break;
      expect(errorOf(answer).code).toBe('staleSeq');
      seq = (await setups(bench.unitId)).length + 1;
    }
    seq++;
  }
}

/** Some three hundred acts that wait for one another. */
const MANY_AT_ONCE_MS = 120_000;

describe('a lead, while ten benches write into the same order', () => {
  it(
    'has every amendment, decision and withdrawal taken, and every unit follows',
    async () => {
      const { taken, units } = await takeOrder(
        teo,
        orderFile(
          Array.from({ length: BENCHES + 2 }, (_, i) => `K26-00${i + 10}`),
          '7001',
        ),
      );
      const benches = await Promise.all(units.slice(0, BENCHES).map((unit) => new Bench(teo, unit.id).open()));
      for (const bench of benches) {
        await bench.act('checkedIn', CHECK_IN);
        await bench.makeSafe();
      }
      const reading = benches.map(readOn);
      const answers: number[] = [];
      let newest = 0;
      for (let i = 0; i < ACTS; i++) {
        const isLook = i % 4 === 3;
        if (!isLook) newest = 12 + i;
        const act = isLook
          ? ines.post(`/api/orders/${taken.orderId}/setups`, { id: randomUUID(), reason: 'looked at once more' })
          : ines.post(`/api/orders/${taken.orderId}/amendments`, amendment(newest));
        answers.push((await act).statusCode);
      }
      answers.push(
        (
          await ines.post(`/api/orders/${taken.orderId}/withdrawals`, {
            id: randomUUID(),
            reason: 'sold at the quay',
            unitIds: [units[0]!.id, units[BENCHES]!.id],
          })
        ).statusCode,
      );
      // The bench of the one that was withdrawn may be refused from then on, as it should be.
      const read = await Promise.allSettled(reading);
      expect(answers).toEqual(answers.map(() => 200));
      expect(read.filter(({ status }) => status === 'rejected').length).toBeLessThanOrEqual(1);
      const line = (await teo.get(`/api/orders/${taken.orderId}/line`)).json<LineView>();
      expect([line.order.units, line.units.length]).toEqual([BENCHES, BENCHES]);
      const behind = await server.app.source.query<object[]>(
        'SELECT u.id FROM unit u JOIN customer_order o ON o.id = u.orderId WHERE o.id = ? AND u.revision < o.revision',
        [taken.orderId],
      );
      expect(behind).toEqual([]);
      for (const { id } of units.slice(1, BENCHES)) {
        const bench = (await teo.get(`/api/units/${id}/bench`)).json<{
          evidence: { kind: string; data: { setup?: { speed?: unknown }; why?: string } }[];
        }>();
        expect(bench.evidence.filter(({ kind }) => kind === 'setupRevised').at(-1)?.data.why).toContain(
          `the site said ${newest}`,
        );
      }
    },
    MANY_AT_ONCE_MS,
  );
});

describe('an act that was cut off before its units had followed', () => {
  it('is finished by whoever comes next, and nothing is signed off before', async () => {
    const { taken, units } = await takeOrder(teo, orderFile(['K26-0101', 'K26-0102'], '7002'));
    const [first, second] = [await new Bench(teo, units[0]!.id).open(), await new Bench(teo, units[1]!.id).open()];
    await first.toSignOff();
    const request = amendment(18);
    expect((await ines.post(`/api/orders/${taken.orderId}/amendments`, request)).json<OrderActed>().revised).toBe(2);
    // As if the process had died right after the order was changed.
    await server.app.source.query(
      'UPDATE customer_order SET revision = revision + 1, terms = JSON_SET(terms, "$.siteLimit.value", 15) WHERE id = ?',
      [taken.orderId],
    );
    const state = async (bench: Bench) =>
      (await setups(bench.unitId)).filter(({ kind }) => kind === 'setupRevised').length;
    expect([await state(first), await state(second)]).toEqual([1, 1]);
    await catchUpAll(server.app.source);
    expect([await state(first), await state(second)]).toEqual([2, 2]);
    await catchUpAll(server.app.source);
    expect([await state(first), await state(second)]).toEqual([2, 2]);
    expect((await ines.post(`/api/orders/${taken.orderId}/amendments`, request)).json<OrderActed>()).toEqual({
      revised: 0,
      returned: [],
    });
    const page = (await ines.get(`/api/orders/${taken.orderId}`)).json<OrderPageView>();
    expect(page.changes.filter(({ kind }) => kind === 'amended')).toHaveLength(1);
  });

  it('is caught up with by the sign-off itself, which stands only where nothing changed', async () => {
    const { taken, units } = await takeOrder(teo, orderFile(['K26-0201', 'K26-0202'], '7003'));
    const [same, moved] = [await new Bench(teo, units[0]!.id).open(), await new Bench(teo, units[1]!.id).open()];
    await same.toSignOff();
    await moved.toSignOff();
    const words = JSON.stringify({
      why: 'Order amended: x',
      writer: { by: { userId: 'u', name: 'The lead', role: 'lead' }, station: 'office' },
      sealedUnits: 'compare',
    });
    await server.app.source.query('UPDATE customer_order SET revision = 1, revisionWords = ? WHERE id = ?', [
      words,
      taken.orderId,
    ]);
    expect((await same.sign('ready')).statusCode).toBe(201);
    await server.app.source.query(
      'UPDATE customer_order SET revision = 2, terms = JSON_SET(terms, "$.siteLimit", JSON_OBJECT("value", 15, "unit", "km/h")) WHERE id = ?',
      [taken.orderId],
    );
    expect(errorOf(await moved.sign('ready')).code).toBe('staleSeq');
    const line = (await teo.get(`/api/orders/${taken.orderId}/line`)).json<LineView>();
    expect(line.units.map(({ status }) => status)).toEqual(['sealed', 'open']);
  });
});
