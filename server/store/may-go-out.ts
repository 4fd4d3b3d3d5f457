import { foldHandover, goOut } from '@decurio/core';
import type { MayGoOutView } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Visits } from './entities.js';
import { readHandover } from './handovers.js';
import { findUnit } from './units.js';

/** Whether a unit may go out as it stands, for whoever hires it out. Throws `unitNotFound`. */
export async function mayGoOut(source: DataSource, serial: string): Promise<MayGoOutView> {
  const { serial: known, status, visitId } = await findUnit(source, serial);
  const visit = visitId === null ? null : await source.manager.findOneBy(Visits, { id: visitId });
  const sealed = status === 'sealed' && visit && visit.sealedAt !== null ? visit : null;
  const handover = sealed && foldHandover(sealed.headHash, await readHandover(source.manager, sealed.id));
  if (handover && !handover.ok) throw new HttpProblem('recordDamaged', { message: handover.problem.message });
  const { may, reason, says } = goOut(status, handover ? handover.value : null);
  return {
    serial: known,
    mayGoOut: may,
    reason,
    says,
    sealedAt: sealed?.sealedAt?.toISOString() ?? null,
    seal: sealed?.headHash ?? null,
  };
}
