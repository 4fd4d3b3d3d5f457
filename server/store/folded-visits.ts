import { verifyChain, type Evidence, type Fold } from '@decurio/core';
import { LRUCache } from 'lru-cache';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import type { VisitRow } from './entities.js';
import { readEvidence } from './evidence-rows.js';
import { foldAllAccepted } from './visit-columns.js';

/** A visit as its entries fold, with its opening. */
export interface FoldedVisit {
  readonly opening: Evidence;
  readonly fold: Fold;
}

const MOST_KEPT = 400;

/**
 * By the hash of the newest entry, which stands for every entry before it: what was folded once is right for as long as
 * the visit's row, read under its lock, names that hash, whichever process wrote the entry. What a transaction that
 * went wrong left here is named by no row.
 */
const kept = new LRUCache<string, FoldedVisit>({ max: MOST_KEPT });

/** A visit whose row is locked, up to its newest entry. */
export const foldedVisit = async (manager: EntityManager, visit: VisitRow): Promise<FoldedVisit> =>
  kept.get(visit.headHash) ?? foldOf(await readEvidence(manager, visit.id));

/** The same from the rows as they stand, each entry held against the one before it: what is signed was not altered meanwhile. */
export async function provenVisit(manager: EntityManager, { id, headHash }: VisitRow): Promise<FoldedVisit> {
  const evidence = await readEvidence(manager, id);
  if (!verifyChain(evidence, headHash).ok) throw new HttpProblem('recordDamaged');
  return foldOf(evidence);
}

/** Keeps what a visit folds to with its newest entry. */
export const keepFold = (folded: FoldedVisit, newest: Evidence): void => void kept.set(newest.hash, folded);

/** What is kept here names persons: nothing of it outlives a name that was erased. */
export const forgetFolds = (): void => kept.clear();

function foldOf(evidence: readonly Evidence[]): FoldedVisit {
  const [opening] = evidence;
  if (!opening) throw new HttpProblem('recordDamaged');
  return { opening, fold: foldAllAccepted(evidence) };
}
