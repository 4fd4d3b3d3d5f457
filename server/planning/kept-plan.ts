import type { DayPlan, Moved, OrderForecast, Tightest } from '@decurio/core';
import type { DataSource, EntityManager } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { inTransaction } from '../store/transaction.js';
import type { Prepared } from './prepare.js';

/** The plan that stands, the same for everybody, as it is kept. */
export interface KeptPlan {
  readonly revision: number;
  /** Of what it was made; see `PlanInputs.basis`. */
  readonly basis: string;
  readonly madeAtMs: number;
  readonly body: PlanBody;
}

export interface PlanBody {
  /** ms since 1970 at which its second 0 is. */
  readonly startMs: number;
  readonly plan: DayPlan;
  readonly forecasts: readonly OrderForecast[];
  readonly tightest: Readonly<Record<string, Tightest>>;
  readonly gap: number;
  readonly beyondS: number;
  /** By which the next plan tells what set it off. */
  readonly facts: {
    readonly held: readonly string[];
    readonly given: Readonly<Record<string, string>>;
    readonly orders: readonly string[];
    readonly crew: number;
    readonly shop: number;
  };
  readonly moves: {
    readonly atMs: number;
    readonly why: string;
    readonly moved: readonly Moved[];
    readonly startMs: number;
  } | null;
}

interface Row {
  readonly revision: number;
  readonly basis: string;
  readonly madeAt: Date;
  readonly body: string;
}

const SQL = 'SELECT revision, basis, madeAt, body FROM day_plan WHERE id = 1';

/** Null while none was ever made. */
export async function keptPlan(source: DataSource): Promise<KeptPlan | null> {
  const [row] = await source.query<Row[]>(SQL);
  return row ? keptOf(row) : null;
}

/** Which plan stands; null while none was ever made. */
export async function keptRevision(source: DataSource): Promise<number | null> {
  const [row] = await source.query<Pick<Row, 'revision'>[]>('SELECT revision FROM day_plan WHERE id = 1');
  return row?.revision ?? null;
}

function keptOf({ revision, basis, madeAt, body }: Row): KeptPlan | null {
  const parsed = JSON.parse(body) as PlanBody | null;
  return parsed && { revision, basis, madeAtMs: madeAt.getTime(), body: parsed };
}

/**
 * Keeps a plan, unless another stands meanwhile: whoever was first is right, and the other one is told.
 * @param on the revision that it was made on; 0 for the first
 * @returns the plan that stands now
 */
export async function keepPlan(
  source: DataSource,
  on: number,
  basis: string,
  body: PlanBody,
  prepared: Pick<Prepared, 'steps'>,
): Promise<KeptPlan | null> {
  return inTransaction(source, async (manager) => {
    const [row] = await manager.query<Row[]>(`${SQL} FOR UPDATE`);
    if (!row || row.revision !== on) return row ? keptOf(row) : null;
    await manager.query(
      'UPDATE day_plan SET revision = ?, basis = ?, madeAt = UTC_TIMESTAMP(3), body = ? WHERE id = 1',
      [on + 1, basis, JSON.stringify(body)],
    );
    // What was planned first is what is held against what came: later plans know more.
    for (let at = 0; at < prepared.steps.length; at += STEPS_AT_ONCE) {
      const part = prepared.steps.slice(at, at + STEPS_AT_ONCE);
      await manager.query(
        `INSERT IGNORE INTO planned_step (unitId, step, seconds) VALUES ${part.map(() => '(?, ?, ?)').join(', ')}`,
        part.flatMap(({ unitId, step, seconds }) => [unitId, step, seconds]),
      );
    }
    for (const { orderId, ready } of body.forecasts)
      if (ready)
        await manager.query(
          'INSERT IGNORE INTO planned_order (orderId, saidAt, body) VALUES (?, UTC_TIMESTAMP(3), ?)',
          [
            orderId,
            JSON.stringify(
              Object.fromEntries(Object.entries(ready).map(([of, s]) => [of, Math.round(body.startMs + s * 1000)])),
            ),
          ],
        );
    return { revision: on + 1, basis, madeAtMs: Date.now(), body };
  });
}

/** Takes the plan's lock, and makes it one that has to be made anew. Throws `planMoved` where it moved already. */
export async function moveOn(manager: EntityManager, from: number): Promise<void> {
  const [row] = await manager.query<Pick<Row, 'revision'>[]>('SELECT revision FROM day_plan WHERE id = 1 FOR UPDATE');
  if (row?.revision !== from) throw new HttpProblem('planMoved');
  await manager.query("UPDATE day_plan SET revision = ?, basis = '' WHERE id = 1", [from + 1]);
}

const STEPS_AT_ONCE = 500;
