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
async function scan(bench: Bench, text: string): Promise<EntryTaken> {
  const check = checksLeft(bench.state, 'checkIn').find(({ id }) => id === 'number-pack');
  if (!check) throw new Error('no pack is asked for');
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
