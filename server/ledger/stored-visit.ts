import { hash } from 'node:crypto';
import { canonicalJson, foldVisit, sealEvidence, verifyChain, type Evidence, type VisitState } from '@decurio/core';
import type { EvidenceRow } from '../store/entities.js';
import { namedBy, personalFindings, type PersonalOf } from '../store/personal.js';
import { nameHash, type KeptEntry, type KeptOfVisit } from './kept-of-visits.js';

/** What the rows of a visit say. */
export interface StoredVisit {
  /** As far as the rows can be read. */
  readonly evidence: readonly Evidence[];
  /** Null where they do not fold, or not all can be read. */
  readonly state: VisitState | null;
  readonly findings: readonly string[];
}

/** Recomputes everything that the chain of a visit covers, from its rows. */
export function readStored({ entries, personal }: Pick<KeptOfVisit, 'entries' | 'personal'>): StoredVisit {
  const stored = entries.map(({ entry }) => entry).filter((entry) => entry !== null);
  const evidence = named(personal, stored);
  const unread = entries.find(({ entry }) => entry === null);
  if (unread) return { evidence, state: null, findings: [`Entry ${unread.row.seq} cannot be read any more.`] };
  const asWritten = writtenAsSealed(entries);
  const chain = chainOf(stored, asWritten);
  const findings = [
    ...(chain === null ? [] : [chain]),
    ...entries.flatMap(({ row, entry }) => columnFindings(row, entry, asWritten)),
    ...personalFindings(personal, stored.map(nameHash)),
  ];
  const fold = findings.length === 0 ? foldVisit(evidence) : null;
  if (fold && !fold.ok)
    return { evidence, state: null, findings: [`The entries contradict one another: ${fold.problem.message}`] };
  return { evidence, state: fold?.ok === true ? fold.value : null, findings };
}

const named = (personal: PersonalOf, stored: readonly Evidence[]): readonly Evidence[] =>
  stored.every((entry) => typeof entry.by === 'object' && entry.by !== null) ? namedBy(personal, stored) : stored;

/**
 * Entries whose stored letters, without the hash among them, hash to just that: byte for byte what was sealed, so that
 * nothing of them needs to be written anew to be compared.
 */
function writtenAsSealed(entries: readonly KeptEntry[]): ReadonlySet<Evidence> {
  return new Set(
    entries.flatMap(({ row: { body }, entry }) => {
      if (entry === null || typeof entry.hash !== 'string') return [];
      // After "data" stand only plain fields: the last such place is the entry's own, whatever its data say.
      const own = `,"hash":"${entry.hash}"`;
      const at = body.lastIndexOf(`${own},"id":`);
      if (at === -1) return [];
      const covered = body.slice(0, at) + body.slice(at + own.length);
      return hash('sha256', covered) === entry.hash ? [entry] : [];
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
function columnFindings(row: EvidenceRow, entry: Evidence | null, asWritten: ReadonlySet<Evidence>): readonly string[] {
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
