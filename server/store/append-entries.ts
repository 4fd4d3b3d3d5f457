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
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { guardAcceptance } from './acceptance.js';
import { guardCalibration } from './calibration.js';
import { disputeFrom } from './disputes.js';
import type { UnitRow, VisitRow } from './entities.js';
import { guardTime } from './entry-time.js';
import { entriesInserted, entriesOfIds, readEvidence, type Sealed } from './evidence-rows.js';
import { foldedVisit, keepFold, provenVisit } from './folded-visits.js';
import { writeLeft } from './left-rows.js';
import { lockVisitWithUnit, type LockedRows } from './locked-rows.js';
import { keepOvershoot } from './overshoots.js';
import { guardPhoto } from './photos.js';
import { projected, projectionOf, type Projection } from './project-rows.js';
import { markHeads } from './seal-heads.js';
import { guardSignOff } from './sign-off.js';
import { fitSpare } from './spares.js';
import { runAll } from './statement.js';
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

/** Of entries that were thought to be new one was there: they are to be added where what is there is looked up first. */
export class TwinFound extends Error {}

/** Adds an entry to a visit, or gives back the one that was added under the same id before. */
export async function appendIn(
  manager: EntityManager,
  unitId: string,
  visitId: string,
  draft: Draft,
  writer: Writer,
): Promise<Appended> {
  const { appended, refused } = await appendAllIn(manager, unitId, visitId, [draft], writer);
  const [first] = appended;
  if (!first) throw refused ?? new Error('an entry is added or refused');
  return first;
}

export interface AllAppended {
  readonly appended: readonly Appended[];
  /** Why the one after these was not taken; none of those behind it was. */
  readonly refused: HttpProblem | null;
}

/** Adds entries one after another, in one go, up to the first that is refused; those that are there are given back. */
export async function appendAllIn(
  manager: EntityManager,
  unitId: string,
  visitId: string,
  drafts: readonly Draft[],
  writer: Writer,
): Promise<AllAppended> {
  const rows = await lockVisitWithUnit(manager, unitId, visitId);
  const hand = inHand(rows, await entriesOfIds(manager, idsOf(drafts)));
  const all = await addAll(manager, hand, drafts, writer);
  await put(manager, hand);
  return all;
}

const idsOf = (drafts: readonly Draft[]): readonly string[] => drafts.map(({ id }) => id);

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

/** Entries of one visit, all of them of the visit alone and thought to be new. */
export interface OfVisit {
  readonly unitId: string;
  readonly visitId: string;
  readonly drafts: readonly Draft[];
  readonly writer: Writer;
}

/** What was decided on entries of one visit, and what is to be written of them in the same transaction. */
export interface DecidedOfVisit {
  readonly result: AllAppended;
  readonly entries: readonly Sealed[];
  /** Null where none was taken. */
  readonly projection: Projection | null;
  readonly onceCommitted: () => void;
}

/**
 * Decides on entries of a visit whose rows are locked. What is written at once, through `manager`, is kept beside entries
 * that were taken: where this throws, the transaction is to be given up.
 * @throws TwinFound where one of them is there already
 */
export async function decideAll(
  manager: EntityManager,
  locked: LockedRows,
  { drafts, writer }: OfVisit,
): Promise<DecidedOfVisit> {
  const hand = inHand(locked, null);
  const result = await addAll(manager, hand, drafts, writer);
  // What is refused may be refused because it was taken before.
  if (result.refused && (await entriesOfIds(manager, idsOf(drafts))).size > 0) throw new TwinFound();
  const { fold, opening, newest } = hand;
  if (!fold || !opening || !newest) return { result, entries: [], projection: null, onceCommitted: () => undefined };
  return {
    result,
    entries: hand.unwritten,
    projection: projectionOf(hand.unit, fold.state, {
      was: hand.visit,
      is: visitColumns([opening, newest], fold.state),
    }),
    onceCommitted: () => keepFold({ opening, fold }, newest),
  };
}

