import { projectVisit } from '@decurio/core';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { lockUnitWithVisit } from './behind-units.js';
import { Units } from './entities.js';
import { inTransaction } from './transaction.js';
import { foldAccepted } from './visit-columns.js';
import { readEvidence } from './evidence-rows.js';

/**
 * What lists show of units that are held, as this release words it. A release may say a thing otherwise than the one
 * before; the entries stay, and a column that kept the old words would look like one that somebody altered.
 */
export async function refreshHeld(source: DataSource): Promise<void> {
  for (const { id } of await source.manager.find(Units, { where: { status: 'held' }, select: { id: true } }))
    await inTransaction(source, async (manager) => {
      const unit = await lockUnitWithVisit(manager, id);
      if (unit.visitId === null) return;
      const { status, heldReason, heldWords } = projectVisit(foldAccepted(await readEvidence(manager, unit.visitId)));
      if (status === 'held') await manager.update(Units, { id }, { heldReason, heldWords });
    }).catch((error: unknown) => {
      // Damaged rows stay as they are: verifying says what is amiss with them.
      if (!(error instanceof HttpProblem)) throw error;
    });
}
