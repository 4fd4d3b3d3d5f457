import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { PassThrough, Readable } from 'node:stream';
import type { FastifyInstance } from 'fastify';
import { ZipFile } from 'yazl';
import { verifierKey } from '../ledger/signing-key.js';
import { HttpProblem } from '../problems.js';
import { readHandover } from '../store/handovers.js';
import { exportRecord } from '../store/ledger.js';
import { getDocument } from '../store/library.js';
import { readPhoto } from '../store/photos.js';
import { papersOf } from '../store/unit-papers.js';
import type { LibraryKind } from '@decurio/contract';
import { ARCHIVE_FORMAT, MANIFEST, type ArchiveFile, type FileKind, type Manifest } from './manifest.js';
import { readmeOf } from './readme.js';

type House = Pick<FastifyInstance, 'source' | 'printer' | 'signingKey'>;

/** Whose archive: an order by its id, or everything of a customer by name. */
export type ArchiveOf =
  | { readonly what: 'order'; readonly orderId: string; readonly name: string }
  | { readonly what: 'customer'; readonly name: string };

interface Sealed {
  readonly visitId: string;
  readonly serial: string;
  readonly headHash: string;
  readonly typeId: string | null;
  readonly typeVersion: number;
  readonly mapId: string;
  readonly mapVersion: number;
  readonly packId: string;
  readonly packVersion: number;
  readonly houseId: string;
  readonly houseVersion: number;
}

const MOST_VISITS = 20_000;
/** So many visits are begun ahead of where the archive is: while one waits for the database another is drawn. */
const AHEAD = 5;

/** Where the record's schema stands, whether this runs from its sources or as built. */
const schemaText = (): string => {
  for (const up of ['../../', '../../../'])
    try {
      return readFileSync(new URL(`${up}docs/formats/record.schema.json`, import.meta.url), 'utf8');
    } catch {
      continue;
    }
  throw new Error('docs/formats/record.schema.json is missing');
};

/**
 * Everything of an order or a customer as one ZIP, written as it is read: memory does not grow with it. Stopped by
 * destroying it.
 * @throws HttpProblem where nothing of it is sealed
 */
export async function writeArchive(house: House, of: ArchiveOf): Promise<Readable> {
  const visits = await sealedOf(house, of);
  if (visits.length === 0) throw new HttpProblem('notSealed', { message: 'Nothing of it is sealed yet.' });
  if (visits.length > MOST_VISITS)
    throw new HttpProblem('tooLarge', { message: `More than ${MOST_VISITS} visits: take them order by order.` });
  const zip = new ZipFile();
  const out = new PassThrough();
  const gone = new AbortController();
  out.once('close', () => gone.abort());
  const files: ArchiveFile[] = [];
  const add = (name: string, kind: FileKind, make: () => Promise<Buffer>, visitId?: string) =>
    zip.addReadStreamLazy(name, { mtime: MADE_AT, compress: kind !== 'photo' }, (done) => {
      if (gone.signal.aborted) return done(new Error('nobody reads it any more'), Readable.from([]));
      make().then(
        (body) => {
          files.push({ name, kind, sha256: sha256(body), ...(visitId === undefined ? {} : { visitId }) });
          done(null, Readable.from([body]));
        },
        (error: unknown) => done(error instanceof Error ? error : new Error(String(error)), Readable.from([])),
      );
    });
  const text = (words: string) => () => Promise.resolve(Buffer.from(words));
  const origin = house.signingKey?.name ?? '';
  add('README.txt', 'about', text(readmeOf(ofWords(of), visits.length, origin)));
  add('record.schema.json', 'about', text(schemaText()));
  if (house.signingKey) add('key.txt', 'about', text(`${verifierKey(house.signingKey)}\n`));
  const note = await newestNote(house);
  if (note !== null) add('checkpoint.txt', 'checkpoint', text(note));
  for (const { kind, id, version } of documentsOf(visits))
    add(`documents/${kind}/${id}-${version}.json`, 'document', async () =>
      asJson((await getDocument(house.source.manager, kind, id, version)).document),
    );
  const parts = partsAhead(house, visits, gone.signal);
  for (const [i, { visitId, serial }] of visits.entries()) {
    const name = `${fileName(serial)}-${visitId}`;
    add(`records/${name}.json`, 'record', () => parts(i).record, visitId);
    add(`handover/${name}.json`, 'handover', () => parts(i).handover, visitId);
    add(`papers/${name}-certificate.pdf`, 'paper', () => parts(i).paper, visitId);
  }
  for (const { id, visitId } of await photosOf(house, visits))
    add(`photographs/${id}.jpg`, 'photo', () => readPhoto(house.source, id), visitId);
  zip.addReadStreamLazy(MANIFEST, { mtime: MADE_AT }, (done) => {
    const manifest: Manifest = {
      format: ARCHIVE_FORMAT,
      origin,
      madeAt: new Date().toISOString(),
      of: { what: of.what, name: of.name },
      files,
    };
    done(null, Readable.from([asJson(manifest)]));
  });
  zip.once('error', (error: Error) => out.destroy(error));
  zip.outputStream.once('error', (error: Error) => out.destroy(error));
  zip.outputStream.pipe(out);
  zip.end();
  return out;
}

