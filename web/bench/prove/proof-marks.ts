import { isSettled, type ProofOf } from '@decurio/core';

export type ProofMark = 'shown' | 'left' | 'not' | 'begun' | 'again' | 'due';

/** How a test stands, for its mark in the list. */
export function markOf(proof: ProofOf): ProofMark {
  if (proof.judgement.verdict === 'shows') return 'shown';
  if (proof.left) return 'left';
  if (proof.judgement.verdict === 'doesNot') return 'not';
  if (proof.seen.length > 0) return 'begun';
  return proof.isVoided ? 'again' : 'due';
}

export const MARK_WORDS: Readonly<Record<ProofMark, string>> = {
  shown: 'shows it',
  left: 'left out',
  not: 'does not',
  begun: 'begun',
  again: 'again',
  due: '',
};

/** The test that is due: the one picked, else the first that is not settled, those put off last. */
export function dueOf(proofs: readonly ProofOf[], picked: string | null, later: readonly string[]): ProofOf | null {
  const own = proofs.find(({ test }) => test.id === picked);
  if (own) return own;
  const open = proofs.filter((proof) => !isSettled(proof));
  return open.find(({ test }) => !later.includes(test.id)) ?? open[0] ?? null;
}
