import {
  broughtBack,
  CHAIN_START,
  lastShown,
  sealedWithText,
  unitFactsOf,
  type Entry,
  type Evidence,
  type EvidenceData,
} from '@decurio/core';
import type { OpenVisitRequest } from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Orders, Units, Visits, type UnitRow } from './entities.js';
import { guardTime } from './entry-time.js';
import { entriesInserted, entriesOfIds, readEvidence } from './evidence-rows.js';
import { keepFold } from './folded-visits.js';
import { getDocument } from './library.js';
import { lockUnit } from './locked-rows.js';
import { projected, projectionOf } from './project-rows.js';
import { openingOf, type OwnKnown } from './setups.js';
import { runAll } from './statement.js';
import { inTransaction } from './transaction.js';
import { foldAccepted, foldAllAccepted, visitColumns } from './visit-columns.js';
import { receivedBy, type Writer } from './writer.js';

/** Begins a visit: compiles the setup from the newest documents and writes the opening entry. */
export async function openVisit(
  source: DataSource,
  unitId: string,
  request: OpenVisitRequest,
  writer: Writer,
): Promise<Evidence> {
  return inTransaction(source, async (manager) => {
    const unit = await lockUnit(manager, unitId);
    const existing = (await entriesOfIds(manager, [request.entryId])).get(request.entryId);
    if (existing) {
      if (existing.visitId !== request.visitId || existing.kind !== 'opened') throw new HttpProblem('idReused');
      return existing;
    }
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
    const sealed = sealedWithText({ ...deed, ...receivedBy(writer, now) }, CHAIN_START);
    const { entry } = sealed;
    const fold = foldAllAccepted([entry]);
    await manager.insert(Visits, { id: request.visitId, unitId: unit.id, ...visitColumns([entry], fold.state) });
    await runAll(manager, [entriesInserted([sealed]), ...projected([projectionOf(unit, fold.state, null)])]);
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
