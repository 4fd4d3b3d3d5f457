import {
  admit,
  hashOf,
  receivedAtOf,
  sealedWithText,
  type Entry,
  type EntryOf,
  type Evidence,
  type EvidenceKind,
  type Fold,
  type VisitState,
  type WrittenKind,
} from '@decurio/core';
import type { NewEvidence } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { guardAcceptance } from './acceptance.js';
import { guardCalibration } from './calibration.js';
import { disputeFrom } from './disputes.js';
import type { UnitRow, VisitRow } from './entities.js';
import { guardTime } from './entry-time.js';
import { entriesInserted, entriesOfIds, readEvidence, type Sealed } from './evidence-rows.js';
import { foldedVisit, keepFold, provenVisit } from './folded-visits.js';
import { writeLeft } from './left-rows.js';
import { bothLocked, lockedRows, lockVisitWithUnit, type LockedRows } from './locked-rows.js';
import { keepOvershoot } from './overshoots.js';
import { guardPhoto } from './photos.js';
import { projectionOf } from './project-rows.js';
import { markHeads } from './seal-heads.js';
import { guardSignOff } from './sign-off.js';
import { fitSpare } from './spares.js';
import { runAll } from './statement.js';
import { codeOf, inTwoTrips } from './transaction.js';
import { visitColumns } from './visit-columns.js';
import { keepRun } from './wheel-families.js';
import { receivedBy, type Writer } from './writer.js';

export interface Appended {
  readonly entry: Evidence;
  /** It was there already: sent twice. */
  readonly isReplay: boolean;
}

/** `kind` and `data` belong together; entries that the server writes itself come this way too. */
export type Draft =
  | NewEvidence
  | { [K in Exclude<EvidenceKind, WrittenKind | 'opened'>]: OwnDraft<K> }[Exclude<
      EvidenceKind,
      WrittenKind | 'opened'
    >];
type OwnDraft<K extends EvidenceKind> = Pick<EntryOf<K>, 'id' | 'seq' | 'kind' | 'at' | 'data'>;

/** Of entries that were thought to be new one was there: the whole is to be done again, with what is there looked up first. */
export class TwinFound extends Error {}

/** Adds an entry to a visit, or gives back the one that was added under the same id before. */
export async function appendIn(
  manager: EntityManager,
  unitId: string,
  visitId: string,
  draft: Draft,
  writer: Writer,
): Promise<Appended> {
  const hand = await take(manager, unitId, visitId, [draft.id]);
  const appended = await add(manager, hand, draft, writer);
  await put(manager, hand);
  return appended;
}

/** Whether entries are thought to be new, or some may have been sent before. */
export type Thought = 'new' | 'maybeThere';

export interface AllAppended {
  readonly appended: readonly Appended[];
  /** Why the one after these was not taken; none of those behind it was. */
  readonly refused: HttpProblem | null;
}

/**
 * Adds entries one after another, in one go, up to the first that is refused.
 * @throws TwinFound where one is there that was thought to be new
 */
export async function appendAllIn(
  manager: EntityManager,
  unitId: string,
  visitId: string,
  drafts: readonly Draft[],
  writer: Writer,
  thought: Thought,
): Promise<AllAppended> {
  const hand = await take(manager, unitId, visitId, thought === 'new' ? null : drafts.map(({ id }) => id));
  const all = await addAll(manager, hand, drafts, writer);
  await put(manager, hand);
  return all;
}

/** Kinds of which more is decided or kept than the visit itself says. */
const MORE_THAN_THE_VISIT: ReadonlySet<EvidenceKind> = new Set([
  'signedOff',
  'released',
  'calibrated',
  'wheelFitted',
  'photographed',
  'partReplaced',
  'proved',
  'undone',
]);

export const isOfVisitAlone = ({ kind }: Draft): boolean => !MORE_THAN_THE_VISIT.has(kind);

/**
 * The same for entries that are of the visit alone, in two trips to the database: what is needed to decide comes with the
 * locks, and what was decided is written with the end of the transaction.
 */
export const appendAll = (
  source: DataSource,
  unitId: string,
  visitId: string,
  drafts: readonly Draft[],
  writer: Writer,
): Promise<AllAppended> =>
  inTwoTrips(source, bothLocked(visitId), async (manager, rows) => {
    const hand = inHand(lockedRows(rows, unitId), null);
    const result = await addAll(manager, hand, drafts, writer);
    const { fold, opening, newest } = hand;
    if (!fold || !opening || !newest) return { result, statements: [] };
    return {
      result,
      statements: [
        entriesInserted(hand.unwritten),
        ...projectionOf(hand.unit, fold.state, { was: hand.visit, is: visitColumns([opening, newest], fold.state) }),
      ],
      onceCommitted: () => keepFold({ opening, fold }, newest),
    };
  }).catch((error: unknown) => {
    throw codeOf(error) === TAKEN ? new TwinFound() : error;
  });

async function addAll(
  manager: EntityManager,
  hand: VisitInHand,
  drafts: readonly Draft[],
  writer: Writer,
): Promise<AllAppended> {
  const appended: Appended[] = [];
  for (const draft of drafts) {
    try {
      appended.push(await add(manager, hand, draft, writer));
    } catch (error) {
      if (!(error instanceof HttpProblem)) throw error;
      // What is refused may be refused because it was taken before.
      const ids = drafts.map(({ id }) => id);
      if (hand.twins === null && (await entriesOfIds(manager, ids)).size > 0) throw new TwinFound();
      return { appended, refused: error };
    }
  }
  return { appended, refused: null };
}

