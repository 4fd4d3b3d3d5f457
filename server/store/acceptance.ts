import {
  compileSetup,
  foldVisit,
  isAgainst,
  unitFactsOf,
  type CodeVerdict,
  type EntryOf,
  type Evidence,
  type Finding,
  type VisitState,
} from '@decurio/core';
import type { EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { Orders, type UnitRow } from './entities.js';
import { decidingFor, inputsFor } from './setups.js';

/**
 * What it would mean on the road to let codes stand as they show: the setup worked out with them locked there, what that
 * finds about them, and what it stops that nothing stopped before, as a wheel that makes every cap run too far.
 */
async function ifAccepted(
  manager: EntityManager,
  unit: UnitRow,
  state: VisitState,
  against: readonly CodeVerdict[],
): Promise<readonly Finding[]> {
  const order = await manager.findOneByOrFail(Orders, { id: unit.orderId });
  const deciding = await decidingFor(manager, unit, order, state.opened.versions.map.version);
  const known = unitFactsOf(state, deciding.map.document);
  const shown = against.flatMap(({ label, readings }) => {
    const last = readings.at(-1);
    return last === null || last === undefined ? [] : [[label, last] as const];
  });
  const letStand = { ...known.letStand, ...Object.fromEntries(against.map(({ label }) => [label, NOBODY_YET])) };
  const before = new Set(
    compileSetup(inputsFor(deciding, order, unit, known)).findings.flatMap(({ level, id }) =>
      level === 'stop' ? [id] : [],
    ),
  );
  const { findings } = compileSetup(
    inputsFor(deciding, order, unit, {
      ...known,
      asFound: { ...known.asFound, ...Object.fromEntries(shown) },
      letStand,
    }),
  );
  const labels = new Set(against.map(({ label }) => label));
  return findings
    .filter(({ id, label, level }) =>
      label !== null && labels.has(label) ? level !== 'note' : level === 'stop' && !before.has(id),
    )
    .map(({ decided: _, ...asked }) => asked);
}

/** Stands for the lead who has not decided. */
const NOBODY_YET = { words: '', by: '', on: '' };

/** A lead may let much stand, but not what the rules stop. */
export async function guardAcceptance(
  manager: EntityManager,
  unit: UnitRow,
  state: VisitState,
  { decision }: EntryOf<'released'>['data'],
): Promise<void> {
  if (decision?.way !== 'accept') return;
  const against = state.verdicts.filter(({ label }) => decision.labels.includes(label));
  const stop = (await ifAccepted(manager, unit, state, against)).find(({ level }) => level === 'stop');
  if (stop) throw new HttpProblem('cannotAccept', { message: `This cannot be accepted: ${stop.says}` });
}

/** What a lead is told before deciding; nothing where the unit is not held at its read-back. */
export async function acceptanceSays(
  manager: EntityManager,
  unit: UnitRow,
  evidence: readonly Evidence[],
): Promise<readonly Finding[]> {
  if (unit.status !== 'held' || unit.step !== 'readBack') return [];
  const fold = foldVisit(evidence);
  return fold.ok ? ifAccepted(manager, unit, fold.value, fold.value.verdicts.filter(isAgainst)) : [];
}
