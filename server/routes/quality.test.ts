import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { QualityView } from '@decurio/contract';
import {
  Bench,
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
let misread: string;

beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  [teo, ines] = [await signInAs(server, 'technician'), await signInAs(server, 'lead')];
  const { units } = await takeOrder(teo, orderFile(['S26-0001', 'S26-0002']));
  const clean = await new Bench(teo, units[0]!.id).open();
  await clean.toSignOff();
  await clean.sign('ready');
  const other = await new Bench(teo, units[1]!.id).open();
  await other.toReadBack();
  misread = other.state.toRead[0]!;
  await other.act('codeRead', { label: misread, raw: other.state.values[misread]! + 1 });
  await other.act('held', { reason: 'parts', words: 'no bell' });
  other.keep(await other.send(other.draft('released', { words: 'bell there', decision: { way: 'goOn' } }), ines));
  await other.makeSafe();
  await other.readAll();
  await other.sign('ready');
});
afterAll(() => server.close());

const quality = async (query = '') => (await ines.get(`/api/quality${query}`)).json<QualityView>();

describe('how the work goes', () => {
  it('says what was right at first, what was misread, and what held units', async () => {
    const { visits, steps, codes, holds, types } = await quality();
    expect(visits).toBe(2);
    expect(steps.find(({ step }) => step === 'keyIn')).toMatchObject({ visits: 2, firstRight: 2 });
    expect(steps.find(({ step }) => step === 'readBack')).toMatchObject({ visits: 2, firstRight: 1 });
    expect(codes).toMatchObject([{ label: misread, slips: 1, visits: 2 }]);
    expect(codes[0]?.map).toContain('Tallow');
    expect(holds).toMatchObject([{ reason: 'parts', holds: 1 }]);
    expect(types).toMatchObject([{ name: 'Samphire 26', visits: 2, firstRight: 1 }]);
  });

  it('is asked of some days, a type or a display', async () => {
    expect((await quality('?to=2020-01-01')).visits).toBe(0);
    expect((await quality('?type=Samphire+26&map=tallow-four-key')).visits).toBe(2);
    expect((await quality('?type=Petrel+10')).steps).toEqual([]);
    expect((await ines.get('/api/quality?from=2026-13-01')).statusCode).toBe(400);
    expect((await ines.get("/api/quality?type=';--&strange=1")).statusCode).toBe(400);
  });

  it('is for leads, and says nothing of one person who did not agree', async () => {
    expect((await teo.get('/api/quality')).statusCode).toBe(403);
    const before = await quality();
    expect([before.persons, before.uncounted]).toEqual([[], 2]);
    expect((await teo.put('/api/session/counted', { agrees: true })).json()).toEqual({ agrees: true });
    expect((await teo.get('/api/session/counted')).json()).toEqual({ agrees: true });
    const after = await quality();
    expect(after.persons).toMatchObject([{ name: 'The technician', visits: 2, firstRight: 1 }]);
    expect(after.uncounted).toBe(1);
    await teo.put('/api/session/counted', { agrees: false });
    expect((await quality()).persons).toEqual([]);
  });
});