/** A visit whose rows are locked, with the entries that are still to be written. */
interface VisitInHand {
  readonly visit: VisitRow;
  readonly unit: UnitRow;
  /** Entries that were sent and are there already, by id; null where none is thought to be. */
  readonly twins: ReadonlyMap<string, Evidence> | null;
  /** Null until it is needed: an entry that was taken before needs none. */
  opening: Evidence | null;
  fold: Fold | null;
  lastSeq: number;
  headHash: string;
  newest: Evidence | null;
  readonly unwritten: Sealed[];
}

/** @param sent ids that may be there already; null where none is thought to be */
async function take(
  manager: EntityManager,
  unitId: string,
  visitId: string,
  sent: readonly string[] | null,
): Promise<VisitInHand> {
  const rows = await lockVisitWithUnit(manager, unitId, visitId);
  return inHand(rows, sent === null ? null : await entriesOfIds(manager, sent));
}

const inHand = ({ visit, unit }: LockedRows, twins: VisitInHand['twins']): VisitInHand => ({
  visit,
  unit,
  twins,
  opening: null,
  fold: null,
  lastSeq: visit.lastSeq,
  headHash: visit.headHash,
  newest: null,
  unwritten: [],
});

/** Decides on one entry and takes it, with what is kept because of it. It is written by `put`. */
async function add(manager: EntityManager, hand: VisitInHand, draft: Draft, writer: Writer): Promise<Appended> {
  const { visit, unit } = hand;
  const twin = hand.twins?.get(draft.id);
  if (twin) return { entry: sameOrReused(twin, visit.id, draft), isReplay: true };
  if (draft.seq !== hand.lastSeq + 1) throw new HttpProblem('staleSeq');
  const now = new Date();
  // What is signed is read from the rows as they stand, not from what is kept of them.
  if (draft.kind === 'signedOff') await writeRows(manager, hand);
  const known = { ...visit, headHash: hand.headHash };
  const { opening, fold } =
    draft.kind === 'signedOff'
      ? await provenVisit(manager, known)
      : hand.fold && hand.opening
        ? { opening: hand.opening, fold: hand.fold }
        : await foldedVisit(manager, known);
  guardTime(draft.at, opening, now.getTime());
  const { by, station } = writer;
  const sealed = sealedWithText(
    { ...({ ...draft, visitId: visit.id, by, station } as Entry), ...receivedBy(writer, now) },
    hand.headHash,
  );
  const { entry } = sealed;
  const after = admit(fold, entry);
  if (after.refused) throw new HttpProblem(after.refused.code, { status: 409, message: after.refused.message });
  const { state } = after.fold;
  await guard(manager, hand, state, entry);
  if (entry.kind === 'partReplaced') await fitSpare(manager, unit, entry, writer);
  hand.opening = opening;
  hand.fold = after.fold;
  hand.lastSeq = entry.seq;
  hand.headHash = entry.hash;
  hand.newest = entry;
  hand.unwritten.push(sealed);
  await keepRun(manager, unit, state, entry);
  await keepOvershoot(manager, unit, visit, state, entry);
  await disputeFrom(manager, entry, state, visit.mapVersion);
  return { entry, isReplay: false };
}

/** What only the house knows, beside what the visit itself says. Reads alone. */
async function guard(
  manager: EntityManager,
  { visit, unit }: VisitInHand,
  state: VisitState,
  entry: Evidence,
): Promise<void> {
  if (entry.kind === 'signedOff') await guardSignOff(manager, unit, state, entry.data);
  if (entry.kind === 'released') await guardAcceptance(manager, unit, state, entry.data);
  if (entry.kind === 'calibrated' || entry.kind === 'wheelFitted') await guardCalibration(manager, visit, state, entry);
  if (entry.kind === 'photographed') await guardPhoto(manager, visit.id, entry.data);
}

async function writeRows(manager: EntityManager, { unwritten }: VisitInHand): Promise<void> {
  if (unwritten.length === 0) return;
  try {
    await runAll(manager, [entriesInserted(unwritten.splice(0))]);
  } catch (error) {
    throw codeOf(error) === TAKEN ? new TwinFound() : error;
  }
}

const TAKEN = 'ER_DUP_ENTRY';

/** Writes what was taken, and what lists show of it. */
async function put(manager: EntityManager, hand: VisitInHand): Promise<void> {
  const { visit, unit, opening, fold, newest } = hand;
  if (!opening || !fold || !newest) return;
  await writeRows(manager, hand);
  const { state } = fold;
  const columns = visitColumns([opening, newest], state);
  await runAll(manager, projectionOf(unit, state, { was: visit, is: columns }));
  if (columns.sealedAt) {
    await writeLeft(
      manager,
      { ...columns, id: visit.id, unitId: unit.id, sealedAt: columns.sealedAt },
      state,
      await readEvidence(manager, visit.id),
    );
    await markHeads(
      manager,
      [{ visitId: visit.id, seq: newest.seq, hash: newest.hash }],
      'sealed',
      new Date(receivedAtOf(newest)),
    );
  }
  keepFold({ opening, fold }, newest);
}

function sameOrReused(twin: Evidence, visitId: string, draft: Draft): Evidence {
  if (twin.visitId !== visitId || twin.kind !== draft.kind || hashOf(twin.data) !== hashOf(draft.data))
    throw new HttpProblem('idReused');
  return twin;
}
