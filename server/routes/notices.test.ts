import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checksLeft, type FleetNotice } from '@decurio/core';
import { goodCheck } from '../../core/testing/good-check.js';
import { addDocument } from '../store/library.js';
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
let teo: Person;
let ines: Person;
let numbers = 0;
beforeAll(async () => {
  server = await startTestServer();
  const owner = await signInAs(server, 'owner');
  await fillLibrary(owner);
  const type = { ...(JSON.parse(demoFile('types/samphire-26.json')) as object), numbers: ['pack'], checkList: null };
  await owner.post('/api/library', { kind: 'vehicleType', document: type });
  teo = await signInAs(server, 'technician');
  ines = await signInAs(server, 'lead');
});
afterAll(() => server.close());

const notice = (id: string, names: Partial<FleetNotice['names']>, over: Partial<FleetNotice> = {}): FleetNotice => ({
  format: 'decurio-notice/1',
  id,
  name: `Notice ${id}`,
  says: 'Bolts may shear.',
  cure: 'Change them.',
  source: 'letter 9',
  names: { types: [], maps: [], serialFrom: null, serialTo: null, packs: [], ...names },
  isOver: false,
  ...over,
});
const keep = (document: FleetNotice, person = ines) => person.post('/api/library', { kind: 'notice', document });

async function benches(...serials: readonly string[]): Promise<Bench[]> {
  const { units } = await takeOrder(teo, orderFile(serials, String(8900 + numbers++)));
  return units.map(({ id }) => new Bench(teo, id));
}

/** The bench with all that the server holds of it. */
async function current(bench: Bench): Promise<Bench> {
  const { evidence } = (await teo.get(`/api/units/${bench.unitId}/bench`)).json<{ evidence: Bench['evidence'] }>();
  bench.evidence.splice(0, bench.evidence.length, ...evidence);
  return bench;
}

describe('a notice', () => {
  it('holds the units under way that it names, and no other', async () => {
    const [inside, outside] = await benches('Q26-0010', 'Q26-0020');
    await inside!.open();
    await outside!.open();
    expect(errorOf(await keep(notice('a', { serialFrom: 'Q26-0005', serialTo: 'Q26-0015' }), teo)).code).toBe(
      'notAllowed',
    );
    expect((await keep(notice('a', { serialFrom: 'Q26-0005', serialTo: 'Q26-0015' }))).statusCode).toBe(201);
    expect((await current(inside!)).state.held).toMatchObject({
      reason: 'notice',
      words: 'Notice a: Bolts may shear. Change them.',
    });
    expect((await current(outside!)).state.held).toBeNull();
  });

  it('is decided by a lead, and names the unit anew in its next version alone', async () => {
    const [bench] = await benches('Q26-0030');
    await bench!.open();
    const names = { serialFrom: 'Q26-0030', serialTo: 'Q26-0030' };
    await keep(notice('b', names));
    await current(bench!);
    const release = bench!.draft('released', { words: 'bolts changed', decision: { way: 'goOn' } });
    bench!.keep(await bench!.send(release, ines));
    expect((await current(bench!)).state.held).toBeNull();
    await keep(notice('b', names, { cure: 'Change them, and torque them.' }));
    expect((await current(bench!)).state.notices.map(({ version, isDecided }) => [version, isDecided])).toEqual([
      [1, true],
      [2, false],
    ]);
    await keep(notice('b', names, { isOver: true }));
    expect((await current(bench!)).state.notices).toHaveLength(2);
  });

  it('holds a unit as it begins, and by the number of its pack as that is scanned', async () => {
    await keep(notice('c', { serialFrom: 'Q26-0040', serialTo: 'Q26-0040' }));
    await keep(notice('d', { packs: ['pk-555'] }));
    const [begun, packed] = await benches('Q26-0040', 'Q26-0050');
    await begun!.open();
    expect((await current(begun!)).state.held).toMatchObject({ reason: 'notice' });
    await packed!.open();
    const [check] = checksLeft(packed!.state, 'checkIn');
    await packed!.act('checkMade', { ...goodCheck(check!, ''), text: 'PK-555' });
    expect(packed!.state.held).toMatchObject({ reason: 'notice', words: expect.stringContaining('Notice d') });
  });

  it('that no bench was told of is told at the latest when the unit is signed', async () => {
    const [bench] = await benches('Q26-0060');
    await bench!.open();
    await bench!.toSignOff();
    const account = await server.app.source.query<{ id: string }[]>('SELECT id FROM account LIMIT 1');
    const missed = notice('e', { serialFrom: 'Q26-0060', serialTo: 'Q26-0060' });
    await addDocument(server.app.source, 'notice', missed, account[0]!.id);
    expect(errorOf(await bench!.sign()).code).toBe('noticeUnseen');
    expect((await current(bench!)).state).toMatchObject({ step: 'signOff', held: { reason: 'notice' } });
    bench!.keep(
      await bench!.send(bench!.draft('released', { words: 'bolts changed', decision: { way: 'goOn' } }), ines),
    );
    expect((await bench!.sign()).statusCode).toBe(201);
  });

  it('that names nothing is refused', async () => {
    expect(errorOf(await keep(notice('f', {}))).fields).toMatchObject({
      names: 'Say which units it names: a type, a display, its firmware, serials or packs.',
    });
  });
});
