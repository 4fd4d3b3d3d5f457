import {
  leftCodes,
  leftFindings,
  leftProofs,
  leftWorstKmh,
  visitQuality,
  type Evidence,
  type LeftProof,
  type HandoverData,
  type HandoverEntryOf,
  type VisitState,
} from '@decurio/core';
import type { DataSource, EntityManager } from 'typeorm';
import { readEvidence } from './evidence-rows.js';
import { getDocument } from './library.js';
import { inTransaction } from './transaction.js';
import { foldAccepted } from './visit-columns.js';

/** What a sealed visit is found by: of the visit's own row, and of its unit. */
export interface SealedVisit {
  readonly id: string;
  readonly unitId: string;
  readonly serial: string;
  readonly typeName: string;
  readonly mapId: string;
  readonly mapVersion: number;
  readonly orderNumber: string;
  readonly customer: string;
  readonly sealedAt: Date;
}

/**
 * Writes what a sealed visit can be asked for, in the transaction of its seal: how every code and every proof was left,
 * who worked on it, what was found, and how the work went.
 * @param evidence every entry of the visit, what `state` folds from
 */
export async function writeLeft(
  manager: EntityManager,
  visit: SealedVisit,
  state: VisitState,
  evidence: readonly Evidence[],
): Promise<void> {
  const { document: map } = await getDocument(manager, 'displayMap', visit.mapId, visit.mapVersion);
  const visitId = visit.id;
  const [codes, proofs] = [leftCodes(state, map), leftProofs(state)];
  await writeVisitRow(manager, visit, state, proofs);
  await insertRows(
    manager,
    'left_code (visitId, label, fn, raw, shown, says, value, unit, word, verdict)',
    codes.map((code) => [
      visitId,
      code.label,
      code.function,
      code.raw,
      code.shown.slice(0, 16),
      code.says.slice(0, 120),
      code.value,
      code.unit,
      code.word,
      code.verdict,
    ]),
  );
  const people = [...new Set(evidence.map(({ by }) => by.userId))];
  await insertRows(
    manager,
    'left_person (visitId, userId)',
    people.map((userId) => [visitId, userId]),
  );
  const { steps, slips, holds } = visitQuality(evidence);
  await insertRows(
    manager,
    'left_step (visitId, step, minutes, isFirstRight, userId)',
    steps.map(({ step, minutes, isFirstRight, userId }) => [visitId, step, minutes, isFirstRight ? 1 : 0, userId]),
  );
  await insertRows(
    manager,
    'left_slip (visitId, label, n)',
    Object.entries(slips).map(([label, n]) => [visitId, label, n]),
  );
  await insertRows(
    manager,
    'left_hold (visitId, n, reason, hours)',
    holds.slice(0, MOST_FINDINGS).map(({ reason, hours }, n) => [visitId, n, reason, hours]),
  );
  const findings = leftFindings(state).slice(0, MOST_FINDINGS);
  await insertRows(
    manager,
    'left_finding (visitId, n, kind, says)',
    findings.map(({ kind, says }, n) => [visitId, n, kind, says.slice(0, 500)]),
  );
  await insertRows(
    manager,
    'left_proof (visitId, test, title, verdict)',
    proofs.map(({ test, title, verdict }) => [visitId, test.slice(0, 80), title.slice(0, 160), verdict]),
  );
}

