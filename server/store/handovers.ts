import {
  asChained,
  type Actor,
  canonicalJson,
  chainHandover,
  decideHandover,
  driftOf,
  driftVerdict,
  lastShown,
  foldHandover,
  type HandoverEntry,
  storageAdvice,
  type HandoverState,
  type NewHandover,
} from '@decurio/core';
import type { HandoverView, StoredUnit } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { noteChange } from './changes.js';
import { Handovers, Units, Visits, type UnitRow, type VisitRow } from './entities.js';
import { readEvidence } from './evidence-rows.js';
import { getDocument } from './library.js';
import { isUnlikeLeft, markMoved } from './left-rows.js';
import { guardPhoto } from './photos.js';
import { keepPersons, withPersons } from './personal.js';
import { inTransaction } from './transaction.js';
import { foldAccepted } from './visit-columns.js';
import type { Writer } from './writer.js';

/** What was handed over with a unit, oldest first. */
export async function readHandover(manager: EntityManager, visitId: string): Promise<readonly HandoverEntry[]> {
  const rows = await manager.find(Handovers, { where: { visitId }, order: { seq: 'ASC' } });
  return withPersons(
    manager,
    rows.map(({ body }) => JSON.parse(body) as HandoverEntry),
  );
}

export async function handoverView(source: DataSource, visitId: string): Promise<HandoverView> {
  const visit = await source.manager.findOneBy(Visits, { id: visitId });
  if (!visit) throw new HttpProblem('visitNotFound');
  if (visit.sealedAt === null) throw new HttpProblem('notSealed');
  return viewOf(visit, await readHandover(source.manager, visitId));
}

function viewOf(visit: VisitRow, entries: readonly HandoverEntry[]): HandoverView {
  return { seal: visit.headHash, entries: [...entries], state: folded(visit, entries) };
}

function folded(visit: VisitRow, entries: readonly HandoverEntry[]): HandoverState {
  const state = foldHandover(visit.headHash, entries);
  if (!state.ok) throw new HttpProblem('recordDamaged', { message: state.problem.message });
  return state.value;
}

/**
 * Adds an entry to what is handed over with a sealed unit; sending one twice is harmless. The visit is locked meanwhile
 * and never written to: its record stays as it was sealed.
 */
export async function addHandover(
  source: DataSource,
  visitId: string,
  draft: NewHandover,
  { by }: Writer,
): Promise<HandoverView> {
  return inTransaction(source, async (manager) => {
    const visit = await manager.findOne(Visits, { where: { id: visitId }, lock: { mode: 'pessimistic_write' } });
    if (!visit) throw new HttpProblem('visitNotFound');
    if (visit.sealedAt === null) throw new HttpProblem('notSealed');
    return appendHandover(manager, visit, draft, by);
  });
}

/** The same for a visit that is sealed and whose row is locked. */
export async function appendHandover(
  manager: EntityManager,
  visit: VisitRow,
  draft: NewHandover,
  by: Actor,
  at = new Date(),
): Promise<HandoverView> {
  const visitId = visit.id;
  const entries = await readHandover(manager, visitId);
  if (entries.some(({ id }) => id === draft.id)) return viewOf(visit, entries);
  const state = folded(visit, entries);
  const refused = decideHandover(state, draft);
  if (refused !== null) throw new HttpProblem('notHandedOver', { message: refused });
  if (draft.kind === 'labelFixed' && draft.data.photo) await guardPhoto(manager, visitId, draft.data.photo);
  const kept = await keepPersons(manager, visitId, await withAdvice(manager, visit, state, draft));
  const entry = chainHandover(
    { ...kept, visitId, seq: state.seq + 1, at: at.toISOString(), by } as HandoverEntry,
    state.headHash,
  );
  await manager.insert(Handovers, {
    id: entry.id,
    visitId,
    seq: entry.seq,
    kind: entry.kind,
    body: canonicalJson(asChained(entry)),
    at,
  });
  const view = viewOf(visit, [...entries, entry]);
  if (view.state.out) await mark(manager, visit, { handedTo: view.state.out.to, handedOverAt: at });
  if (entry.kind === 'cameBack') {
    await mark(manager, visit, { handedTo: null, handedOverAt: null });
    if (isUnlikeLeft(entry.data)) await markMoved(manager, visitId);
  }
  if (entry.kind === 'packStored' || entry.kind === 'packTaken')
    await mark(manager, visit, { stored: storedColumn(view.state) });
  return view;
}

/** What a pack that is put away asks for, and what moved on a unit that is back, is worked out here, from its record. */
async function withAdvice(
  manager: EntityManager,
  visit: VisitRow,
  { pins }: HandoverState,
  draft: NewHandover,
): Promise<NewHandover> {
  if (draft.kind !== 'packStored' && draft.kind !== 'cameBack') return draft;
  const record = foldAccepted(await readEvidence(manager, visit.id));
  const { opened } = record;
  if (draft.kind === 'cameBack') {
    const { document: map } = await getDocument(manager, 'displayMap', visit.mapId, visit.mapVersion);
    const { values, asksPin, errors } = draft.data;
    const pin = { wasSet: pins.some(({ opens }) => opens === 'menu'), asksNow: asksPin };
    const drifts = driftOf(lastShown(record), { values, pin, errors }, map, opened.setup);
    return { ...draft, data: { values, asksPin, errors, drifts, ...driftVerdict(drifts) } };
  }
  const advice = storageAdvice(opened.pack, draft.data.packV);
  if (!advice.ok) throw new HttpProblem('notHandedOver', { message: advice.problem.message });
  return { ...draft, data: { packV: draft.data.packV, ...advice.value } };
}

/** What lists show of a unit that is put away. */
export function storedColumn({ storage }: HandoverState): string | null {
  const last = storage?.readings.at(-1);
  if (!storage || !last) return null;
  const { packV, act = 'measureCharge' } = last;
  return JSON.stringify({ since: storage.since, packV, act, measureAt: storage.measureAt } satisfies StoredUnit);
}

/** Where the unit is now. A unit that came back meanwhile is in the house and at its next visit. */
async function mark(
  manager: EntityManager,
  visit: VisitRow,
  columns: Partial<Pick<UnitRow, 'handedTo' | 'handedOverAt' | 'stored'>>,
): Promise<void> {
  const unit = await manager.findOne(Units, { where: { id: visit.unitId }, lock: { mode: 'pessimistic_write' } });
  if (!unit || unit.visitId !== visit.id) return;
  await manager.update(Units, { id: unit.id }, columns);
  await noteChange(manager, { orderId: unit.orderId, unitId: unit.id, seq: visit.lastSeq });
}
