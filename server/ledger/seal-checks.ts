import { canonicalJson, checkRecord, shortSeal, type VisitRecord } from '@decurio/core';
import type { SealCheck } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { EvidenceLog } from '../store/entities.js';
import { verifyVisit, type VisitCheck } from './verify-visit.js';

/** Recomputes a visit from its rows and says everything that is not as it was sealed. */
export async function checkSeal({ manager }: DataSource, visitId: string): Promise<SealCheck> {
  const check = await verifyVisit(manager, visitId);
  if (!check) throw new HttpProblem('visitNotFound');
  return sealCheck(check, check.findings);
}

/** Checks a record file by itself, then holds it entry by entry against the ledger, and the ledger against its seal. */
export async function checkRecordFile({ manager }: DataSource, file: unknown): Promise<SealCheck> {
  const own = checkRecord(file);
  if (!own.ok) return { holds: false, says: own.says, findings: [], visitId: null, serial: null, entries: 0, seal: null };
  const record = file as VisitRecord;
  const check = await verifyVisit(manager, record.visitId);
  if (!check?.visit.sealedAt) return { holds: false, says: 'The file is whole, but this ledger knows no such sealed visit.', findings: [], visitId: null, serial: record.serial, entries: own.entries, seal: own.seal };
  const rows = await manager.find(EvidenceLog, { where: { visitId: record.visitId }, order: { seq: 'ASC' } });
  const differs = record.evidence.findIndex((entry, i) => rows[i]?.body !== canonicalJson(entry));
  const against = differs >= 0 ? [`Entry ${differs + 1} of the file is not as it stands in this ledger.`] : rows.length > record.evidence.length ? [`The ledger has ${rows.length} entries, the file ${record.evidence.length}.`] : [];
  return sealCheck(check, [...against, ...check.findings]);
}

function sealCheck({ visit, entries, photographs }: VisitCheck, findings: readonly string[]): SealCheck {
  const [first] = findings;
  const photos = photographs === 0 ? '' : ` and ${photographs} ${photographs === 1 ? 'photograph' : 'photographs'}`;
  return {
    holds: first === undefined,
    says: first === undefined ? `All ${entries} entries${photos} are as they were written, and all that is shown of them follows from them. Seal ${shortSeal(visit.headHash)}.` : `The seal does not hold. ${first}`,
    findings,
    visitId: visit.id,
    serial: visit.serial,
    entries,
    seal: first === undefined ? visit.headHash : null,
  };
}
