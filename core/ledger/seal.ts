import type { Entry, Evidence, Received } from '../bench/evidence.js';
import { canonicalJson, hashOfText } from './canonical-json.js';
import { sealedForm } from './personal.js';

/** What the first entry of every visit names as its predecessor. */
export const CHAIN_START = '0'.repeat(64);

/**
 * Chains a deed to the hash of the entry before it (`CHAIN_START` for the first), with what the server says of it. A name
 * that is kept apart is covered by its hash.
 */
export const sealEvidence = (deed: Entry & Partial<Received>, prevHash: string): Evidence =>
  sealedWithText(deed, prevHash).entry;

/**
 * The same with the canonical JSON by which the entry is stored, for whoever writes many: the text that is hashed is part
 * of it, and is made once.
 */
export function sealedWithText(
  deed: Entry & Partial<Received>,
  prevHash: string,
): { readonly entry: Evidence; readonly text: string } {
  const { id, visitId, seq, kind, at, by, station, data, receivedAt, clockOffS } = deed;
  const received = receivedAt === undefined ? {} : { receivedAt };
  const off = clockOffS === undefined ? {} : { clockOffS };
  const body = { id, visitId, seq, kind, at, by, station, data, ...received, ...off, prevHash };
  // In canonical order the hash stands between these two.
  const before = canonicalJson({ at, by: asSealed(body as Entry).by, ...off, data }).slice(0, -1);
  const behind = canonicalJson({ id, kind, prevHash, ...received, seq, station, visitId }).slice(1);
  const hash = hashOfText(`${before},${behind}`);
  return { entry: { ...body, hash } as Evidence, text: `${before},"hash":"${hash}",${behind}` };
}

/** An entry as its chain covers it, and as it is stored: without a name that is kept apart. */
export const asSealed = <E extends Entry>(entry: E): E => ({ ...entry, by: sealedForm(entry.by, ['name']) }) as E;

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
 * @param hashOfEntry what an entry hashes to behind another; for whoever has it from the stored text already
 */
export function verifyChain(
  evidence: readonly Evidence[],
  expectedHead?: string,
  hashOfEntry: (entry: Evidence, prevHash: string) => string = (entry, before) => sealEvidence(entry, before).hash,
): ChainCheck {
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
    if (hashOfEntry(entry, prevHash) !== entry.hash)
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
