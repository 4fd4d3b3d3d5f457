import { momentIn } from '@decurio/core';
import type { OfferRequest, OfferView } from '@decurio/contract';
import type { FastifyInstance } from 'fastify';
import { HttpProblem } from '../problems.js';
import { offeredOrder } from './offered-order.js';
import { currentPlan, planFrom, SEED } from './the-plan.js';
import { readyByOf } from './view.js';

type House = Pick<FastifyInstance, 'source' | 'planner'>;

/** What can be promised of an order before it is taken. */
export async function offerView(house: House, asked: OfferRequest, signal: AbortSignal): Promise<OfferView> {
  const { kept, inputs, prepared } = await currentPlan(house);
  const { problem, surprises, startMs } = prepared;
  const momentOf = (clock: string | null): number | null => {
    if (clock === null) return null;
    const ms = momentIn(inputs.zone, clock);
    if (ms === null) throw new HttpProblem('badRequest', { message: `There is no such time as ${clock}.` });
    return Math.round((ms - startMs) / 1000);
  };
  const arrivesS = Math.max(0, momentOf(asked.arrives) ?? 0);
  const of = { orderId: 'offered', units: asked.units, arrivesS, dueS: null };
  const { order, units, lengths } = await offeredOrder(house, of, inputs, prepared);
  const { behind, wanted } = await house.planner.offer(
    {
      problem,
      lengths: { ...prepared.lengths, ...lengths },
      surprises,
      seed: SEED,
      plan: planFrom(kept.body, startMs),
      order,
      units,
      wantedS: momentOf(asked.wanted),
    },
    signal,
  );
  const orderOf = (id: string) => inputs.orders.find((order) => order.id === id);
  return {
    behind: readyByOf(behind.ready, startMs),
    wanted: wanted && {
      inTime: wanted.forecast.inTime,
      readyBy: readyByOf(wanted.forecast.ready, startMs),
      pushes: wanted.pushes.map(({ orderId: id, lateS, inTime }) => ({
        number: orderOf(id)?.number ?? '',
        customer: orderOf(id)?.customer ?? '',
        lateS,
        inTime,
      })),
    },
  };
}
