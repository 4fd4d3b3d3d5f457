import { HANDOVER_PERSONAL, type Evidence, type HandoverEntry } from '@decurio/core';
import { In, type EntityManager } from 'typeorm';
import {
  SealHeads,
  Units,
  Visits,
  type EvidenceRow,
  type SealHeadRow,
  type UnitRow,
  type VisitRow,
} from '../store/entities.js';
import { apartInHandover, personalOf, type PersonalOf } from '../store/personal.js';

/** An entry as its row holds it. */
export interface KeptEntry {
  readonly row: EvidenceRow;
  /** Null where its letters are no JSON object any more. */
  readonly entry: Evidence | null;
}

/** What a question of the ledger finds of a visit. */
export interface KeptAnswers {
  readonly className: string;
  readonly worstKmh: number | null;
  readonly accepted: number;
  readonly packId: string | null;
  readonly codes: readonly AskedCode[];
  readonly proofs: readonly AskedProof[];
}

export interface AskedCode {
  readonly label: string;
  readonly fn: string;
  readonly raw: number;
  readonly value: number | null;
  readonly word: string | null;
}

export interface AskedProof {
  readonly test: string;
  readonly verdict: string;
}

/** Everything that is kept of a visit but its photographs, none of it trusted. */
export interface KeptOfVisit {
  readonly visit: VisitRow;
  readonly entries: readonly KeptEntry[];
  /** What was handed over, as stored; names stand in `personal`. Null where it cannot be read any more. */
  readonly handover: readonly HandoverEntry[] | null;
  /** Null where it is gone. */
  readonly unit: UnitRow | null;
  readonly marks: readonly SealHeadRow[];
  /** Null where nothing was written for questions. */
  readonly answers: KeptAnswers | null;
  readonly personal: PersonalOf;
}

/**
 * Reads what is kept of those of some visits that there are, by id, as it all stood at one moment, whoever goes on writing
 * meanwhile; by few statements however many they are.
 */
export const keptOfVisits = (manager: EntityManager, ids: readonly string[]): Promise<readonly KeptOfVisit[]> =>
  manager.transaction('REPEATABLE READ', (atOnce) => readKept(atOnce, ids));

async function readKept(manager: EntityManager, ids: readonly string[]): Promise<readonly KeptOfVisit[]> {
  const visits = await manager.find(Visits, { where: { id: In(ids) }, order: { id: 'ASC' } });
  if (visits.length === 0) return [];
  const [rows, handovers, marks, units, answersOf] = await Promise.all([
    manager.query<EvidenceRow[]>(
      'SELECT id, visitId, seq, kind, body, receivedAt FROM evidence WHERE visitId IN (?) ORDER BY visitId, seq',
      [ids],
    ),
    manager.query<{ visitId: string; body: string }[]>(
      'SELECT visitId, body FROM handover_entry WHERE visitId IN (?) ORDER BY visitId, seq',
      [ids],
    ),
    manager.find(SealHeads, { where: { visitId: In(ids) }, order: { n: 'ASC' } }),
    manager.findBy(Units, { id: In([...new Set(visits.map(({ unitId }) => unitId))]) }),
    keptAnswers(manager, ids),
  ]);
  const entriesOf = byVisit(rows, (row): KeptEntry => ({ row, entry: parsed<Evidence>(row.body) }));
  const handoverOf = byVisit(handovers, ({ body }) => handoverIn(body));
  const marksOf = byVisit(marks, (mark) => mark);
  const unitOf = new Map(units.map((unit) => [unit.id, unit]));
  const personal = await personalOf(manager, [
    ...[...entriesOf.values()].flat().map(({ entry }) => nameHash(entry)),
    ...apartInHandover([...handoverOf.values()].flat().filter((entry) => entry !== null)),
  ]);
  return visits.map((visit) => {
    const handover = handoverOf.get(visit.id) ?? [];
    return {
      visit,
      entries: entriesOf.get(visit.id) ?? [],
      handover: handover.every((entry) => entry !== null) ? handover : null,
      unit: unitOf.get(visit.unitId) ?? null,
      marks: marksOf.get(visit.id) ?? [],
      answers: answersOf.get(visit.id) ?? null,
      personal,
    };
  });
}

async function keptAnswers(manager: EntityManager, ids: readonly string[]): Promise<ReadonlyMap<string, KeptAnswers>> {
  type Of<T> = T & { readonly visitId: string };
  const [visits, codes, proofs] = await Promise.all([
    manager.query<Of<Omit<KeptAnswers, 'codes' | 'proofs'>>[]>(
      'SELECT visitId, className, worstKmh, accepted, packId FROM left_visit WHERE visitId IN (?)',
      [ids],
    ),
    manager.query<Of<AskedCode>[]>('SELECT visitId, label, fn, raw, value, word FROM left_code WHERE visitId IN (?)', [
      ids,
    ]),
    manager.query<Of<AskedProof>[]>('SELECT visitId, test, verdict FROM left_proof WHERE visitId IN (?)', [ids]),
  ]);
  const [codesOf, proofsOf] = [byVisit(codes, (code) => code), byVisit(proofs, (proof) => proof)];
  return new Map(
    visits.map((visit) => [
      visit.visitId,
      { ...visit, codes: codesOf.get(visit.visitId) ?? [], proofs: proofsOf.get(visit.visitId) ?? [] },
    ]),
  );
}

function byVisit<R extends { readonly visitId: string }, T>(rows: readonly R[], as: (row: R) => T): Map<string, T[]> {
  const of = new Map<string, T[]>();
  for (const row of rows) {
    const own = of.get(row.visitId);
    if (own) own.push(as(row));
    else of.set(row.visitId, [as(row)]);
  }
  return of;
}

function parsed<T extends object>(body: string): T | null {
  try {
    const value: unknown = JSON.parse(body);
    return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as T) : null;
  } catch {
    return null;
  }
}

/** Null also where it is of no kind that is known, or of nobody. */
function handoverIn(body: string): HandoverEntry | null {
  const entry = parsed<Partial<HandoverEntry>>(body);
  const isEntry =
    entry?.kind !== undefined &&
    Object.hasOwn(HANDOVER_PERSONAL, entry.kind) &&
    [entry.by, entry.data].every((each) => typeof each === 'object' && each !== null);
  return isEntry ? (entry as HandoverEntry) : null;
}

/** Entries that were damaged may have no writer at all. */
export const nameHash = (entry: Evidence | null): string | undefined =>
  (entry?.by as Evidence['by'] | undefined)?.nameSha256;
