import { randomUUID } from 'node:crypto';
import { factsOf, whyAnew, type Evidence } from '@decurio/core';
import type { NewEvidence } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import type { HttpProblem } from '../problems.js';
import { catchUpUnit } from './behind-units.js';
import { Orders, Units, Visits } from './entities.js';
import { noticeUnit, noticeVisit } from './notice-visits.js';
import { clashOf } from './part-numbers.js';
import { reviseUnit } from './revise-units.js';
import { oddOf } from './wheel-families.js';
import { inTransaction } from './transaction.js';
import { readEvidence } from './evidence-rows.js';
import { appendAllIn, appendIn, isOfVisitAlone, TwinFound, type Appended } from './append-entries.js';
import { appendTogether } from './append-together.js';
import type { Writer } from './writer.js';

/** What the server writes because of an entry that it has just taken. */
const FOLLOW_UPS: ReadonlySet<Evidence['kind']> = new Set(['setupRevised', 'outOfFamily', 'numberClash', 'noticed']);

export interface Taken {
  readonly entry: Evidence;
  /** Entries that the server wrote because of it. */
  readonly followed: readonly Evidence[];
  /** It was there already: sent twice. */
  readonly isReplay: boolean;
}

export interface AllTaken {
  readonly taken: readonly Taken[];
  /** Why the one after these was not taken; none of those behind it was. */
  readonly refused: HttpProblem | null;
}

/**
 * Takes entries from a bench in one transaction, up to the first that is refused, with what follows from each: what was
 * found decides what must be keyed.
 */
export async function appendEvidence(
  source: DataSource,
  unitId: string,
  visitId: string,
  drafts: readonly NewEvidence[],
  writer: Writer,
): Promise<AllTaken> {
  const first = await takeAll(source, unitId, visitId, drafts, writer);
  if (first.refused?.code === 'noticeUnseen') await noticeUnit(source, unitId, writer);
  if (first.refused?.code !== 'orderMoved') return first;
  // Left behind by an act on its order: it follows first. Where that changes nothing the entry stands as it was sent.
  await catchUpUnit(source, unitId);
  const then = await takeAll(source, unitId, visitId, drafts.slice(first.taken.length), writer);
  return { taken: [...first.taken, ...then.taken], refused: then.refused };
}

async function takeAll(
  source: DataSource,
  unitId: string,
  visitId: string,
  drafts: readonly NewEvidence[],
  writer: Writer,
): Promise<AllTaken> {
  const isQuick = drafts.every((draft) => isOfVisitAlone(draft) && !mayFollow(draft));
  const quick = isQuick ? await appendTogether(source, { unitId, visitId, drafts, writer }).catch(nullIfTwin) : null;
  if (quick) return { taken: quick.appended.map((each) => ({ ...each, followed: [] })), refused: quick.refused };
  return inTransaction(source, async (manager) => {
    const taken: Taken[] = [];
    for (const part of upToFollowed(drafts)) {
      const { appended, refused } = await appendAllIn(manager, unitId, visitId, part, writer);
      for (const each of appended) taken.push({ ...each, followed: await whatFollows(manager, unitId, each, writer) });
      if (refused) return { taken, refused };
    }
    return { taken, refused: null };
  });
}

/** Some were sent before: they are added where those are looked up. */
function nullIfTwin(error: unknown): null {
  if (error instanceof TwinFound) return null;
  throw error;
}

const mayFollow = ({ kind }: NewEvidence): boolean =>
  kind === 'calibrated' || kind === 'checkMade' || kind === 'released' || factsOf(kind).setupAnew !== null;

/** Entries in stretches, each of which ends with one that others may follow from. */
function upToFollowed(drafts: readonly NewEvidence[]): readonly (readonly NewEvidence[])[] {
  const parts: NewEvidence[][] = [[]];
  for (const draft of drafts) {
    parts.at(-1)?.push(draft);
    if (mayFollow(draft)) parts.push([]);
  }
  return parts.filter((part) => part.length > 0);
}

/** What the server writes because of an entry; of one that was sent twice, what it wrote then. */
async function whatFollows(
  manager: EntityManager,
  unitId: string,
  { entry, isReplay }: Appended,
  writer: Writer,
): Promise<readonly Evidence[]> {
  const why = whyAnew(entry);
  if (why === null && entry.kind !== 'calibrated' && entry.kind !== 'checkMade') return [];
  if (!isReplay && why !== null) await workOutAnew(manager, unitId, entry, why, writer);
  if (!isReplay && entry.kind === 'calibrated') await holdAgainstFamily(manager, unitId, entry, writer);
  if (!isReplay && entry.kind === 'checkMade') await holdOnClash(manager, unitId, entry, writer);
  return (await readEvidence(manager, entry.visitId, entry.seq)).filter(
    (later) => FOLLOW_UPS.has(later.kind) && 'cause' in later.data && later.data.cause === entry.id,
  );
}

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
