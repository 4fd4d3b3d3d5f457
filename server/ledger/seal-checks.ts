import { createHash } from 'node:crypto';
import { shortSeal } from '@decurio/core';
import type { SealCheck } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import type { RecordRead } from '../reading/worker.js';
import { EvidenceLog } from '../store/entities.js';
import { verifyVisit, type VisitCheck } from './verify-visit.js';

/** Recomputes a visit from its rows and says everything that is not as it was sealed. */
export async function checkSeal({ manager }: DataSource, visitId: string): Promise<SealCheck> {
  const check = await verifyVisit(manager, visitId);
  if (!check) throw new HttpProblem('visitNotFound');
  return sealCheck(check, check.findings);
}

/** Holds a record file that was read and checked by itself against the ledger, entry by entry, and the ledger against its seal. */
export async function checkRecordFile({ manager }: DataSource, read: RecordRead): Promise<SealCheck> {
  if (!read.ok)
    return { holds: false, says: read.says, findings: [], visitId: null, serial: null, entries: 0, seal: null };
  const { visitId, serial, entries, seal, bodyHashes } = read;
  const check = isUuid(visitId) ? await verifyVisit(manager, visitId) : null;
  if (!check?.visit.sealedAt)
    return {
      holds: false,
      says: 'The file is whole, but this ledger knows no such sealed visit.',
      findings: [],
      visitId: null,
      serial,
      entries,
      seal,
    };
  const rows = await manager.find(EvidenceLog, { where: { visitId }, order: { seq: 'ASC' } });
  const differs = bodyHashes.findIndex((hash, i) => hash !== sha256(rows[i]?.body ?? ''));
  const against =
    differs >= 0
      ? [`Entry ${differs + 1} of the file is not as it stands in this ledger.`]
      : rows.length > bodyHashes.length
        ? [`The ledger has ${rows.length} entries, the file ${bodyHashes.length}.`]
        : [];
  return sealCheck(check, [...against, ...check.findings]);
}

const isUuid = (text: string): boolean => /^[0-9a-f-]{36}$/.test(text);
const sha256 = (text: string): string => createHash('sha256').update(text, 'utf8').digest('hex');

function sealCheck({ visit, entries, photographs }: VisitCheck, findings: readonly string[]): SealCheck {
  const [first] = findings;
  const photos = photographs === 0 ? '' : ` and ${photographs} ${photographs === 1 ? 'photograph' : 'photographs'}`;
  return {
    holds: first === undefined,
    says:
      first === undefined
        ? `All ${entries} entries${photos} are as they were written, and all that is shown of them follows from them. Seal ${shortSeal(visit.headHash)}.`
        : first,
    findings,
    visitId: visit.id,
    serial: visit.serial,
    entries,
    seal: first === undefined ? visit.headHash : null,
  };
}
