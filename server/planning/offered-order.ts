import type { PlanOrder, PlanUnit } from '@decurio/core';
import type { FastifyInstance } from 'fastify';
import { getDocument, newestDocuments } from '../store/library.js';
import type { PlanInputs } from './inputs.js';
import { offeredUnits, type Prepared } from './prepare.js';

interface Offered {
  /** Its id in the plan. */
  readonly orderId: string;
  readonly units: readonly { readonly typeId: string; readonly mapId: string | null; readonly count: number }[];
  readonly arrivesS: number;
  readonly dueS: number | null;
}

/** An order that nobody took yet, as the plan has orders, with how long its tasks take. Throws `notFound` for a type that is not there. */
export async function offeredOrder(
  { source: { manager } }: Pick<FastifyInstance, 'source'>,
  { orderId, units, arrivesS, dueS }: Offered,
  inputs: PlanInputs,
  prepared: Prepared,
): Promise<{
  readonly order: PlanOrder;
  readonly units: readonly PlanUnit[];
  readonly lengths: Prepared['lengths'];
}> {
  const types = await Promise.all(
    units.map(async ({ typeId, mapId, count }) => {
      const type = (await getDocument(manager, 'vehicleType', typeId)).document;
      return { type, mapId: mapId ?? type.maps[0] ?? '', count, needsFull: true };
    }),
  );
  // Nobody has said yet whose rules it takes: the house's own.
  const rules = (await newestDocuments(manager, 'houseRules')).find(({ document }) => document.customer === null);
  const offered = offeredUnits(types, inputs, prepared, orderId, arrivesS, rules?.document ?? null);
  return { order: { id: orderId, name: orderId, dueS, weight: 1 }, ...offered };
}
