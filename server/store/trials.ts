import { onGrid, triable, trialOrder, type Actor, type TrialPlan, type TrialRun } from '@decurio/core';
import {
  MOST_RUNS,
  type EndTrial,
  type MoreRuns,
  type NewTrial,
  type NewTrialRun,
  type TakeRunBack,
  type TrialView,
} from '@decurio/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { getDocument } from './library.js';
import { namesBehind, writtenBy } from './personal.js';
import { inTransaction } from './transaction.js';

/** As it is kept. Who did what stands as `writtenBy` says. */
interface KeptTrial {
  readonly unit: string;
  readonly plan: TrialPlan;
  readonly more: readonly number[];
  readonly runs: readonly (TrialRun & { readonly at: string; readonly by: string })[];
  readonly openedBy: string;
  readonly ended: TrialView['ended'];
}

interface TrialRow {
  readonly id: string;
  readonly mapId: string;
  readonly mapVersion: number;
  readonly body: string;
  readonly openedAt: Date;
}

const MOST_SHOWN = 60;

/** Trials on a display, those under way first, then the newest. */
export async function listTrials({ manager }: DataSource, mapId: string): Promise<readonly TrialView[]> {
  const rows = await manager.query<TrialRow[]>(
    `SELECT id, mapId, mapVersion, body, openedAt FROM trial WHERE mapId = ? ORDER BY endedAt IS NOT NULL, openedAt DESC LIMIT ${MOST_SHOWN}`,
    [mapId],
  );
  return viewsOf(manager, rows);
}

async function viewsOf(manager: EntityManager, rows: readonly TrialRow[]): Promise<TrialView[]> {
  const all = rows.map((row) => ({ row, kept: JSON.parse(row.body) as KeptTrial }));
  const nameOf = await namesBehind(
    manager,
    all.flatMap(({ kept }) => [kept.openedBy, kept.ended?.by ?? null, ...kept.runs.map(({ by }) => by)]),
  );
  return all.map(({ row: { id, mapId, mapVersion, openedAt }, kept }) => ({
    ...kept,
    id,
    mapId,
    mapVersion,
    openedAt: openedAt.toISOString(),
    openedBy: nameOf(kept.openedBy),
    runs: kept.runs.map((run) => ({ ...run, by: nameOf(run.by) })),
    ended: kept.ended && { ...kept.ended, by: nameOf(kept.ended.by) },
  }));
}

/**
 * Begins a trial; sent twice it stands once.
 * @throws `badTrial` where the display has no such code, or its keys do not reach these values
 */
export async function beginTrial(source: DataSource, trial: NewTrial, by: Actor): Promise<TrialView> {
  const { id, mapId, mapVersion, unit, label, values, quantity, each, matters, seed } = trial;
  return inTransaction(source, async (manager) => {
    const { document: map } = await getDocument(manager, 'displayMap', mapId, mapVersion);
    const code = triable(map).find((one) => one.label === label);
    if (!code || !values.every((raw) => onGrid(code, raw))) throw new HttpProblem('badTrial');
    const plan: TrialPlan = { label, values, quantity, each, matters, seed };
    const kept: KeptTrial = { unit, plan, more: [], runs: [], openedBy: writtenBy(by), ended: null };
    await manager.query(
      'INSERT IGNORE INTO trial (id, mapId, mapVersion, body, openedAt) VALUES (?, ?, ?, ?, UTC_TIMESTAMP(3))',
      [id, mapId, mapVersion, JSON.stringify(kept)],
    );
    return viewIn(manager, id);
  });
}

/** Writes one run down: the next that was drawn, or the same as before where it is sent twice. */
export const addRun = (
  source: DataSource,
  id: string,
  { n, raw, measured }: NewTrialRun,
  by: Actor,
): Promise<TrialView> =>
  changing(source, id, (kept) => {
    const known = kept.runs[n - 1];
    if (known) {
      if (known.raw !== raw || known.measured !== measured) throw new HttpProblem('trialMoved');
      return kept;
    }
    const due = trialOrder(kept.plan, kept.more)[n - 1];
    if (n !== kept.runs.length + 1 || n > MOST_RUNS || due !== raw) throw new HttpProblem('trialMoved');
    return { ...kept, runs: [...kept.runs, { raw, measured, at: new Date().toISOString(), by: writtenBy(by) }] };
  });

/** Takes the newest run back, as when it was typed wrong. It is made again. */
export const takeRunBack = (source: DataSource, id: string, { n }: TakeRunBack): Promise<TrialView> =>
  changing(source, id, (kept) => {
    if (n !== kept.runs.length) throw new HttpProblem('trialMoved');
    return { ...kept, runs: kept.runs.slice(0, -1) };
  });

/** Draws further runs of each value. */
export const drawMore = (source: DataSource, id: string, { drawn, each }: MoreRuns): Promise<TrialView> =>
  changing(source, id, (kept) => {
    const so = kept.more.reduce((sum, more) => sum + more, kept.plan.each);
    if (so === drawn + each) return kept;
    if (so !== drawn) throw new HttpProblem('trialMoved');
    if ((so + each) * kept.plan.values.length > MOST_RUNS) throw new HttpProblem('trialFull');
    return { ...kept, more: [...kept.more, each] };
  });

/** Ends a trial with what follows from it: words, and the version of its map that was written, which must be there. */
export const endTrial = (source: DataSource, id: string, { words, version }: EndTrial, by: Actor): Promise<TrialView> =>
  changing(source, id, async (kept, manager, mapId) => {
    if (version !== null) await getDocument(manager, 'displayMap', mapId, version);
    return {
      ...kept,
      ended: { at: new Date().toISOString(), by: writtenBy(by), words, version },
    };
  });

async function changing(
  source: DataSource,
  id: string,
  change: (kept: KeptTrial, manager: EntityManager, mapId: string) => KeptTrial | Promise<KeptTrial>,
): Promise<TrialView> {
  return inTransaction(source, async (manager) => {
    const [row] = await manager.query<{ body: string; mapId: string }[]>(
      'SELECT body, mapId FROM trial WHERE id = ? FOR UPDATE',
      [id],
    );
    if (!row) throw new HttpProblem('notFound', { message: 'There is no such trial.' });
    const kept = JSON.parse(row.body) as KeptTrial;
    if (kept.ended) throw new HttpProblem('trialEnded');
    const next = await change(kept, manager, row.mapId);
    if (next !== kept)
      await manager.query('UPDATE trial SET body = ?, endedAt = IF(?, UTC_TIMESTAMP(3), NULL) WHERE id = ?', [
        JSON.stringify(next),
        next.ended !== null,
        id,
      ]);
    return viewIn(manager, id);
  });
}

async function viewIn(manager: EntityManager, id: string): Promise<TrialView> {
  const rows = await manager.query<TrialRow[]>('SELECT id, mapId, mapVersion, body, openedAt FROM trial WHERE id = ?', [
    id,
  ]);
  const [view] = await viewsOf(manager, rows);
  if (!view) throw new HttpProblem('notFound', { message: 'There is no such trial.' });
  return view;
}