async function addAll(
  manager: EntityManager,
  hand: VisitInHand,
  drafts: readonly Draft[],
  writer: Writer,
): Promise<AllAppended> {
  const appended: Appended[] = [];
  for (const draft of drafts) {
    const twin = hand.twins?.get(draft.id);
    const decided = await (twin ? again(twin, hand, draft) : decide(manager, hand, draft, writer)).catch(asRefusal);
    if (decided instanceof HttpProblem) return { appended, refused: decided };
    if (!('sealed' in decided)) appended.push(decided);
    else {
      await keep(manager, hand, decided, writer);
      appended.push({ entry: decided.sealed.entry, isReplay: false });
    }
  }
  return { appended, refused: null };
}

function asRefusal(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  throw error;
}

async function again(twin: Evidence, { visit }: VisitInHand, draft: Draft): Promise<Appended> {
  if (twin.visitId !== visit.id || twin.kind !== draft.kind || hashOf(twin.data) !== hashOf(draft.data))
    throw new HttpProblem('idReused');
  return { entry: twin, isReplay: true };
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

interface DecidedOn {
  readonly opening: Evidence;
  readonly fold: Fold;
  readonly sealed: Sealed;
}

/** Decides on one entry. Throws where it is refused; nothing was changed then. */
async function decide(manager: EntityManager, hand: VisitInHand, draft: Draft, writer: Writer): Promise<DecidedOn> {
  const { visit } = hand;
  const { by, station } = writer;
  if (draft.seq !== hand.lastSeq + 1) throw new HttpProblem('staleSeq');
  const now = new Date();
  const { opening, fold } = await foldedSoFar(manager, hand, draft);
  guardTime(draft.at, opening, now.getTime());
  const sealed = sealedWithText(
    { ...({ ...draft, visitId: visit.id, by, station } as Entry), ...receivedBy(writer, now) },
    hand.headHash,
  );
  const after = admit(fold, sealed.entry);
  if (after.refused) throw new HttpProblem(after.refused.code, { status: 409, message: after.refused.message });
  await guard(manager, hand, after.fold.state, sealed.entry);
  return { opening, fold: after.fold, sealed };
}

async function foldedSoFar(
  manager: EntityManager,
  hand: VisitInHand,
  { kind }: Draft,
): Promise<{ readonly opening: Evidence; readonly fold: Fold }> {
  const { opening, fold } = hand;
  const known = { ...hand.visit, headHash: hand.headHash };
  if (kind !== 'signedOff') return opening && fold ? { opening, fold } : foldedVisit(manager, known);
  // What is signed is read from the rows as they stand, not from what is kept of them.
  await writeRows(manager, hand);
  return provenVisit(manager, known);
}

/** Takes an entry that was decided on, with what is kept because of it. It is written by `put`. */
async function keep(
  manager: EntityManager,
  hand: VisitInHand,
  { opening, fold, sealed }: DecidedOn,
  writer: Writer,
): Promise<void> {
  const { visit, unit } = hand;
  const { entry } = sealed;
  if (entry.kind === 'partReplaced') await fitSpare(manager, unit, entry, writer);
  hand.opening = opening;
  hand.fold = fold;
  hand.lastSeq = entry.seq;
  hand.headHash = entry.hash;
  hand.newest = entry;
  hand.unwritten.push(sealed);
  await keepRun(manager, unit, fold.state, entry);
  await keepOvershoot(manager, unit, visit, fold.state, entry);
  await disputeFrom(manager, entry, fold.state, visit.mapVersion);
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
  if (unwritten.length > 0) await runAll(manager, [entriesInserted(unwritten.splice(0))]);
}

/** Writes what was taken, and what lists show of it. */
async function put(manager: EntityManager, hand: VisitInHand): Promise<void> {
  const { visit, unit, opening, fold, newest } = hand;
  if (!opening || !fold || !newest) return;
  await writeRows(manager, hand);
  const { state } = fold;
  const columns = visitColumns([opening, newest], state);
  await runAll(manager, projected([projectionOf(unit, state, { was: visit, is: columns })]));
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
