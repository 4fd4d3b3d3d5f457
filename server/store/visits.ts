import {
  admit,
  broughtBack,
  CHAIN_START,
  hashOf,
  unitFactsOf,
  lastShown,
  projectVisit,
  sealEvidence,
  type Actor,
  type Entry,
  type EntryOf,
  type Evidence,
  type EvidenceData,
  type EvidenceKind,
  type Received,
  type VisitState,
  type WrittenKind,
} from '@decurio/core';
import type { NewEvidence, OpenVisitRequest } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Orders, Units, Visits, type UnitRow, type VisitRow } from './entities.js';
import { inTransaction } from './transaction.js';
import { disputeFrom } from './disputes.js';
import { getDocument } from './library.js';
import { openingOf, type OwnKnown } from './setups.js';
import { guardAcceptance } from './acceptance.js';
import { guardCalibration } from './calibration.js';
import { keepRun } from './wheel-families.js';
import { noteChange } from './changes.js';
import { entryOfId, insertEntry, readEvidence } from './evidence-rows.js';
import { foldedVisit, keepFold, provenVisit } from './folded-visits.js';
import { keepOvershoot } from './overshoots.js';
import { guardPhoto } from './photos.js';
import { fitSpare } from './spares.js';
import { guardSignOff } from './sign-off.js';
import { guardTime } from './entry-time.js';
import { writeLeft } from './left-rows.js';
import { markHeads } from './seal-heads.js';
import { updateRow } from './update-row.js';
import { foldAccepted, foldAllAccepted, visitColumns } from './visit-columns.js';

/** Who writes, and where they stand. */
export interface Writer {
  readonly by: Actor;
  readonly station: string;
  /** How far the clock there is ahead of this one, seconds, where it is off. */
  readonly clockOffS?: number;
}

/** Begins a visit: compiles the setup from the newest documents and writes the opening entry. */
export async function openVisit(
  source: DataSource,
  unitId: string,
  request: OpenVisitRequest,
  writer: Writer,
): Promise<Evidence> {
  return inTransaction(source, async (manager) => {
    const unit = await lockUnit(manager, unitId);
    const existing = await entryOfId(manager, request.entryId);
    if (existing)
      return sameOrReused(existing, (entry) => entry.visitId === request.visitId && entry.kind === 'opened');
    if (unit.visitId !== null) throw new HttpProblem('visitOpen');
    if (unit.status === 'withdrawn') throw new HttpProblem('withdrawn');
    const order = await manager.findOneByOrFail(Orders, { id: unit.orderId });
    const before = unit.lastVisitId === null ? [] : await readEvidence(manager, unit.lastVisitId);
    const { data: fresh } = await openingOf(manager, unit, order, await measuredBefore(manager, unit, before));
    const data = following(unit, fresh, before);
    const now = new Date();
    guardTime(request.at, null, now.getTime());
    const { by, station } = writer;
    const deed: Entry = {
      id: request.entryId,
      visitId: request.visitId,
      seq: 1,
      kind: 'opened',
      at: request.at,
      by,
      station,
      data,
    };
    const entry = sealEvidence({ ...deed, ...receivedBy(writer, now) }, CHAIN_START);
    const fold = foldAllAccepted([entry]);
    await manager.insert(Visits, { id: request.visitId, unitId: unit.id, ...visitColumns([entry], fold.state) });
    await insertEntry(manager, entry);
    await project(manager, unit, fold.state);
    keepFold({ opening: entry, fold }, entry);
    await manager.update(Units, { id: unit.id }, { revision: order.revision });
    return entry;
  });
}

/** A unit that was done before is taken up where it was left: what was read last is what it shows. */
function following(unit: UnitRow, fresh: EvidenceData['opened'], before: readonly Evidence[]): EvidenceData['opened'] {
  if (unit.lastVisitId === null) return fresh;
  const last = foldAccepted(before);
  const left = lastShown(last);
  const factory = Object.fromEntries(Object.entries(fresh.factory).map(([label, raw]) => [label, left[label] ?? raw]));
  const follows = { visitId: unit.lastVisitId, why: unit.returnedWhy ?? '' };
  const { privateLand: land } = last.opened.order;
  if (!land || fresh.order.privateLand) return { ...fresh, factory, follows };
  return {
    ...fresh,
    factory,
    follows: { ...follows, fromPrivateLand: { label: land.label, endsOn: land.endsOn } },
    ...(fresh.bench ? { bench: broughtBack(fresh.bench) } : {}),
  };
}

/** What the visit before measured of the wheel, as long as the same display counts its turns. */
async function measuredBefore(
  manager: EntityManager,
  unit: UnitRow,
  before: readonly Evidence[],
): Promise<OwnKnown | undefined> {
  if (before.length === 0) return undefined;
  const state = foldAccepted(before);
  const { id, version } = state.opened.versions.map;
  if (id !== unit.mapId) return undefined;
  const {
    ratio,
    rolled = null,
    overshootKmh = null,
  } = unitFactsOf(state, (await getDocument(manager, 'displayMap', id, version)).document);
  return ratio === null && rolled === null && overshootKmh === null ? undefined : { ratio, rolled, overshootKmh };
}

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

/**
 * Adds an entry to a visit, or gives back the one that was added under the same id before. The row of the visit is
 * locked meanwhile, so that entries of one visit follow one another whichever process takes them.
 */
