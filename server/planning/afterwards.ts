import { STEPS, momentIn, type StepId } from '@decurio/core';
import type { AfterwardsQuery, AfterwardsView, ReadyBy } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problems.js';
import { houseOf } from '../store/house.js';

/** What was planned of units that were sealed on these days of the house, and what came of it. */
export async function afterwards(source: DataSource, { from, to }: AfterwardsQuery): Promise<AfterwardsView> {
  const { zone } = await houseOf(source.manager);
  const midnight = (day: string): Date => {
    const ms = momentIn(zone, `${day}T00:00`);
    if (ms === null)
      throw new HttpProblem('badRequest', { message: `There is no day ${day}. Write it as 2026-03-01.` });
    return new Date(ms);
  };
  const span = [midnight(from), new Date(midnight(to).getTime() + DAY_MS)];
  const [steps, orders] = await Promise.all([
    source.query<{ step: StepId; units: string; planned: number; actual: number }[]>(
      `SELECT s.step, COUNT(*) AS units, AVG(p.seconds) / 60 AS planned, AVG(s.minutes) AS actual
       FROM left_visit l JOIN left_step s ON s.visitId = l.visitId JOIN planned_step p ON p.unitId = l.unitId AND p.step = s.step
       WHERE l.sealedAt >= ? AND l.sealedAt < ? GROUP BY s.step`,
      span,
    ),
    source.query<
      { number: string; customer: string; saidAt: Date; body: string; isDone: number; readyAt: Date | null }[]
    >(
      `SELECT o.number, o.customer, p.saidAt, p.body, o.sealed >= o.units AS isDone, MAX(l.sealedAt) AS readyAt
       FROM planned_order p JOIN customer_order o ON o.id = p.orderId LEFT JOIN left_visit l ON l.orderId = o.id
       GROUP BY o.id HAVING MAX(l.sealedAt) >= ? AND MAX(l.sealedAt) < ? ORDER BY o.dueAt LIMIT 100`,
      span,
    ),
  ]);
  const order = STEPS.map(({ id }): string => id);
  return {
    steps: steps
      .map(({ step, units, planned, actual }) => ({
        step,
        units: Number(units),
        planned: Number(planned),
        real: Number(actual),
      }))
      .sort((a, b) => order.indexOf(a.step) - order.indexOf(b.step)),
    orders: orders.map(({ number, customer, saidAt, body, isDone, readyAt }) => ({
      number,
      customer,
      saidAtMs: saidAt.getTime(),
      said: JSON.parse(body) as ReadyBy,
      readyMs: Number(isDone) === 1 && readyAt ? readyAt.getTime() : null,
    })),
  };
}

const DAY_MS = 86_400_000;
