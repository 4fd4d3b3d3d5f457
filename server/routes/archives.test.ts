import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { buffer } from 'node:stream/consumers';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { fromBuffer, type Entry } from 'yauzl';
import { ZipFile } from 'yazl';
import { CHAIN_START, sealEvidence, type Evidence, type VisitRecord } from '@decurio/core';
import type { ArchiveReport, ElsewhereRecordView, ElsewhereView, LedgerAnswer } from '@decurio/contract';
import type { Manifest } from '../archive/manifest.js';
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

let house: TestServer;
let other: TestServer;
let ines: Person;
let there: Person;
let orderId: string;
let archive: Buffer;
let files: ReadonlyMap<string, Buffer>;

beforeAll(async () => {
  [house, other] = await Promise.all([startTestServer(), startTestServer()]);
  await fillLibrary(await signInAs(house, 'owner'));
  const teo = await signInAs(house, 'technician');
  [ines, there] = [await signInAs(house, 'lead'), await signInAs(other, 'lead')];
  const { taken, units } = await takeOrder(teo, orderFile(['S26-0001', 'S26/0002'], 'packed'));
  orderId = taken.orderId;
  for (const unit of units) {
    const bench = await new Bench(teo, unit.id).open();
    await bench.toSignOff();
    await bench.sign('ready');
  }
  const answer = await ines.get(`/api/orders/${orderId}/archive.zip`);
  expect(answer.statusCode).toBe(200);
  archive = answer.rawPayload;
  files = await unpacked(archive);
});
afterAll(() => Promise.all([house.close(), other.close()]));

function unpacked(zip: Buffer): Promise<ReadonlyMap<string, Buffer>> {
  return new Promise((done, failed) => {
    fromBuffer(zip, { lazyEntries: true }, (problem, opened) => {
      if (problem) return failed(problem);
      const found = new Map<string, Buffer>();
      opened.once('end', () => done(found));
      opened.on('entry', (entry: Entry) => {
        opened.openReadStream(entry, (error, stream) => {
          if (error) return failed(error);
          void buffer(stream).then((body) => {
            found.set(entry.fileName, body);
            opened.readEntry();
          });
        });
      });
      opened.readEntry();
    });
  });
}
async function packed(parts: Iterable<readonly [string, Buffer]>): Promise<Buffer> {
  const zip = new ZipFile();
  for (const [name, body] of parts) zip.addBuffer(body, name);
  zip.end();
  return buffer(zip.outputStream as NodeJS.ReadableStream);
}
const sha256 = (body: Buffer): string => createHash('sha256').update(body).digest('hex');
const manifestOf = (): Manifest => JSON.parse(files.get('manifest.json')!.toString()) as Manifest;
const recordName = (): string => manifestOf().files.find(({ kind }) => kind === 'record')!.name;

/** The archive with some files changed and its list made to fit, as one would who knows the form. */
async function altered(
  change: (parts: Map<string, Buffer>, manifest: Manifest) => void,
  listing: 'listed anew' | 'as it was' = 'listed anew',
): Promise<Buffer> {
  const parts = new Map(files);
  const manifest = manifestOf();
  change(parts, manifest);
  if (listing === 'listed anew')
    for (const file of manifest.files) file.sha256 = sha256(parts.get(file.name) ?? Buffer.alloc(0));
  parts.set('manifest.json', Buffer.from(JSON.stringify(manifest)));
  return packed(parts);
}
const bring = (person: Person, body: Buffer, take = '') => person.post(`/api/archives${take}`, body, 'application/zip');

