import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import type { Entry, Evidence, Received } from '../bench/evidence.js';

/** What the first entry of every visit names as its predecessor. */
export const CHAIN_START = '0'.repeat(64);

/**
 * Canonical JSON after RFC 8785. What JSON cannot carry whole is refused, so that no two values have one text: a lone
 * surrogate, undefined, a hole in a list, a function, a figure that is none, an object that is more than its fields.
 * @throws TypeError on those, which is a bug of the caller; Error on a circle
 * @example
 * canonicalJson({ b: 4.5, a: '€' }); // '{"a":"€","b":4.5}'
 */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value);
  refuseUnlessJson(value);
  if (text === undefined) throw new TypeError('nothing to write as canonical JSON');
  return text;
}

const HALF_A_LETTER = /\p{Surrogate}/u;

function refuseUnlessJson(value: unknown): void {
  switch (typeof value) {
    case 'boolean':
      return;
    case 'string':
      if (HALF_A_LETTER.test(value)) throw new TypeError('half a letter is no JSON text');
      return;
    case 'number':
      if (!Number.isFinite(value)) throw new TypeError(`${value} is no JSON number`);
      return;
    case 'object':
      return refuseUnlessPlain(value);
    default:
      throw new TypeError(`${typeof value} is no JSON`);
  }
}

function refuseUnlessPlain(value: object | null): void {
  if (value === null) return;
  if (Array.isArray(value)) {
    // Not `forEach`: that passes over holes.
    for (let i = 0; i < value.length; i++) refuseUnlessJson(value[i]);
    return;
  }
  const prototype: unknown = Object.getPrototypeOf(value);
  if (prototype !== Object.prototype && prototype !== null) throw new TypeError('no plain object is no JSON');
  if (Object.getOwnPropertySymbols(value).length > 0) throw new TypeError('a symbol names nothing in JSON');
  for (const [key, each] of Object.entries(value)) {
    refuseUnlessJson(key);
    refuseUnlessJson(each);
  }
}

/** Lower-case hex SHA-256 of the canonical JSON of a value. */
export const hashOf = (value: unknown): string => bytesToHex(sha256(utf8ToBytes(canonicalJson(value))));

/** Chains a deed to the hash of the entry before it (`CHAIN_START` for the first), with what the server says of it. */
export function sealEvidence(deed: Entry & Partial<Received>, prevHash: string): Evidence {
  const { id, visitId, seq, kind, at, by, station, data, receivedAt, clockOffS } = deed;
  const received = {
    ...(receivedAt === undefined ? {} : { receivedAt }),
    ...(clockOffS === undefined ? {} : { clockOffS }),
  };
  const body = { id, visitId, seq, kind, at, by, station, data, ...received, prevHash };
  return { ...body, hash: hashOf(body) } as Evidence;
}

/** Every key that an entry may have. What stands under another one is covered by no seal. */
const SEALED_KEYS: ReadonlySet<string> = new Set([
  'id',
  'visitId',
  'seq',
  'kind',
  'at',
  'by',
  'station',
  'data',
  'receivedAt',
  'clockOffS',
  'prevHash',
  'hash',
]);

/** When the server took an entry, or what the stand said where the entry is older than that note. */
export const receivedAtOf = ({ receivedAt, at }: Pick<Evidence, 'receivedAt' | 'at'>): string => receivedAt ?? at;

/** Outcome of walking a chain: its head, or the first entry that does not hold and why. */
export type ChainCheck =
  | { readonly ok: true; readonly entries: number; readonly headHash: string }
  | { readonly ok: false; readonly seq: number; readonly says: string };

/**
 * Walks a visit's evidence, oldest first, and recomputes every hash.
 * @param expectedHead hash the chain must end in, where it is known from elsewhere (a printed certificate)
 */
export function verifyChain(evidence: readonly Evidence[], expectedHead?: string): ChainCheck {
  let prevHash = CHAIN_START;
  for (const [index, entry] of evidence.entries()) {
    const seq = index + 1;
    if (entry.seq !== seq)
      return { ok: false, seq, says: `Entry ${seq} is missing; entry ${entry.seq} stands in its place.` };
    if (entry.prevHash !== prevHash) return { ok: false, seq, says: `Entry ${seq} does not follow the one before it.` };
    const loose = Object.keys(entry).find((key) => !SEALED_KEYS.has(key));
    if (loose !== undefined)
      return {
        ok: false,
        seq,
        says: `Entry ${seq} was changed after it was written: it says "${loose}", which no seal covers.`,
      };
    if (sealEvidence(entry, prevHash).hash !== entry.hash)
      return { ok: false, seq, says: `Entry ${seq} was changed after it was written.` };
    prevHash = entry.hash;
  }
  if (evidence.length === 0) return { ok: false, seq: 1, says: 'There is no entry at all.' };
  if (expectedHead !== undefined && expectedHead !== prevHash) {
    return {
      ok: false,
      seq: evidence.length,
      says: 'The chain is whole, but ends in another seal than the one named: entries are missing at the end, or all were written anew.',
    };
  }
  return { ok: true, entries: evidence.length, headHash: prevHash };
}

/** A seal short enough to compare by eye: four groups of four. */
export const shortSeal = (hash: string): string => (hash.slice(0, 16).match(/.{4}/g) ?? []).join(' ');