async function writeVisitRow(
  manager: EntityManager,
  visit: SealedVisit,
  state: VisitState,
  proofs: readonly LeftProof[],
): Promise<void> {
  const { id: visitId, serial, sealedAt } = visit;
  const [later] = await manager.query<{ visitId: string }[]>(
    'SELECT visitId FROM left_visit WHERE serial = ? AND sealedAt > ? LIMIT 1',
    [serial, sealedAt],
  );
  if (!later) await manager.query('UPDATE left_visit SET isNewest = 0 WHERE serial = ? AND isNewest = 1', [serial]);
  const { limit } = state.opened.setup.speed ?? { limit: null };
  const { type, rulePack, houseRules } = state.opened.versions;
  await manager.query(
    `INSERT INTO left_visit (visitId, unitId, serial, typeName, mapId, mapVersion, className, customer, orderNumber, limitKmh, signedBy, accepted, unproved, isNewest, sealedAt,
       orderId, typeId, typeVersion, packId, packVersion, houseId, houseVersion, worstKmh, isMoved)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, (SELECT orderId FROM unit WHERE id = ?), ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      visitId,
      visit.unitId,
      serial,
      visit.typeName,
      visit.mapId,
      visit.mapVersion,
      state.opened.order.className,
      visit.customer,
      visit.orderNumber,
      limit?.kmh ?? null,
      state.done.at(-1)?.by.userId ?? '',
      Object.keys(state.accepted).length,
      proofs.filter(({ verdict }) => verdict !== 'shows').length,
      later ? 0 : 1,
      sealedAt,
      visit.unitId,
      type.id,
      type.version,
      rulePack.id,
      rulePack.version,
      houseRules.id,
      houseRules.version,
      leftWorstKmh(state),
      (await cameBackMoved(manager, visitId)) ? 1 : 0,
    ],
  );
}

type Cell = string | number | null;

/** @param into table and columns, our own words */
async function insertRows(manager: EntityManager, into: string, rows: readonly (readonly Cell[])[]): Promise<void> {
  if (rows.length === 0) return;
  const marks = rows.map((row) => `(${row.map(() => '?').join(', ')})`).join(', ');
  await manager.query(`INSERT INTO ${into} VALUES ${marks}`, rows.flat());
}

const MOST_FINDINGS = 200;

/** A unit that came back unlike how it left is found by it from then on. */
export const markMoved = (manager: EntityManager, visitId: string): Promise<unknown> =>
  manager.query('UPDATE left_visit SET isMoved = 1 WHERE visitId = ?', [visitId]);

/** Whether anything moved that does not move by being ridden. */
export const isUnlikeLeft = ({ drifts = [] }: HandoverData['cameBack']): boolean =>
  drifts.some(({ grade }) => grade !== 'expected');

async function cameBackMoved(manager: EntityManager, visitId: string): Promise<boolean> {
  const rows = await manager.query<{ body: string }[]>(
    "SELECT body FROM handover_entry WHERE visitId = ? AND kind = 'cameBack'",
    [visitId],
  );
  return rows.some(({ body }) => isUnlikeLeft((JSON.parse(body) as HandoverEntryOf<'cameBack'>).data));
}

/** Rows of an earlier release say less: they are written anew. */
const FORGET = [
  'left_visit',
  'left_code',
  'left_proof',
  'left_person',
  'left_finding',
  'left_step',
  'left_slip',
  'left_hold',
];

const PAGE = 100;
const WANTING_SQL = `SELECT v.id, v.unitId, v.serial, v.typeName, v.mapId, v.mapVersion, v.orderNumber, v.customer, v.sealedAt FROM visit v
  WHERE v.sealedAt IS NOT NULL AND NOT EXISTS (SELECT 1 FROM left_visit l WHERE l.visitId = v.id AND l.packId IS NOT NULL)
  ORDER BY v.sealedAt, v.id LIMIT ${PAGE}`;

/**
 * Takes in visits that were sealed before there were rows to ask, a hundred in a transaction: what is stopped half-way
 * goes on from there. A visit whose entries are damaged is left out; verifying names it.
 * @returns how many were taken in
 */
export async function fillLeft(source: DataSource): Promise<number> {
  const damaged = new Set<string>();
  let taken = 0;
  for (;;) {
    const wanting = (await source.query<SealedVisit[]>(WANTING_SQL)).filter(({ id }) => !damaged.has(id));
    if (wanting.length === 0) return taken;
    taken += await inTransaction(source, async (manager) => {
      let done = 0;
      for (const visit of wanting) {
        // One process at a time; whoever comes second finds the rows there.
        await manager.query('SELECT id FROM visit WHERE id = ? FOR UPDATE', [visit.id]);
        const [there] = await manager.query<object[]>(
          'SELECT 1 FROM left_visit WHERE visitId = ? AND packId IS NOT NULL',
          [visit.id],
        );
        if (there) continue;
        const evidence = await readEvidence(manager, visit.id).catch(() => []);
        const state = stateOf(evidence);
        if (state) {
          for (const table of FORGET) await manager.query(`DELETE FROM ${table} WHERE visitId = ?`, [visit.id]);
          await writeLeft(manager, visit, state, evidence);
        } else damaged.add(visit.id);
        if (state) done += 1;
      }
      return done;
    });
  }
}

function stateOf(evidence: Parameters<typeof foldAccepted>[0]): VisitState | null {
  try {
    return evidence.length === 0 ? null : foldAccepted(evidence);
  } catch {
    return null;
  }
}
