import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checksLeft } from '@decurio/core';
import type { EntryTaken } from '@decurio/contract';
import { goodCheck } from '../../core/testing/good-check.js';
import {
  Bench,
  demoFile,
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
  const owner = await signInAs(server, 'owner');
  await fillLibrary(owner);
  const document = {
    ...(JSON.parse(demoFile('types/samphire-26.json')) as object),
    numbers: ['pack'],
    checkList: null,
  };
  await owner.post('/api/library', { kind: 'vehicleType', document });
  teo = await signInAs(server, 'technician');
  ines = await signInAs(server, 'lead');
});
afterAll(() => server.close());

/** Scans the pack of a unit as this number. */
async function scan(bench: Bench, text: string, of = 'pack'): Promise<EntryTaken> {
  const check = checksLeft(bench.state, 'checkIn').find(({ id }) => id === `number-${of}`);
  if (!check) throw new Error(`no ${of} is asked for`);
  const answer = await bench.send(bench.draft('checkMade', { ...goodCheck(check, ''), text }));
  bench.keep(answer);
  return answer.json<EntryTaken>();
}

describe('the number of a pack', () => {
  it('that stands at another unit too holds the unit it is scanned at, and is scanned again', async () => {
    const { units } = await takeOrder(teo, orderFile(['N26-0001', 'N26-0002'], '8801'));
    const [first, second] = await Promise.all(units.map(({ id }) => new Bench(teo, id).open()));
    expect((await scan(first!, 'P-4711')).followed).toEqual([]);
    const { followed } = await scan(second!, ' p-4711 ');
    expect(followed.map(({ kind }) => kind)).toEqual(['numberClash']);
    expect(second!.state.held).toMatchObject({ reason: 'parts', words: expect.stringContaining('N26-0001') });
    const release = second!.draft('released', { words: 'label misread', decision: { way: 'goOn' } });
    second!.keep(await second!.send(release, ines));
    expect((await scan(second!, 'P-4712')).followed).toEqual([]);
    expect(second!.state.held).toBeNull();
  });

  it('scanned at two stands at once is told at one of them at least', async () => {
    const { units } = await takeOrder(teo, orderFile(['N26-0003', 'N26-0004'], '8802'));
    const both = await Promise.all(units.map(({ id }) => new Bench(teo, id).open()));
    const told = await Promise.all(both.map((bench) => scan(bench, 'P-9000')));
    expect(told.flatMap(({ followed }) => followed).length).toBeGreaterThanOrEqual(1);
  });

  it('is free again where a unit turns out to have none', async () => {
    const { units } = await takeOrder(teo, orderFile(['N26-0005', 'N26-0006'], '8803'));
    const [first, second] = await Promise.all(units.map(({ id }) => new Bench(teo, id).open()));
    const { entry } = await scan(first!, 'P-5000');
    await first!.act('undone', { voids: entry.id });
    await first!.act('checkMade', {
      ...goodCheck(checksLeft(first!.state, 'checkIn')[0]!, ''),
      outcome: 'notFitted',
      text: '',
    });
    expect((await scan(second!, 'P-5000')).followed).toEqual([]);
  });
});

describe('the firmware of a display', () => {
  beforeAll(async () => {
    const samphire = JSON.parse(demoFile('types/samphire-26.json')) as object;
    await ines.post('/api/library', {
      kind: 'vehicleType',
      document: { ...samphire, numbers: ['firmware'], checkList: null },
    });
  });
  const opened = async (serials: readonly string[], order: string) => {
    const { units } = await takeOrder(teo, orderFile(serials, order));
    return Promise.all(units.map(({ id }) => new Bench(teo, id).open()));
  };

  it('is the same on many units; one that its map was not held against holds the unit', async () => {
    const [first, second, third] = await opened(['N26-0011', 'N26-0012', 'N26-0013'], '8811');
    expect((await scan(first!, 'C 2.4', 'firmware')).followed).toEqual([]);
    expect((await scan(second!, 'c 2.4', 'firmware')).followed).toEqual([]);
    expect([first!.state.held, second!.state.held]).toEqual([null, null]);
    await scan(third!, 'C 3.0', 'firmware');
    expect(third!.state.held?.words).toContain('held against C 2.4');
  });

  it('may be named by a notice', async () => {
    await ines.post('/api/library', {
      kind: 'notice',
      document: {
        format: 'decurio-notice/1',
        id: 'firmware-c24',
        name: 'C 2.4 forgets its cap',
        says: 'The cap is lost when the pack sinks.',
        cure: 'Update it.',
        source: 'letter 12',
        names: { types: [], maps: [], serialFrom: null, serialTo: null, packs: [], firmware: ['C 2.4'] },
        isOver: false,
      },
    });
    const [bench] = await opened(['N26-0014'], '8812');
    expect(bench!.state.held).toBeNull();
    await scan(bench!, 'C 2.4', 'firmware');
    expect(bench!.state.held).toMatchObject({ reason: 'notice', words: expect.stringContaining('forgets its cap') });
  });
});