/** The same times in every archive of the same things. */
const MADE_AT = new Date('2000-01-01T00:00:00Z');
const ofWords = (of: ArchiveOf): string => (of.what === 'order' ? `order ${of.name}` : `all orders of ${of.name}`);
const asJson = (value: unknown): Buffer => Buffer.from(JSON.stringify(value));
const sha256 = (body: Buffer): string => createHash('sha256').update(body).digest('hex');
export const fileName = (name: string): string => name.replace(/[^A-Za-z0-9._-]/g, '_');

const sealedOf = ({ source }: House, of: ArchiveOf): Promise<Sealed[]> =>
  source.query<Sealed[]>(
    `SELECT l.visitId, l.serial, v.headHash, l.typeId, l.typeVersion, l.mapId, l.mapVersion, l.packId, l.packVersion, l.houseId, l.houseVersion
     FROM left_visit l JOIN visit v ON v.id = l.visitId
     WHERE ${of.what === 'order' ? 'l.orderId' : 'l.customer'} = ? ORDER BY l.sealedAt, l.visitId LIMIT ${MOST_VISITS + 1}`,
    [of.what === 'order' ? of.orderId : of.name],
  );

function documentsOf(visits: readonly Sealed[]) {
  const found = new Map<string, { readonly kind: LibraryKind; readonly id: string; readonly version: number }>();
  for (const visit of visits) {
    const named = [
      ['vehicleType', visit.typeId, visit.typeVersion],
      ['displayMap', visit.mapId, visit.mapVersion],
      ['rulePack', visit.packId, visit.packVersion],
      ['houseRules', visit.houseId, visit.houseVersion],
    ] as const;
    for (const [kind, id, version] of named)
      if (id !== null) found.set(`${kind} ${id} ${version}`, { kind, id, version });
  }
  return [...found.values()];
}

async function newestNote({ source }: House): Promise<string | null> {
  const [row] = await source.query<{ note: string }[]>('SELECT note FROM checkpoint ORDER BY size DESC LIMIT 1');
  return row?.note ?? null;
}

async function photosOf({ source }: House, visits: readonly Sealed[]) {
  const found: { readonly id: string; readonly visitId: string }[] = [];
  for (let from = 0; from < visits.length; from += 1000) {
    const ids = visits.slice(from, from + 1000).map(({ visitId }) => visitId);
    const marks = ids.map(() => '?').join(', ');
    found.push(
      ...(await source.query<typeof found>(
        `SELECT id, visitId FROM photo WHERE visitId IN (${marks}) ORDER BY visitId, id`,
        ids,
      )),
    );
  }
  return found;
}

interface Parts {
  readonly record: Promise<Buffer>;
  readonly handover: Promise<Buffer>;
  readonly paper: Promise<Buffer>;
}

/** Makes what a visit is in the archive a few visits ahead of whoever asks for them in turn, and keeps none behind. */
function partsAhead(house: House, visits: readonly Sealed[], signal: AbortSignal): (i: number) => Parts {
  const begun = new Map<number, Parts>();
  const begin = (i: number): Parts | null => {
    const visit = visits[i];
    if (!visit || signal.aborted) return null;
    const known = begun.get(i);
    if (known) return known;
    const { visitId, headHash } = visit;
    const parts: Parts = {
      record: exportRecord(house.source, visitId).then(asJson),
      handover: readHandover(house.source.manager, visitId).then((entries) =>
        asJson({ visitId, seal: headHash, entries }),
      ),
      paper: certificate(house, visitId, signal),
    };
    // Whoever asks for them hears of a failure; until then it is nobody's.
    for (const part of Object.values(parts) as Promise<Buffer>[]) part.catch(() => undefined);
    begun.set(i, parts);
    return parts;
  };
  return (i) => {
    begun.delete(i - 1);
    for (let next = i; next <= i + AHEAD; next++) begin(next);
    const parts = begin(i);
    if (!parts) throw new Error('nobody reads it any more');
    return parts;
  };
}

async function certificate({ source, printer }: House, visitId: string, signal: AbortSignal): Promise<Buffer> {
  const papers = (await papersOf(source, visitId)).papersIn('en');
  return printer.unit({ papers, which: ['certificate'], labelSize: 'usual' }, signal);
}
