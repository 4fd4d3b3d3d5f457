import { createHash } from 'node:crypto';
import { asSealed, canonicalJson, checkRecord, foldVisit, type VisitRecord } from '@decurio/core';
import {
  asKept,
  documentSchemas,
  inTodaysForm,
  newDocumentRequest,
  type LibraryDocuments,
  type LibraryKind,
} from '@decurio/contract';
import { ValidationError } from 'yup';
import { checkOrderFile, type CheckedFile, type IntakeLibrary } from '../intake/check-order-file.js';
import { readOrderFile, type FileRead } from '../intake/read-order-file.js';
import { hasHalfLetter } from './half-letters.js';
import { DEEPEST_JSON, jsonDepth } from './json-depth.js';

/*
 * What comes from outside is read here, in a thread of its own: whatever it holds, the server goes on answering, and a
 * reader that takes too long or too much is ended.
 */

export type OrderFileRead =
  | Exclude<FileRead, { readonly ok: true }>
  | {
      readonly ok: true;
      readonly broken: Extract<FileRead, { readonly ok: true }>['broken'];
      readonly checked: CheckedFile;
    };

/** Reads an order file and checks it against the library. */
export function orderFile({
  bytes,
  library,
}: {
  readonly bytes: Uint8Array;
  readonly library: IntakeLibrary;
}): OrderFileRead {
  const read = readOrderFile(Buffer.from(bytes));
  return read.ok ? { ok: true, broken: read.broken, checked: checkOrderFile(read.rows, library) } : read;
}

export type RecordRead =
  | { readonly ok: false; readonly says: string }
  | {
      readonly ok: true;
      readonly visitId: string;
      readonly serial: string;
      readonly entries: number;
      readonly seal: string;
      readonly bodyHashes: readonly string[];
      /** Photographs that its entries name. */
      readonly photographs: readonly { readonly photoId: string; readonly sha256: string }[];
      /** What a list of records shows. */
      readonly cover: {
        readonly sealedAt: string;
        readonly sealedBy: string;
        readonly typeName: string;
        readonly customer: string;
        readonly orderNumber: string;
        readonly map: { readonly id: string; readonly version: number };
      };
    };

/** Reads a record file and checks it by itself; `bodyHashes` are the SHA-256 of each entry as canonical JSON. */
export function record({ bytes }: { readonly bytes: Uint8Array }): RecordRead {
  const parsed = parse(bytes);
  if (!parsed.ok)
    return { ok: false, says: 'This is not a JSON file. Choose the record that was exported from a ledger.' };
  const own = checkRecord(parsed.value);
  if (!own.ok) return own;
  const { visitId, serial, evidence } = parsed.value as VisitRecord;
  return {
    ok: true,
    visitId,
    serial,
    entries: own.entries,
    seal: own.seal,
    bodyHashes: evidence.map((entry) => sha256(canonicalJson(asSealed(entry)))),
    photographs: evidence.flatMap((entry) => (entry.kind === 'photographed' ? [entry.data] : [])),
    cover: coverOf(parsed.value as VisitRecord),
  };
}

function coverOf({ sealedAt, evidence }: VisitRecord) {
  const fold = foldVisit(evidence);
  if (!fold.ok) throw new Error('a record that was checked folds');
  const { order, versions } = fold.value.opened;
  return {
    sealedAt,
    sealedBy: evidence.at(-1)?.by.name ?? '',
    typeName: versions.type.name,
    customer: order.customer,
    orderNumber: order.number,
    map: { id: versions.map.id, version: versions.map.version },
  };
}

export type DocumentRead =
  | { readonly ok: true; readonly kind: LibraryKind; readonly document: LibraryDocuments[LibraryKind] }
  | {
      readonly ok: false;
      readonly code: 'badJson' | 'badFields' | 'badDocument';
      readonly fields: Readonly<Record<string, string>>;
    };

/** Reads a document for the library and holds it against the schema of its kind. */
export function document({ bytes }: { readonly bytes: Uint8Array }): DocumentRead {
  const parsed = parse(bytes);
  if (!parsed.ok) return { ok: false, code: 'badJson', fields: {} };
  const request = validated(
    () =>
      newDocumentRequest
        .required('A JSON object is wanted.')
        .validateSync(parsed.value, { abortEarly: false, strict: true }),
    'badFields',
  );
  if (!request.ok) return request;
  const { kind } = request.value;
  const found = validated(
    () => documentSchemas[kind].validateSync(inTodaysForm(request.value.document), { abortEarly: false, strict: true }),
    'badDocument',
  );
  return found.ok ? { ok: true, kind, document: asKept(kind, found.value as LibraryDocuments[LibraryKind]) } : found;
}

function validated<T>(
  validate: () => T,
  code: 'badFields' | 'badDocument',
): { readonly ok: true; readonly value: T } | Extract<DocumentRead, { readonly ok: false }> {
  try {
    return { ok: true, value: validate() };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const all = error.inner.length > 0 ? error.inner : [error];
    return {
      ok: false,
      code,
      fields: Object.fromEntries(all.slice(0, 200).map((each) => [each.path ?? '', each.message])),
    };
  }
}

function parse(bytes: Uint8Array): { readonly ok: true; readonly value: unknown } | { readonly ok: false } {
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return jsonDepth(text) > DEEPEST_JSON || hasHalfLetter(text)
      ? { ok: false }
      : { ok: true, value: JSON.parse(text) as unknown };
  } catch {
    return { ok: false };
  }
}

/** Evidence is hashed as UTF-8, as the database keeps it. */
const sha256 = (text: string): string => createHash('sha256').update(text, 'utf8').digest('hex');