export async function appendIn(
  manager: EntityManager,
  unitId: string,
  visitId: string,
  draft: Draft,
  writer: Writer,
): Promise<Appended> {
  const visit = await lockVisit(manager, unitId, visitId);
  const twin = await entryOfId(manager, draft.id);
  if (twin) {
    const entry = sameOrReused(
      twin,
      (was) => was.visitId === visitId && was.kind === draft.kind && hashOf(was.data) === hashOf(draft.data),
    );
    return { entry, isReplay: true };
  }
  if (draft.seq !== visit.lastSeq + 1) throw new HttpProblem('staleSeq');
  const now = new Date();
  const { opening, fold } =
    draft.kind === 'signedOff' ? await provenVisit(manager, visit) : await foldedVisit(manager, visit);
  guardTime(draft.at, opening, now.getTime());
  const { by, station } = writer;
  const entry = sealEvidence(
    { ...({ ...draft, visitId, by, station } as Entry), ...receivedBy(writer, now) },
    visit.headHash,
  );
  const after = admit(fold, entry);
  if (after.refused) throw new HttpProblem(after.refused.code, { status: 409, message: after.refused.message });
  const { state } = after.fold;
  const unit = await lockUnit(manager, unitId);
  if (entry.kind === 'signedOff') await guardSignOff(manager, unit, state, entry.data);
  if (entry.kind === 'released') await guardAcceptance(manager, unit, state, entry.data);
  if (entry.kind === 'calibrated' || entry.kind === 'wheelFitted') await guardCalibration(manager, visit, state, entry);
  if (entry.kind === 'photographed') await guardPhoto(manager, visitId, entry.data);
  if (entry.kind === 'partReplaced') await fitSpare(manager, unit, entry, writer);
  await insertEntry(manager, entry);
  await updateRow(manager, 'visit', visitId, visitColumns([opening, entry], state));
  await keepRun(manager, unit, state, entry);
  await keepOvershoot(manager, unit, visit, state, entry);
  await disputeFrom(manager, entry, state, visit.mapVersion);
  await project(manager, unit, state);
  if (state.step === null && state.withdrawn === null) {
    const columns = visitColumns([opening, entry], state);
    if (columns.sealedAt)
      await writeLeft(
        manager,
        { ...columns, id: visitId, unitId, sealedAt: columns.sealedAt },
        state,
        await readEvidence(manager, visitId),
      );
    await markHeads(manager, [{ visitId, seq: entry.seq, hash: entry.hash }], 'sealed', now);
  }
  keepFold({ opening, fold: after.fold }, entry);
  return { entry, isReplay: false };
}

/** The row of a visit, locked until the transaction ends: entries of one visit follow one another. */
export async function lockVisit(manager: EntityManager, unitId: string, visitId: string): Promise<VisitRow> {
  const [visit] = await manager.query<VisitRow[]>('SELECT * FROM visit WHERE id = ? FOR UPDATE', [visitId]);
  if (!visit) throw new HttpProblem('visitNotFound');
  if (visit.unitId !== unitId) throw new HttpProblem('otherVisit');
  return visit;
}

export async function lockUnit(manager: EntityManager, unitId: string): Promise<UnitRow> {
  const [unit] = await manager.query<UnitRow[]>('SELECT * FROM unit WHERE id = ? FOR UPDATE', [unitId]);
  if (!unit) throw new HttpProblem('notFound', { message: 'There is no such unit.' });
  return unit;
}

function sameOrReused(entry: Evidence, isSame: (entry: Evidence) => boolean): Evidence {
  if (!isSame(entry)) throw new HttpProblem('idReused');
  return entry;
}

/** What the server says of an entry as it takes it. */
const receivedBy = ({ clockOffS }: Writer, now: Date): Received => ({
  receivedAt: now.toISOString(),
  ...(clockOffS === undefined ? {} : { clockOffS }),
});

/** Writes what lists show of the visit, in the transaction that adds its entry. */
async function project(manager: EntityManager, unit: UnitRow, state: VisitState): Promise<void> {
  const now = projectVisit(state);
  await updateRow<UnitRow>(manager, 'unit', unit.id, {
    ...now,
    ...foundBy(unit, state),
    ...provedBy(unit, state),
    ...(now.status === 'sealed' ? {} : { handedTo: null, handedOverAt: null, stored: null }),
    visitId: state.visitId,
    openSerial: now.status === 'sealed' || now.status === 'withdrawn' ? null : unit.serial,
  });
  await noteChange(manager, { orderId: unit.orderId, unitId: unit.id, seq: state.seq });
  const gained = (status: UnitRow['status']) => Number(now.status === status) - Number(unit.status === status);
  const [sealed, held] = [gained('sealed'), gained('held')];
  if (sealed !== 0 || held !== 0) {
    await manager.query('UPDATE customer_order SET sealed = sealed + ?, held = held + ? WHERE id = ?', [
      sealed,
      held,
      unit.orderId,
    ]);
  }
}

/** When it was proved: what the next units of its batch are sampled by. */
function provedBy(unit: UnitRow, { done, proving }: VisitState): Pick<UnitRow, 'provedAt' | 'proofsFailed'> {
  const isProved = done.some(({ step }) => step === 'prove');
  return {
    provedAt: isProved || proving.failed.length > 0 ? (unit.provedAt ?? new Date()) : null,
    proofsFailed: proving.failed.length,
  };
}

/** When it was read as found: what the next units of its batch are sampled by. */
function foundBy(unit: UnitRow, { done, surprises }: VisitState): Pick<UnitRow, 'foundAt' | 'surprises'> {
  const isFound = done.some(({ step }) => step === 'asFound');
  return { foundAt: isFound ? (unit.foundAt ?? new Date()) : null, surprises: surprises.length };
}
