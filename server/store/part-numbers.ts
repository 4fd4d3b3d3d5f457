import { isOfOnePart, type EntryOf, type EvidenceData, type NumberOf, type VisitState } from '@decurio/core';
import type { EntityManager } from 'typeorm';
import { foldAccepted } from './visit-columns.js';
import { readEvidence } from './evidence-rows.js';

/**
 * Keeps a number that was scanned, and says at which other unit it stands too; null where at none, or where the check was
 * of something else. The rows of the number are locked, so that of two stands that scan one pack the later one is told.
 */
export async function clashOf(
  manager: EntityManager,
  unitId: string,
  { visitId, data }: EntryOf<'checkMade'>,
): Promise<Omit<EvidenceData['numberClash'], 'cause'> | null> {
  const of = numberAsked(foldAccepted(await readEvidence(manager, visitId)), data.check);
  const number = data.text.trim();
  if (of === null) return null;
  if (number === '') {
    await manager.query('DELETE FROM part_number WHERE unitId = ? AND part = ?', [unitId, of]);
    return null;
  }
  await manager.query(
    'INSERT INTO part_number (unitId, part, number, at) VALUES (?, ?, ?, UTC_TIMESTAMP(3)) ON DUPLICATE KEY UPDATE number = VALUES(number), at = VALUES(at)',
    [unitId, of, number],
  );
  if (!isOfOnePart(of)) return null;
  const [other] = await manager.query<{ serial: string }[]>(
    "SELECT u.serial FROM part_number p JOIN unit u ON u.id = p.unitId WHERE p.part = ? AND p.number = ? AND p.unitId <> ? AND u.status <> 'withdrawn' ORDER BY p.at DESC LIMIT 1 FOR UPDATE",
    [of, number, unitId],
  );
  return other ? { of, number, serial: other.serial } : null;
}

function numberAsked({ opened }: VisitState, checkId: string): NumberOf | null {
  const asks = opened.bench?.checks?.find(({ id }) => id === checkId)?.asks;
  return asks?.kind === 'number' ? asks.of : null;
}