describe('an archive of an order', () => {
  it('holds records, documents, papers, a list of all with their hashes, words and a schema', () => {
    const { files: listed, of } = manifestOf();
    expect(of).toEqual({ what: 'order', name: 'packed' });
    expect(listed.filter(({ kind }) => kind === 'record')).toHaveLength(2);
    expect(listed.filter(({ kind }) => kind === 'document')).toHaveLength(4);
    for (const { name, sha256: hash } of listed) expect(sha256(files.get(name)!)).toBe(hash);
    expect([...files.keys()].sort()).toEqual([...listed.map(({ name }) => name), 'manifest.json'].sort());
    expect(files.get('README.txt')!.toString()).toContain('2 sealed records');
    const paper = listed.find(({ kind }) => kind === 'paper')!;
    expect(files.get(paper.name)!.subarray(0, 5).toString()).toBe('%PDF-');
  });

  it('says of its records nothing that its schema does not', () => {
    const schema = JSON.parse(files.get('record.schema.json')!.toString()) as object;
    expect(schema).toEqual(JSON.parse(readFileSync('docs/formats/record.schema.json', 'utf8')));
    const validate = new Ajv2020({ strict: false, validateFormats: false }).compile(schema);
    const record = JSON.parse(files.get(recordName())!.toString()) as VisitRecord;
    expect(validate(record), JSON.stringify(validate.errors)).toBe(true);
    expect(validate({ ...record, more: 1 })).toBe(false);
  });

  it('is made for a lead, and where something is sealed', async () => {
    const teo = await signInAs(house, 'technician');
    expect((await teo.get(`/api/orders/${orderId}/archive.zip`)).statusCode).toBe(403);
    expect((await ines.get('/api/archives/customer?customer=Nobody')).statusCode).toBe(409);
    const all = await ines.get('/api/archives/customer?customer=Causeway+Holiday+Park');
    expect((await unpacked(all.rawPayload)).size).toBe(files.size);
  });
});

