import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  calibratedBy,
  calibrationOf,
  fittedBy,
  learntBy,
  PLAIN_TERMS,
  type CalibrationOf,
  type DisplayMap,
  type EvidenceData,
} from '@decurio/core';
import type { BenchView, LearntFamily, LineUnit, LineView, OrderPageView, OrderActed } from '@decurio/contract';
import { verifyVisit } from '../ledger/verify-visit.js';
import {
  Bench,
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

let server: TestServer;
let teo: Person;
let ines: Person;
let units: readonly LineUnit[];
let orderId: string;
let map: DisplayMap;
beforeAll(async () => {
  server = await startTestServer();
  ines = await signInAs(server, 'lead');
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  const order = await takeOrder(
    teo,
    orderFile(Array.from({ length: 18 }, (_, i) => `S26-${String(i + 1).padStart(4, '0')}`)),
  );
  units = order.units;
  orderId = order.taken.orderId;
  map = (await teo.get(`/api/units/${units[0]!.id}/bench`)).json<BenchView>().map;
});
afterAll(() => server.close());

/** What the page of its order reckons with for the type and display of a unit. */
const previewed = async (unitId: string) => {
  const { orderId: of } = (await teo.get(`/api/units/${unitId}/bench`)).json<BenchView>();
  return (await teo.get(`/api/orders/${of}`)).json<OrderPageView>().learnt[0]!.facts;
};

describe('a unit that left calibrated', () => {
  it('comes back only for what an amended order moves, and takes its own ratio along', async () => {
    const one = await takeOrder(teo, orderFile(['S26-0901'], '2690'));
    const bench = await calibrated(2150, new Bench(teo, one.units[0]!.id));
    await bench.prove();
    expect((await bench.sign()).statusCode).toBe(201);
    const { orderLimit, throttle } = PLAIN_TERMS;
    const amended = await ines.post(`/api/orders/${one.taken.orderId}/amendments`, {
      id: randomUUID(),
      reason: 'the site said so',
      customer: 'Causeway Holiday Park',
      rulePackId: 'port-isel',
      classId: 'pedelec-25',
      houseRulesId: 'hire-default',
      dueAt: DUE.replace(' ', 'T'),
      notes: '',
      terms: { siteLimit: { value: 18, unit: 'km/h' }, orderLimit, throttle, privateLand: null },
    });
    expect(amended.json<OrderActed>().returned).toEqual([{ serial: 'S26-0901', says: 'L4.1 left at 25, must be 18.' }]);
    const again = await new Bench(teo, one.units[0]!.id).open();
    expect(again.state.opened.bench?.calibrate?.own?.ratio?.taken).toMatchObject({ wheelRaw: 28 });
    expect(again.state.opened.setup.targets.find(({ label }) => label === 'L3.2')).toMatchObject({
      raw: 28,
      because: expect.stringContaining('Fitted to 3 readings'),
    });
    expect(again.state.toKey).toEqual(['L4.1']);
  });
});

/** What does not hold of a visit's rows. */
const findingsOf = async (bench: Bench): Promise<readonly string[]> =>
  (await verifyVisit(server.app.source.manager, bench.visitId))?.findings ?? ['gone'];

let taken = 0;
/** The next unit of the order, worked as far as Calibrate. */
async function atCalibrate(bench = new Bench(teo, units[taken++]!.id)): Promise<Bench> {
  await bench.open();
  await bench.toReadBack();
  await readBack(bench);
  return bench;
}

async function readBack(bench: Bench): Promise<void> {
  for (const label of bench.state.toRead) await bench.act('codeRead', { label, raw: bench.state.values[label] });
  await bench.act('readBackClosed');
}

const found = (bench: Bench): CalibrationOf => calibrationOf(bench.state, map)!;

/** A roller bench under a wheel that rolls so many mm a turn. */
async function run(bench: Bench, rolledMm: number, speeds: readonly number[]): Promise<void> {
  for (const trueKmh of speeds) {
    const shown = Math.round((10 * trueKmh * found(bench).codes.wheelMm) / rolledMm) / 10;
    const data: EvidenceData['speedRead'] = {
      reference: 'roller',
      instrument: '105 mm',
      trueKmh,
      uKmh: 0.05,
      uCommon: 0.002,
      shown,
      unit: 'km/h',
      offGround: false,
      words: '',
    };
    await bench.act('speedRead', data);
  }
}

/** Read, chosen, keyed again, confirmed and closed. */
async function calibrated(rolledMm: number, of?: Bench): Promise<Bench> {
  const bench = await atCalibrate(of);
  await run(bench, rolledMm, [10.1, 17.3, 24.2]);
  return chosen(bench, rolledMm);
}

/** The best of what is offered, keyed and confirmed where it is not as keyed. */
async function chosen(bench: Bench, rolledMm: number): Promise<Bench> {
  const [pick] = found(bench).candidates;
  if (pick!.wheel.raw !== found(bench).codes.wheelRaw || pick!.cap?.raw !== found(bench).codes.capRaw) {
    await bench.act('wheelFitted', fittedBy(found(bench), pick!));
    await bench.keyAll();
    await readBack(bench);
    await run(bench, rolledMm, [12.2, 23.3]);
  }
  await bench.act('calibrated', calibratedBy(found(bench)));
  return bench;
}

describe('choosing wheel and cap', () => {
  it('is worked out again from the readings: other figures are refused, and the right ones move the setup', async () => {
    const bench = await atCalibrate();
    await run(bench, 2150, [10.1, 17.3, 24.2]);
    const pick = fittedBy(found(bench), found(bench).candidates[0]!);
    expect([pick.wheelRaw, pick.capRaw]).toEqual([28, 25]);
    expect(
      errorOf(await bench.send(bench.draft('wheelFitted', { ...pick, ratio: { ...pick.ratio, low: 1.2 } }))).code,
    ).toBe('otherFigures');
    expect(errorOf(await bench.send(bench.draft('wheelFitted', { ...pick, capRaw: 30 }))).message).toContain(
      'the cap is 25, not 30',
    );
    await bench.act('wheelFitted', pick);
    expect([bench.state.step, bench.state.toKey]).toEqual(['keyIn', ['L3.2', 'L4.1']]);
    expect(bench.evidence.at(-1)).toMatchObject({
      kind: 'setupRevised',
      data: { why: 'Wheel and cap chosen by runs' },
    });
  });

  it('is not closed while drive may run beyond the limit', async () => {
    const bench = await atCalibrate();
    await run(bench, 2200, [10.1, 17.3, 24.2]);
    expect(errorOf(await bench.send(bench.draft('calibrated', calibratedBy(found(bench))))).message).toContain(
      'drive may run to',
    );
  });

  it('follows a wheel that was rolled out, before anything is ridden', async () => {
    const bench = await new Bench(teo, units[taken++]!.id).open();
    await bench.toKeyIn();
    await bench.act('wheelMeasured', { how: 'rollOut', mm: 2160, fromMm: 2150, toMm: 2170, words: '10800 mm over 5' });
    expect(bench.state.opened.setup.targets.find(({ label }) => label === 'L3.2')).toMatchObject({
      raw: 28,
      because: expect.stringContaining('Rolled out on this unit: 2160 mm'),
    });
    expect(bench.state.toKey).toContain('L3.2');
  });
});

/** Eight whole visits, one after another, on a machine that is busy with other things. */
const EIGHT_UNITS_MS = 120_000;

describe('a family', () => {
  it(
    'is learnt from eight units; the ninth opens with its codes and need not be run',
    async () => {
      for (let i = 0; i < 7; i++) await calibrated(2146 + ((i * 3) % 8));
      const [family] = (await teo.get('/api/families')).json<LearntFamily[]>();
      expect(family).toMatchObject({
        typeId: 'samphire-26',
        mapId: 'tallow-four-key',
        tyre: '47-559',
        wheelRaw: 28,
        since: null,
        advice: { next: 'sample', why: 'learnt' },
      });
      expect(family?.runs).toHaveLength(8);
      const ninth = await atCalibrate();
      const { bench: terms, setup } = ninth.state.opened;
      expect(terms?.calibrate).toMatchObject({ runs: 'sample', family: { count: 8, wheelRaw: 28 } });
      expect(setup.targets.find(({ label }) => label === 'L3.2')?.raw).toBe(28);
      const { k, u, low, high, count, wheelRaw, pulsesRaw } = terms!.calibrate!.family!;
      const { map } = (await teo.get(`/api/units/${ninth.unitId}/bench`)).json<BenchView>();
      const learnt = learntBy(ninth.state, map);
      if (!learnt) throw new Error('the family tells nothing');
      expect(learnt).toMatchObject({
        how: 'learnt',
        ratio: { k, u, low, high },
        atWheelRaw: wheelRaw,
        atPulsesRaw: pulsesRaw,
        count,
      });
      expect(learnt.ends?.worst).toBeLessThanOrEqual(25);
      expect(await previewed(ninth.unitId)).toMatchObject({ ratio: { k, low } });
      expect(errorOf(await ninth.send(ninth.draft('calibrated', { ...learnt, ends: null }))).code).toBe('otherFigures');
      expect(errorOf(await ninth.send(ninth.draft('calibrated', { ...learnt, count: 30 }))).code).toBe('otherFigures');
      await ninth.act('calibrated', learnt);
      expect(ninth.state.step).toBe('prove');
    },
    EIGHT_UNITS_MS,
  );

  it('notices a unit that reads otherwise: a finding on it, told on Line, and the next one is run', async () => {
    const odd = await calibrated(1960);
    const note = odd.evidence.at(-1);
    expect(note).toMatchObject({ kind: 'outOfFamily', data: { count: 8, cause: odd.evidence.at(-2)?.id } });
    const { units: line } = (await teo.get(`/api/orders/${orderId}/line`)).json<LineView>();
    expect(line.filter(({ odd: said }) => said !== null)).toEqual([
      expect.objectContaining({
        id: odd.unitId,
        odd: expect.stringMatching(/^Reads .* high; the 8 others of its type/),
      }),
    ]);
    const [family] = (await teo.get('/api/families')).json<LearntFamily[]>();
    expect(family?.advice).toMatchObject({ next: 'full', why: 'surprise', inFamily: 8, odd: [{ seen: 'atOnce' }] });
    await odd.prove();
    expect(errorOf(await odd.sign()).code).toBe('oddInFamily');
    const next = await atCalibrate();
    expect(next.state.opened.bench?.calibrate).toMatchObject({ runs: 'full', family: null });
    expect(await findingsOf(odd)).toEqual([]);
  });

  it('counts it until a lead says why it is left out; a technician does not', async () => {
    const [family] = (await teo.get('/api/families')).json<LearntFamily[]>();
    const visitId = family!.advice.odd[0]!.run.visitId;
    const leave = (person: Person, words: string, of = visitId) =>
      person.post('/api/families/runs/left-out', { visitId: of, words });
    expect(errorOf(await leave(teo, 'its tyre was flat')).code).toBe('notAllowed');
    expect(errorOf(await leave(ines, 'no')).code).toBe('badFields');
    expect(errorOf(await leave(ines, 'its tyre was flat', randomUUID())).code).toBe('noSuchRun');
    const [left] = (await leave(ines, 'its tyre was flat')).json<LearntFamily[]>();
    expect(left?.advice).toMatchObject({ next: 'sample', why: 'learnt', odd: [], family: { count: 8 } });
    expect(left?.runs.find((run) => run.visitId === visitId)?.leftOut).toEqual({
      words: 'its tyre was flat',
      by: 'The lead',
    });
    const [again] = (await leave(ines, '')).json<LearntFamily[]>();
    expect(again?.advice.why).toBe('surprise');
    await leave(ines, 'its tyre was flat');
  });

  it('forgets a run that is taken back, and what was said of it', async () => {
    const odd = await calibrated(1960);
    expect(odd.evidence.at(-1)?.kind).toBe('outOfFamily');
    const calibratedEntry = odd.evidence.at(-2)!;
    await odd.act('undone', { voids: calibratedEntry.id });
    expect(odd.state.step).toBe('calibrate');
    expect(odd.state.calibration).toMatchObject({ result: null, outOfFamily: null });
    const [family] = (await teo.get('/api/families')).json<LearntFamily[]>();
    expect(family?.runs.map(({ visitId }) => visitId)).not.toContain(odd.visitId);
    expect(await findingsOf(odd)).toEqual([]);
  });

  it('begins anew with a tyre batch, which a lead declares', async () => {
    expect(
      errorOf(
        await teo.post('/api/families/batches', { typeId: 'samphire-26', tyre: '47-559', words: 'another maker' }),
      ).code,
    ).toBe('notAllowed');
    expect(
      errorOf(await ines.post('/api/families/batches', { typeId: 'samphire-26', tyre: '47-559', words: ' ' })).code,
    ).toBe('badFields');
    const [family] = (
      await ines.post('/api/families/batches', { typeId: 'samphire-26', tyre: '47-559', words: 'another maker' })
    ).json<LearntFamily[]>();
    expect(family).toMatchObject({
      runs: [],
      since: { words: 'another maker' },
      advice: { next: 'full', why: 'tooFew', family: null },
    });
  });
});

describe('drive that ended farther beyond its cap than the map says', () => {
  /** The next unit, calibrated; `shown`: where drive ended, this far beyond the cap that stood. */
  async function next(serial: string, beyondKmh: number | null): Promise<Bench> {
    const { units: one } = await takeOrder(teo, orderFile([serial], serial));
    const bench = await atCalibrate(new Bench(teo, one[0]!.id));
    await run(bench, 2150, [10.1, 17.3, 24.2]);
    if (beyondKmh === null) return bench;
    const shown = Math.round(10 * (found(bench).codes.capKmh! + beyondKmh)) / 10;
    await bench.act('driveEndRead', { shown, unit: 'km/h', words: '' });
    if (bench.state.step !== 'keyIn') return chosen(bench, 2150);
    // What it showed moved the cap.
    await bench.keyAll();
    await readBack(bench);
    await run(bench, 2150, [12.2, 23.3]);
    return chosen(bench, 2150);
  }

  it('is reckoned with on the next unit of its type and display; less than the map says is not', async () => {
    expect(map.speed!.overshootKmh).toBe(0.3);
    await next('S26-0911', 0.2);
    const after = await next('S26-0912', null);
    expect(found(after).overshoot).toEqual({ kmh: 0.3, from: 'map' });
    await next('S26-0913', 2.9);
    const slower = await next('S26-0914', null);
    expect(found(slower).overshoot).toEqual({ kmh: expect.closeTo(2.9, 9), from: 'family' });
    const cap = ({ state }: Bench) => state.opened.setup.targets.find(({ function: of }) => of === 'speedCap')!;
    expect(Number(cap(slower).raw)).toBe(Number(cap(after).raw) - 2);
    expect((cap(slower).trail ?? []).map(({ says }) => says).join(' ')).toContain(
      'drive was seen to act 2.9 km/h beyond the cap',
    );
    expect(await findingsOf(slower)).toEqual([]);
    expect((await previewed(slower.unitId)).familyOvershootKmh).toBeCloseTo(2.9, 9);
  });

  it('counts no more once a lead says why, and again when the lead takes that back', async () => {
    const odd = await next('S26-0921', 4.1);
    const seen = async (): Promise<LearntFamily['overshoots'][number]> =>
      (await teo.get('/api/families')).json<LearntFamily[]>()[0]!.overshoots[0]!;
    expect(await seen()).toEqual({
      visitId: odd.visitId,
      serial: 'S26-0921',
      kmh: expect.closeTo(4.1, 9),
      leftOut: null,
    });
    const leave = (words: string) => ines.post('/api/families/overshoots/left-out', { visitId: odd.visitId, words });
    expect(errorOf(await leave('no')).code).toBe('badFields');
    expect((await leave('it was watched downhill')).statusCode).toBe(200);
    expect(await seen()).toMatchObject({ serial: 'S26-0921', leftOut: { words: 'it was watched downhill' } });
    expect(found(await next('S26-0922', null)).overshoot?.kmh).toBeLessThan(3.5);
    await leave('');
    expect(found(await next('S26-0923', null)).overshoot).toEqual({ kmh: expect.closeTo(4.1, 9), from: 'family' });
    expect(
      errorOf(await ines.post('/api/families/overshoots/left-out', { visitId: randomUUID(), words: 'nobody knows it' }))
        .code,
    ).toBe('noSuchRun');
  });
});
