import { foldAll, receivedAtOf, type Evidence, type Fold, type VisitState } from '@decurio/core';
import type { VisitRow } from './entities.js';

/** What lists and the ledger read of a visit: all of it follows from its entries. */
export type VisitColumns = Omit<VisitRow, 'id' | 'unitId'>;

/** @param state what the entries fold to */
export function visitColumns(evidence: readonly Evidence[], state: VisitState): VisitColumns {
  const [first, last] = [evidence[0], evidence.at(-1)];
  if (!first || !last) throw new Error('a visit has entries');
  const { serial, order, versions } = state.opened;
  const isSealed = state.step === null && state.withdrawn === null;
  return {
    serial,
    typeName: versions.type.name,
    orderNumber: order.number,
    customer: order.customer,
    mapId: versions.map.id,
    mapVersion: versions.map.version,
    lastSeq: last.seq,
    headHash: last.hash,
    openedAt: new Date(receivedAtOf(first)),
    sealedAt: isSealed ? new Date(receivedAtOf(last)) : null,
    sealedBy: isSealed ? last.by.name : null,
  };
}

/** The state of entries that were accepted; that they do not fold is a fault of ours. */
export const foldAccepted = (evidence: readonly Evidence[]): VisitState => foldAllAccepted(evidence).state;

/** The same, so that one more entry may follow. */
export function foldAllAccepted(evidence: readonly Evidence[]): Fold {
  const outcome = foldAll(evidence);
  if (!outcome.ok) throw new Error(`accepted evidence does not fold: ${outcome.problem.message}`);
  return outcome.value;
}