describe('an archive brought into another house', () => {
  it('is checked first, and taken in where all of it holds; again, nothing changes', async () => {
    const checked = (await bring(there, archive)).json<ArchiveReport>();
    expect(checked).toMatchObject({
      holds: true,
      findings: [],
      records: 2,
      fresh: 2,
      known: 0,
      ours: 0,
      isTaken: false,
    });
    expect((await there.get('/api/elsewhere')).json<ElsewhereView>().archives).toEqual([]);
    expect((await bring(there, archive, '?take=true')).json<ArchiveReport>().isTaken).toBe(true);
    const again = (await bring(there, archive, '?take=true')).json<ArchiveReport>();
    expect(again).toMatchObject({ holds: true, fresh: 0, known: 2 });
    const { archives } = (await there.get('/api/elsewhere')).json<ElsewhereView>();
    expect(archives).toMatchObject([{ name: 'packed', records: 2, takenBy: 'The lead' }]);
    const { records } = (await there.get(`/api/elsewhere?archive=${archives[0]!.id}`)).json<ElsewhereView>();
    expect(records.map(({ serial }) => serial).sort()).toEqual(['S26-0001', 'S26/0002']);
    const one = (await there.get(`/api/elsewhere/${records[0]!.visitId}`)).json<ElsewhereRecordView>();
    expect(one.record.seal).toBe(one.seal);
    expect(one.map?.id).toBe('tallow-four-key');
    expect((await there.get('/api/ledger/answer?where=every')).json<LedgerAnswer>().items).toEqual([]);
  });

  it('is known for what it is in the house it came from', async () => {
    expect((await bring(ines, archive)).json<ArchiveReport>()).toMatchObject({ holds: true, fresh: 0, ours: 2 });
  });

  it.each<[string, () => Promise<Buffer>, RegExp]>([
    [
      'an entry changed',
      () =>
        altered((parts) => {
          const text = parts.get(recordName())!.toString().replace('"station":"', '"station":"other ');
          parts.set(recordName(), Buffer.from(text));
        }),
      /was changed after it was written/,
    ],
    [
      'the last entry cut off',
      () =>
        altered((parts) => {
          const record = JSON.parse(parts.get(recordName())!.toString()) as VisitRecord;
          parts.set(recordName(), Buffer.from(JSON.stringify({ ...record, evidence: record.evidence.slice(0, -1) })));
        }),
      /ends in another seal/,
    ],
    [
      'a file that is not what the list says',
      () => altered((parts) => void parts.set('README.txt', Buffer.from('other')), 'as it was'),
      /README\.txt is not what the list says/,
    ],
    [
      'two records of one visit',
      () =>
        altered((parts, manifest) => {
          parts.set('records/twin.json', parts.get(recordName())!);
          manifest.files.push({ name: 'records/twin.json', kind: 'record', sha256: '' });
        }),
      /is in it twice/,
    ],
    [
      'a visit that has no such id, in a chain of its own',
      () =>
        altered((parts) => {
          const record = JSON.parse(parts.get(recordName())!.toString()) as VisitRecord;
          const evidence: Evidence[] = [];
          for (const entry of record.evidence)
            evidence.push(sealEvidence({ ...entry, visitId: 'ä'.repeat(60) }, evidence.at(-1)?.hash ?? CHAIN_START));
          const made = { ...record, evidence, visitId: 'ä'.repeat(60), seal: evidence.at(-1)!.hash };
          parts.set(recordName(), Buffer.from(JSON.stringify(made)));
        }),
      /none that could be kept/,
    ],
    [
      'a document that is none',
      () =>
        altered((parts, manifest) => {
          parts.set(manifest.files.find(({ kind }) => kind === 'document')!.name, Buffer.from('['));
        }),
      /is no document/,
    ],
    [
      'what was handed over, changed',
      () =>
        altered((parts, manifest) => {
          const name = manifest.files.find(({ kind }) => kind === 'handover')!.name;
          parts.set(name, Buffer.from(JSON.stringify({ entries: [{ seq: 1, kind: 'received' }] })));
        }),
      /handing over|handed over/,
    ],
  ])('is not taken in with %s', async (_what, made, says) => {
    const report = (await bring(there, await made(), '?take=true')).json<ArchiveReport>();
    expect(report).toMatchObject({ holds: false, isTaken: false });
    expect(report.findings.join(' ')).toMatch(says);
  });

  it.each<[string, () => Promise<Buffer>, RegExp]>([
    ['no archive', () => Promise.resolve(Buffer.from('PK no')), /no ZIP file/],
    ['an archive cut short', () => Promise.resolve(archive.subarray(0, archive.length / 2)), /cut short/],
    ['a ZIP without a list', () => packed([['a.txt', Buffer.from('a')]]), /has no manifest/],
    [
      'a newer form',
      () => altered((_parts, manifest) => void (manifest.format = 'decurio-archive/9' as Manifest['format'])),
      /from a newer version/,
    ],
    [
      'a list of nonsense',
      () => altered((_parts, manifest) => void (manifest.files[0]!.sha256 = 'x'), 'as it was'),
      /does not list/,
    ],
    [
      'a name in letters that nobody writes',
      () =>
        altered((parts, manifest) => {
          parts.set('papers/ä.pdf', Buffer.from('x'));
          manifest.files.push({ name: 'papers/ä.pdf', kind: 'paper', sha256: '' });
        }),
      /plain letters/,
    ],
    ['a file beside the list', () => altered((parts) => void parts.set('more.txt', Buffer.from('x'))), /does not name/],
    [
      'a path that climbs out',
      async () => {
        const zip = await packed([
          ['aa/aa/evil.txt', Buffer.from('x')],
          ['manifest.json', Buffer.from('{}')],
        ]);
        return Buffer.from(zip.toString('latin1').replaceAll('aa/aa/evil', '../../evil'), 'latin1');
      },
      /invalid relative path/,
    ],
  ])('is refused where it is %s', async (_what, made, says) => {
    const answer = await bring(there, await made());
    expect(answer.statusCode).toBe(422);
    expect(errorOf(answer).message).toMatch(says);
  });

  it('is refused by its size alone, and from whoever may not', async () => {
    const size = String(5 * 1024 ** 3);
    const headers = { cookie: there.cookie, 'content-type': 'application/zip', 'content-length': size };
    const answer = await other.app.inject({
      method: 'POST',
      url: '/api/archives',
      headers,
      payload: Buffer.from('PK'),
    });
    expect(answer.statusCode).toBe(413);
    expect((await bring(await signInAs(other, 'technician'), archive)).statusCode).toBe(403);
  });

  it('is taken out by an owner with all that it says', async () => {
    const owner = await signInAs(other, 'owner');
    const [{ id } = { id: '' }] = (await there.get('/api/elsewhere')).json<ElsewhereView>().archives;
    expect((await there.post(`/api/elsewhere/${id}/dropped`, {})).statusCode).toBe(403);
    expect((await owner.post(`/api/elsewhere/${id}/dropped`, {})).statusCode).toBe(200);
    expect((await there.get('/api/elsewhere')).json<ElsewhereView>().archives).toEqual([]);
  });
});
