import { randomUUID } from 'node:crypto';
import { factsOf, type Evidence } from '@decurio/core';
import type { NewEvidence } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { catchUpUnit } from './behind-units.js';
import { Orders, Units, Visits } from './entities.js';
import { noticeUnit, noticeVisit } from './notice-visits.js';
import { clashOf } from './part-numbers.js';
import { reviseUnit } from './revise-units.js';
import { oddOf } from './wheel-families.js';
import { inTransaction } from './transaction.js';
import { readEvidence } from './evidence-rows.js';
import { appendIn, type Writer } from './visits.js';

/** What the server writes because of an entry that it has just taken. */
const FOLLOW_UPS: ReadonlySet<Evidence['kind']> = new Set(['setupRevised', 'outOfFamily', 'numberClash', 'noticed']);

export interface Taken {
  readonly entry: Evidence;
  /** Entries that the server wrote because of it. */
  readonly followed: readonly Evidence[];
  /** It was there already: sent twice. */
  readonly isReplay: boolean;
}

/** Why the setup is worked out anew by an entry; a code that a lead let stand counts as locked from then on. */
const whyAnew = (entry: Evidence): string | null =>
  entry.kind === 'released' && entry.data.decision?.way === 'accept'
    ? 'Codes let stand as they show'
    : factsOf(entry.kind).setupAnew;

/** Takes an entry from a bench, with what follows from it: what was found decides what must be keyed. */
export async function appendEvidence(
  source: DataSource,
  unitId: string,
  visitId: string,
  draft: NewEvidence,
  writer: Writer,
): Promise<Taken> {
  try {
    return await take(source, unitId, visitId, draft, writer);
  } catch (error) {
    if (error instanceof HttpProblem && error.code === 'noticeUnseen') await noticeUnit(source, unitId, writer);
    if (!(error instanceof HttpProblem) || error.code !== 'orderMoved') throw error;
    // Left behind by an act on its order: it follows first. Where that changes nothing the entry stands as it was sent.
    await catchUpUnit(source, unitId);
    return take(source, unitId, visitId, draft, writer);
  }
}

const take = (
  source: DataSource,
  unitId: string,
  visitId: string,
  draft: NewEvidence,
  writer: Writer,
): Promise<Taken> =>
  inTransaction(source, async (manager) => {
    const { entry, isReplay } = await appendIn(manager, unitId, visitId, draft, writer);
    const why = whyAnew(entry);
    const mayFollow = entry.kind === 'calibrated' || entry.kind === 'checkMade';
    if (why === null && !mayFollow) return { entry, followed: [], isReplay };
    if (!isReplay && why !== null) await workOutAnew(manager, unitId, entry, why, writer);
    if (!isReplay && entry.kind === 'calibrated') await holdAgainstFamily(manager, unitId, entry, writer);
    if (!isReplay && entry.kind === 'checkMade') await holdOnClash(manager, unitId, entry, writer);
    const followed = (await readEvidence(manager, visitId, entry.seq)).filter(
      (later) => FOLLOW_UPS.has(later.kind) && 'cause' in later.data && later.data.cause === entry.id,
    );
    return { entry, followed, isReplay };
  });

/** A unit that was run is held against those of its family: one that reads otherwise is told so in its own log. */
async function holdAgainstFamily(
  manager: EntityManager,
  unitId: string,
  entry: Evidence,
  writer: Writer,
): Promise<void> {
  const odd = await oddOf(manager, entry);
  if (odd)
    await appendIn(
      manager,
      unitId,
      entry.visitId,
      {
        id: randomUUID(),
        seq: entry.seq + 1,
        kind: 'outOfFamily',
        at: new Date().toISOString(),
        data: { ...odd, cause: entry.id },
      },
      writer,
    );
}

/** A number that was scanned at another unit too holds this one. */
async function holdOnClash(
  manager: EntityManager,
  unitId: string,
  entry: Extract<Evidence, { readonly kind: 'checkMade' }>,
  writer: Writer,
): Promise<void> {
  const clash = await clashOf(manager, unitId, entry);
  if (clash)
    await appendIn(
      manager,
      unitId,
      entry.visitId,
      {
        id: randomUUID(),
        seq: entry.seq + 1,
        kind: 'numberClash',
        at: new Date().toISOString(),
        data: { ...clash, cause: entry.id },
      },
      writer,
    );
  // By its pack too a unit may be named.
  const unit = await manager.findOneByOrFail(Units, { id: unitId });
  await noticeVisit(manager, unit, entry.visitId, writer, entry);
}

async function workOutAnew(
  manager: EntityManager,
  unitId: string,
  entry: Evidence,
  why: string,
  writer: Writer,
): Promise<void> {
  const unit = await manager.findOneByOrFail(Units, { id: unitId });
  const order = await manager.findOneByOrFail(Orders, { id: unit.orderId });
  const visit = await manager.findOneByOrFail(Visits, { id: entry.visitId });
  if (visit.lastSeq !== entry.seq) return;
  await reviseUnit(manager, order, unit, { why, writer, sealedUnits: 'leave', cause: entry.id });
}
