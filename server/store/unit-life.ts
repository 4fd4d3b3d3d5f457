import { compareStates, foldVisit, lifeEvents, mapTitle, unitStates, type UnitState } from '@decurio/core';
import type { ComparedStates, LifeVisit, UnitLife } from '@decurio/contract';
import { In, type DataSource, type EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { elsewhereOf } from './elsewhere.js';
import { Units, Visits, type VisitRow } from './entities.js';
import { readEvidence } from './evidence-rows.js';
import { readHandover } from './handovers.js';
import { getDocument } from './library.js';

/** A unit that was here more often than this shows its newest visits alone, and says so. */
const MOST_VISITS = 50;

/** Everything that is known of a serial, over all visits and orders, newest visit first. */
export async function unitLife(source: DataSource, serial: string): Promise<UnitLife> {
  const { manager } = source;
  const rows = await manager.find(Visits, {
    where: { serial },
    order: { openedAt: 'DESC', id: 'DESC' },
    take: MOST_VISITS + 1,
  });
  const elsewhere = await elsewhereOf(source, serial);
  if (rows.length === 0 && elsewhere.length === 0)
    throw new HttpProblem('notFound', { message: `No unit ${serial} was ever begun here. Look at the serial.` });
  const shown = rows.slice(0, MOST_VISITS);
  const out = await manager.findBy(Units, { id: In(shown.map(({ unitId }) => unitId)) });
  return {
    serial,
    typeName: shown[0]?.typeName ?? elsewhere[0]?.typeName ?? '',
    elsewhere,
    hasMore: rows.length > MOST_VISITS,
    visits: await Promise.all(
      shown.map((row) => lifeVisit(manager, row, out.find(({ id }) => id === row.unitId)?.handedTo ?? null)),
    ),
  };
}

async function lifeVisit(manager: EntityManager, row: VisitRow, handedTo: string | null): Promise<LifeVisit> {
  const known = await readStates(manager, row).catch(() => null);
  return {
    visitId: row.id,
    unitId: row.unitId,
    orderNumber: row.orderNumber,
    customer: row.customer,
    openedAt: row.openedAt.toISOString(),
    sealedAt: row.sealedAt?.toISOString() ?? null,
    sealedBy: row.sealedBy,
    handedTo,
    isDamaged: known === null,
    className: known?.className ?? '',
    display: known?.display ?? '',
    events: known?.events ?? [],
    states: known?.states.map(({ key, kind, at }) => ({ key, kind, at })) ?? [],
  };
}

async function readStates(manager: EntityManager, visit: VisitRow) {
  const [evidence, handover, { document: map }] = await Promise.all([
    readEvidence(manager, visit.id),
    readHandover(manager, visit.id),
    getDocument(manager, 'displayMap', visit.mapId, visit.mapVersion),
  ]);
  const fold = foldVisit(evidence);
  if (!fold.ok) throw new HttpProblem('recordDamaged');
  return {
    className: fold.value.opened.order.className,
    display: mapTitle(map),
    events: lifeEvents(evidence, handover),
    states: unitStates(evidence, fold.value, handover, map),
  };
}

/** A state as an address names it: a visit, and which of its states. */
export interface StateRef {
  readonly visitId: string;
  readonly key: string;
}

/** Two states side by side, of one unit or of two. */
export async function compareRefs(source: DataSource, one: StateRef, other: StateRef): Promise<ComparedStates> {
  const [first, second] = await Promise.all([stateOf(source, one), stateOf(source, other)]);
  const named = ({ visitId }: StateRef, { key, kind, serial, at }: UnitState) => ({ visitId, key, kind, serial, at });
  return { one: named(one, first), other: named(other, second), ...compareStates(first, second) };
}

async function stateOf({ manager }: DataSource, { visitId, key }: StateRef): Promise<UnitState> {
  const visit = await manager.findOneBy(Visits, { id: visitId });
  if (!visit) throw new HttpProblem('visitNotFound');
  const { states } = await readStates(manager, visit);
  const state = states.find((each) => each.key === key);
  if (!state)
    throw new HttpProblem('notFound', {
      message: `${visit.serial} was not read then. There is ${states.map((each) => each.key).join(', ') || 'nothing'} of this visit.`,
    });
  return state;
}
