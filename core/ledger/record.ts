import type { Evidence } from '../bench/evidence.js';
import { foldVisit } from '../bench/fold-visit.js';
import { parseCheckpoint, type SignedCheckpoint } from './checkpoint.js';
import { inclusionFault, type Inclusion } from './inclusion.js';
import { wronglyNamed, type Salts } from './personal.js';
import { receivedAtOf, verifyChain } from './seal.js';

/** A sealed visit as it leaves the house: every entry, and the seal they end in. */
export interface VisitRecord {
  readonly format: 'decurio-record/2';
  readonly serial: string;
  readonly visitId: string;
  readonly seal: string;
  readonly sealedAt: string;
  readonly evidence: readonly Evidence[];
  /** By which the names in the entries are held against the hashes that the chain covers; none of a name that was erased. */
  readonly salts: Salts;
  /** Where its seal stands in the house's newest checkpoint; left out while there is none of it yet. */
  readonly inclusion?: Inclusion;
}

export type RecordCheck =
  | {
      readonly ok: true;
      readonly entries: number;
      readonly seal: string;
      /** The checkpoint in which its seal stands; null where the record brings none. */
      readonly checkpoint: SignedCheckpoint | null;
    }
  | { readonly ok: false; readonly says: string };

export function makeRecord(evidence: readonly Evidence[], salts: Salts = {}, inclusion?: Inclusion): VisitRecord {
  const [first] = evidence;
  const last = evidence.at(-1);
  if (first?.kind !== 'opened' || last === undefined) throw new Error('a record is made of a whole visit');
  return {
    format: 'decurio-record/2',
    serial: first.data.serial,
    visitId: first.visitId,
    seal: last.hash,
    sealedAt: receivedAtOf(last),
    evidence,
    salts,
    ...(inclusion ? { inclusion } : {}),
  };
}

/**
 * Checks a record by itself: the chain is whole, ends in the seal it names, and its entries could follow one
 * another. Whether this house issued it is for the ledger to say.
 */
export function checkRecord(data: unknown): RecordCheck {
  if (!looksLikeRecord(data))
    return { ok: false, says: 'This is not a Decurio record (format decurio-record/2 or /1).' };
  try {
    const loose = Object.keys(data).find((key) => !COVER.has(key));
    if (loose !== undefined) return { ok: false, says: `The cover says "${loose}", which no seal covers.` };
    const chain = verifyChain(data.evidence, data.seal);
    if (!chain.ok) return { ok: false, says: chain.says };
    const misnamed = wronglyNamed(data.evidence, data.format === 'decurio-record/2' ? data.salts : {});
    if (misnamed) return { ok: false, says: `Entry ${misnamed.seq} names somebody else than was sealed.` };
    const fold = foldVisit(data.evidence);
    if (!fold.ok) return { ok: false, says: `The entries contradict one another: ${fold.problem.message}` };
    const { opened, step } = fold.value;
    if (
      data.evidence[0]?.visitId !== data.visitId ||
      opened.serial !== data.serial ||
      sealedAtOf(data.evidence) !== data.sealedAt
    ) {
      return { ok: false, says: 'The serial, visit or date on the cover is not the one in the entries.' };
    }
    if (step !== null) return { ok: false, says: 'The chain is whole, but the visit was not signed off.' };
    const inclusion = 'inclusion' in data ? data.inclusion : undefined;
    const leaf = { visitId: data.visitId, seq: chain.entries, hash: chain.headHash };
    const fault = inclusion === undefined ? null : inclusionFault(leaf, inclusion);
    if (fault !== null) return { ok: false, says: fault };
    const checkpoint = inclusion === undefined ? null : parseCheckpoint(inclusion.checkpoint);
    return { ok: true, entries: chain.entries, seal: chain.headHash, checkpoint };
  } catch {
    return { ok: false, says: 'The entries of this record are not whole.' };
  }
}

function sealedAtOf(evidence: readonly Evidence[]): string | null {
  const last = evidence.at(-1);
  return last ? receivedAtOf(last) : null;
}

/** Keys of the cover, every one of which is held against the entries, or shows itself. */
const COVER = new Set(['format', 'serial', 'visitId', 'seal', 'sealedAt', 'evidence', 'salts', 'inclusion']);

/** Of before names were kept apart: they stand inside its entries. */
type FirstRecord = Omit<VisitRecord, 'format' | 'salts'> & { readonly format: 'decurio-record/1' };

function looksLikeRecord(data: unknown): data is VisitRecord | FirstRecord {
  if (typeof data !== 'object' || data === null) return false;
  const record = data as Record<string, unknown>;
  const [isFirst, isSecond] = [record['format'] === 'decurio-record/1', record['format'] === 'decurio-record/2'];
  const { salts } = record;
  const hasSalts = typeof salts === 'object' && salts !== null && !Array.isArray(salts);
  return (
    (isFirst ? salts === undefined : isSecond && hasSalts) &&
    typeof record['seal'] === 'string' &&
    Array.isArray(record['evidence'])
  );
}
