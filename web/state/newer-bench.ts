import { copyWithStructuralSharing } from '@reduxjs/toolkit/query';
import type { BenchView } from '@decurio/contract';

/**
 * What the bench shows after an answer. A log only grows: an answer that set out before an entry was taken must not take
 * it from the screen again. What is as it was stays the same object: nothing is planned or drawn anew for it.
 */
export function newerBench(known: BenchView, answer: BenchView): BenchView {
  const isOlder =
    known.evidence[0]?.visitId === answer.evidence[0]?.visitId && known.evidence.length > answer.evidence.length;
  return copyWithStructuralSharing(known, isOlder ? { ...answer, evidence: known.evidence } : answer);
}
