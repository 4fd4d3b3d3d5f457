import { setImmediate as turn } from 'node:timers/promises';
import { afterAll, describe, expect, it } from 'vitest';
import { fullMap, canonicalJson } from '@decurio/core';
import type { IntakeLibrary } from '../intake/check-order-file.js';
import type { HttpProblem } from '../problems.js';
import { demoFile, DUE, ORDER_HEADER } from '../testing/test-server.js';
import { makeReaders, type Readers } from './readers.js';

const library: IntakeLibrary = {
  types: [{ id: 'samphire-26', name: 'Samphire 26', kind: 'bike', maps: ['tallow-four-key'] }],
  maps: [{ id: 'tallow-four-key', family: null }],
  rulePacks: [
    {
      id: 'port-isel',
      name: 'Port Isel',
      place: 'Port Isel',
      classes: [{ id: 'pedelec-25', title: 'pedal assist', kind: 'bike', regime: 'set' }],
    },
  ],
  houseRules: [{ id: 'hire-default', customer: null }],
};
const row = (serial: string) => `2611,Causeway Holiday Park,${DUE},Port Isel,pedelec-25,Samphire 26,${serial}`;
const fileOf = (count: number) =>
  Buffer.from([ORDER_HEADER, ...Array.from({ length: count }, (_, i) => row(`S26-${i}`))].join('\n'));

const readers = makeReaders();
const hasty = makeReaders({ longestMs: 1 });
const narrow = makeReaders({ mostMb: 16 });
afterAll(() => Promise.all([readers, hasty, narrow].map((each) => each.close())));

const problemOf = (reading: Promise<unknown>): Promise<string> =>
  reading.then(
    () => 'none',
    (error: HttpProblem) => error.code,
  );
const says = async (text: string, by: Readers = readers) => {
  const read = await by.orderFile(Buffer.from(text), library);
  return read.ok ? read.checked.problems.map(({ code }) => code) : [read.problem.code];
};

describe('an order file is read in a thread', () => {
  it('while this one goes on', async () => {
    let turns = 0;
    let isOver = false;
    const reading = readers.orderFile(fileOf(20_000), library).finally(() => (isOver = true));
    while (!isOver) {
      await turn();
      turns++;
    }
    expect((await reading).ok).toBe(true);
    // A file read on this thread would let it turn a few times before and after, not all the while.
    expect(turns).toBeGreaterThan(100);
  });

  it('and says what is wrong with one that holds next to nothing', async () => {
    expect(await says(`${ORDER_HEADER}\n${'\n'.repeat(2_000_000)}`)).toEqual(['tooManyLines']);
    expect(await says('\r'.repeat(200_000))).toEqual(['empty']);
    expect(await says(`${','.repeat(60)}\n`.repeat(2_000))).toEqual(['empty']);
    expect(await says(';;;;')).toEqual(['empty']);
    expect(await says(`${ORDER_HEADER}\n${row('S26-1')}${'\n'.repeat(50_000)}`)).toEqual([]);
  });

  it.each(['0x10', '1e1', '1_0', ' ', '-5', '+5', '5.', '.5', 'Infinity', '101', '5,5,5', '٢٠'])(
    'a limit of %j is none',
    async (limit) => {
      const found = await says(
        `${ORDER_HEADER};limit km/h`.replaceAll(',', ';') + `\n${row('S26-1').replaceAll(',', ';')};${limit}`,
      );
      expect(found).toEqual(limit.trim() === '' ? [] : ['badLimit']);
    },
  );

  it('ended when it takes too long or too much, stopped when nobody waits for it, and the next is read', async () => {
    expect(await problemOf(hasty.orderFile(fileOf(50_000), library))).toBe('readTooLong');
    expect(
      await problemOf(narrow.orderFile(Buffer.from(`${ORDER_HEADER}\n${'x,'.repeat(30_000)}\n`.repeat(60)), library)),
    ).toBe('readTooMuch');
    const stop = new AbortController();
    const reading = problemOf(readers.orderFile(fileOf(50_000), library, stop.signal));
    stop.abort();
    expect(await reading).toBe('readStopped');
    for (const each of [narrow, readers]) expect(await says(`${ORDER_HEADER}\n${row('S26-1')}`, each)).toEqual([]);
  });

  it('and a thread that cannot even start is no end of the server', async () => {
    const heard: unknown[] = [];
    const tiny = makeReaders({ mostMb: 4, longestMs: 3_000, onError: (error) => heard.push(error) });
    expect(await problemOf(tiny.orderFile(fileOf(1), library))).toMatch(/^readTooLong$|^readTooMuch$/);
    await tiny.close();
    expect(heard.length).toBeGreaterThan(0);
  });

  it('few at once and some waiting: whoever comes on top is told to wait', async () => {
    const outcomes = await Promise.all(
      Array.from({ length: 60 }, () => problemOf(readers.orderFile(fileOf(500), library))),
    );
    expect(outcomes.filter((code) => code === 'none').length).toBeGreaterThanOrEqual(18);
    expect(outcomes.filter((code) => code === 'readBusy').length).toBeGreaterThan(0);
    expect(new Set(outcomes)).toEqual(new Set(['none', 'readBusy']));
  });
});

describe('a JSON file', () => {
  const bytes = (value: unknown) => Buffer.from(typeof value === 'string' ? value : JSON.stringify(value));

  it.each([
    '',
    'null',
    '[',
    '{"a":',
    '['.repeat(100_000),
    '\ufeff{}x',
    '{"__proto__":{"a":1}}',
    '4',
    '"x"',
    '[]',
    '{}',
  ])('that is no record or document is refused, not thrown at: %#', async (text) => {
    expect(await readers.record(bytes(text))).toMatchObject({ ok: false });
    expect(await readers.document(bytes(text))).toMatchObject({ ok: false });
  });

  it('that is no UTF-8 is no JSON', async () => {
    expect(await readers.document(Buffer.from([0x7b, 0xff, 0x7d]))).toMatchObject({ ok: false, code: 'badJson' });
  });

  it('that is a document comes back whole', async () => {
    const document = fullMap(JSON.parse(demoFile('maps/tallow-four-key.json'))) as object;
    const read = await readers.document(bytes({ kind: 'displayMap', document }));
    expect(read.ok && canonicalJson(read.document)).toBe(canonicalJson(document));
    expect(await readers.document(bytes({ kind: 'displayMap', document: { ...document, keys: 4 } }))).toMatchObject({
      ok: false,
      code: 'badDocument',
    });
  });
});
