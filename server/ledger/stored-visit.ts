import { canonicalJson, foldVisit, verifyChain, type Evidence, type VisitState } from '@decurio/core';
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
  const chain = chainOf(stored);
  const findings = [
    ...(chain === null ? [] : [chain]),
    ...rows.flatMap((row, i) => columnFindings(row, stored[i])),
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

function chainOf(evidence: readonly Evidence[]): string | null {
  try {
    const chain = verifyChain(evidence);
    return chain.ok ? null : chain.says;
  } catch {
    return 'An entry holds what no entry can hold.';
  }
}

/** What stands beside an entry's body, and the body's own letters. */
function columnFindings(row: EvidenceRow, entry: Evidence | undefined): readonly string[] {
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
  return row.body === canonicalJson(entry) ? moved : [...moved, `Entry ${row.seq} is not written as it was sealed.`];
}
