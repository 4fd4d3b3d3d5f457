import { createHash } from 'node:crypto';
import { canonicalJson, foldVisit, sealEvidence, verifyChain, type Evidence, type VisitState } from '@decurio/core';
import type { EntityManager } from 'typeorm';
import { EvidenceLog, type EvidenceRow } from '../store/entities.js';
import { personalFindings, withNames } from '../store/personal.js';

/** What the rows of a visit say, read without trusting any of them. */
export interface StoredVisit {
  readonly rows: readonly EvidenceRow[];
  /** As far as the rows can be read. */
  readonly evidence: readonly Evidence[];
  /** Null where they do not fold, or not all can be read. */
  readonly state: VisitState | null;
  readonly findings: readonly string[];
}

/** Reads the rows of a visit and recomputes everything that its chain covers. */
export async function readStored(manager: EntityManager, visitId: string): Promise<StoredVisit> {
  const rows = await manager.find(EvidenceLog, { where: { visitId }, order: { seq: 'ASC' } });
  const read = rows.map((row) => parsed(row.body));
  const unread = rows[read.indexOf(null)];
  const stored = read.filter((entry) => entry !== null);
  const evidence = await named(manager, stored);
  if (unread) return { rows, evidence, state: null, findings: [`Entry ${unread.seq} cannot be read any more.`] };
  const asWritten = writtenAsSealed(rows, read);
  const chain = chainOf(stored, asWritten);
  const findings = [
    ...(chain === null ? [] : [chain]),
    ...rows.flatMap((row, i) => columnFindings(row, stored[i], asWritten)),
    ...(await personalFindings(
      manager,
      stored.map((entry) => nameHash(entry)),
    )),
  ];
  const fold = findings.length === 0 ? foldVisit(evidence) : null;
  if (fold && !fold.ok)
    return { rows, evidence, state: null, findings: [`The entries contradict one another: ${fold.problem.message}`] };
  return { rows, evidence, state: fold?.ok === true ? fold.value : null, findings };
}

/** Entries that were damaged may have no writer at all. */
const nameHash = ({ by }: Evidence): string | undefined => (by as Evidence['by'] | undefined)?.nameSha256;

const named = async (manager: EntityManager, stored: readonly Evidence[]): Promise<readonly Evidence[]> =>
  stored.every((entry) => typeof entry.by === 'object' && entry.by !== null) ? withNames(manager, stored) : stored;

function parsed(body: string): Evidence | null {
  try {
    const value: unknown = JSON.parse(body);
    return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Evidence) : null;
  } catch {
    return null;
  }
}

/**
 * Entries whose stored letters, without the hash among them, hash to just that: byte for byte what was sealed, so that
 * nothing of them needs to be written anew to be compared.
 */
function writtenAsSealed(rows: readonly EvidenceRow[], read: readonly (Evidence | null)[]): ReadonlySet<Evidence> {
  return new Set(
    read.filter((entry, i): entry is Evidence => {
      if (entry === null || typeof entry.hash !== 'string') return false;
      const body = rows[i]?.body ?? '';
      // After "data" stand only plain fields: the last such place is the entry's own, whatever its data say.
      const own = `,"hash":"${entry.hash}"`;
      const at = body.lastIndexOf(`${own},"id":`);
      if (at === -1) return false;
      const covered = createHash('sha256')
        .update(body.slice(0, at))
        .update(body.slice(at + own.length));
      return covered.digest('hex') === entry.hash;
    }),
  );
}

function chainOf(evidence: readonly Evidence[], asWritten: ReadonlySet<Evidence>): string | null {
  try {
    const chain = verifyChain(evidence, undefined, (entry, before) =>
      asWritten.has(entry) ? entry.hash : sealEvidence(entry, before).hash,
    );
    return chain.ok ? null : chain.says;
  } catch {
    return 'An entry holds what no entry can hold.';
  }
}

/** What stands beside an entry's body, and the body's own letters. */
function columnFindings(
  row: EvidenceRow,
  entry: Evidence | undefined,
  asWritten: ReadonlySet<Evidence>,
): readonly string[] {
  if (!entry) return [];
  const columns: readonly (readonly [string, unknown, unknown])[] = [
    ['id', row.id, entry.id],
    ['visit', row.visitId, entry.visitId],
    ['number', row.seq, entry.seq],
    ['kind', row.kind, entry.kind],
    ...(entry.receivedAt === undefined
      ? []
      : [['time of arrival', row.receivedAt.toISOString(), entry.receivedAt] as const]),
  ];
  const moved = columns
    .filter(([, column, sealed]) => column !== sealed)
    .map(([name]) => `Entry ${row.seq}: its ${name} beside it is not the one that was sealed.`);
  return asWritten.has(entry) || row.body === canonicalJson(entry)
    ? moved
    : [...moved, `Entry ${row.seq} is not written as it was sealed.`];
}
