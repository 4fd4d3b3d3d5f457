import { saidBy, seenPdf } from '../testing/seen-pdf.js';
import { randomUUID } from 'node:crypto';
import { createConnection } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checkRecord, type VisitRecord } from '@decurio/core';
import type { LedgerRecordView, LedgerRow, Page, SealCheck } from '@decurio/contract';
import {
  Bench,
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
const sealed: Bench[] = [];
let open: Bench;
beforeAll(async () => {
  server = await startTestServer();
  await fillLibrary(await signInAs(server, 'owner'));
  teo = await signInAs(server, 'technician');
  const { units } = await takeOrder(teo, orderFile(['S26-0001', 'S26-0002', 'S26_0003', 'S26-0004']));
  for (const unit of units.slice(0, 3)) {
    const bench = await new Bench(teo, unit.id).open();
    await bench.toSignOff();
    expect((await bench.sign('ready')).statusCode).toBe(201);
    sealed.push(bench);
  }
  open = await new Bench(teo, units[3]!.id).open();
});
afterAll(() => server.close());

const list = async (query = '') => (await teo.get(`/api/ledger${query}`)).json<Page<LedgerRow>>();
const exported = async () => (await teo.get(`/api/visits/${sealed[0]!.visitId}/record.json`)).json<VisitRecord>();
const check = async (record: unknown) => (await teo.post('/api/record-checks', record)).json<SealCheck>();

describe("what the application's user may never change", () => {
  it.each([
    'UPDATE evidence SET kind = "x"',
    'DELETE FROM evidence',
    'TRUNCATE TABLE evidence',
    'DROP TABLE evidence',
    'ALTER TABLE evidence ADD x INT',
    'UPDATE library_document SET body = "{}"',
    'DELETE FROM library_document',
    'UPDATE seal_head SET seq = 1',
    'DELETE FROM seal_head',
    'UPDATE photo SET body = ""',
    'DELETE FROM photo',
  ])('is refused: %s', async (sql) => {
    const application = await createConnection(server.applicationUrl);
    await expect(application.query(sql)).rejects.toMatchObject({ code: 'ER_TABLEACCESS_DENIED_ERROR' });
    await application.end();
  });
});

describe('the ledger', () => {
  it('lists what was sealed, newest first, and nothing that is still open', async () => {
    const { items, next } = await list();
    expect(items.map((row) => row.serial)).toEqual(['S26_0003', 'S26-0002', 'S26-0001']);
    expect(items[0]).toMatchObject({
      orderNumber: '2611',
      customer: 'Causeway Holiday Park',
      sealedBy: 'The technician',
      seal: sealed[2]!.evidence.at(-1)!.hash,
    });
    expect(next).toBeNull();
  });

  it('finds by the beginning of serial, order or customer, wildcards taken as they stand', async () => {
    const serials = async (search: string) =>
      (await list(`?search=${encodeURIComponent(search)}`)).items.map((row) => row.serial);
    expect(await serials('s26-0002')).toEqual(['S26-0002']);
    expect(await serials('cause')).toHaveLength(3);
    expect(await serials('2611')).toHaveLength(3);
    expect(await serials('S26_')).toEqual(['S26_0003']);
    expect(await serials('%')).toEqual([]);
  });

  it('shows every reading, who and when', async () => {
    const record = (await teo.get(`/api/visits/${sealed[0]!.visitId}`)).json<LedgerRecordView>();
    const readings = record.evidence.filter((entry) => entry.kind === 'codeRead');
    expect(readings).toHaveLength(14);
    expect(readings.every((entry) => entry.by.name === 'The technician' && !Number.isNaN(Date.parse(entry.at)))).toBe(
      true,
    );
  });

  it('refuses a broken page address', async () => {
    expect(errorOf(await teo.get('/api/ledger?after=nonsense')).code).toBe('badRequest');
  });
});

describe('an exported record', () => {
  it('proves itself, and this ledger knows it', async () => {
    const record = await exported();
    expect(checkRecord(record)).toMatchObject({ ok: true });
    expect(await check(record)).toMatchObject({
      holds: true,
      findings: [],
      serial: 'S26-0001',
      visitId: sealed[0]!.visitId,
    });
  });

  it('is refused when a reading was changed, and when it is no record', async () => {
    const text = JSON.stringify(await exported()).replace('"raw":24', '"raw":30');
    expect(await check(JSON.parse(text))).toMatchObject({ holds: false, says: expect.stringContaining('was changed') });
    expect(await check({ format: 'another' })).toMatchObject({ holds: false });
  });

  it('does not exist before sign-off', async () => {
    const answer = await teo.get(`/api/visits/${open.visitId}/record.json`);
    expect([answer.statusCode, errorOf(answer).code]).toEqual([409, 'notSealed']);
    expect((await teo.get(`/api/visits/${randomUUID()}/record.json`)).statusCode).toBe(404);
  });
});

describe('the configuration certificate', () => {
  it('is a PDF of the sealed visit, and a draft before', async () => {
    const answer = await teo.get(`/api/visits/${sealed[0]!.visitId}/certificate.pdf`);
    expect(answer.headers['content-type']).toBe('application/pdf');
    expect(answer.rawPayload.subarray(0, 5).toString()).toBe('%PDF-');
    expect(answer.headers['content-disposition']).toContain('S26-0001-certificate.pdf');
    const draft = await teo.get(`/api/visits/${open.visitId}/certificate.pdf`);
    expect(saidBy(await seenPdf(draft.rawPayload))).toContain('DRAFT');
    expect(saidBy(await seenPdf(answer.rawPayload))).not.toContain('DRAFT');
  });
});
