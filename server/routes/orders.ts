import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import {
  addUnitsRequest,
  amendRequest,
  decideRequest,
  newOrderRequest,
  pageQuery,
  pinLookRequest,
  recompileRequest,
  wishesRequest,
  withdrawRequest,
  type AddUnitsRequest,
  type AmendRequest,
  type DecideRequest,
  type NewOrderRequest,
  type PageQuery,
  type PinLookRequest,
  type RecompileRequest,
  type WishesRequest,
  type WithdrawRequest,
} from '@decurio/contract';
import {
  addUnits,
  amendOrder,
  decide,
  recompileOrder,
  setWishes,
  takeByHand,
  withdrawUnits,
} from '../store/order-acts.js';
import { endingAuthorities, listOrders, readLine, readOrder } from '../store/orders.js';
import { lookAtPin, type PinSecrets } from '../store/pins.js';
import { findUnit } from '../store/units.js';
import { writerOf } from './writer.js';

const idParams = object({ id: string().uuid().required() });
const serialQuery = object({ serial: string().strict().trim().min(1).max(40).required() }).noUnknown();

type WithId<B = never> = { Params: { id: string }; Body: B };

export async function orderRoutes(
  app: FastifyInstance,
  { pinSecrets }: { readonly pinSecrets: PinSecrets },
): Promise<void> {
  app.get<{ Querystring: PageQuery }>(
    '/orders',
    { schema: { summary: 'Orders, newest first', querystring: pageQuery }, config: { act: 'look' } },
    async (request) => listOrders(app.source, request.query.after),
  );

  app.get(
    '/orders/ending',
    {
      schema: { summary: 'Authorities for private land that have ended or soon will, with units out under them' },
      config: { act: 'look' },
    },
    async () => endingAuthorities(app.source),
  );

  app.post<{ Body: NewOrderRequest }>(
    '/orders',
    { schema: { summary: 'Take an order in by hand', body: newOrderRequest }, config: { act: 'takeOrders' } },
    async (request, reply) =>
      reply.status(201).send(await takeByHand(app.source, request.body, writerOf(request, 'takeOrders'))),
  );

  app.get<WithId>(
    '/orders/:id',
    {
      schema: { summary: 'An order: what was promised, its units by type, how it was changed', params: idParams },
      config: { act: 'look' },
    },
    async (request) => readOrder(app.source, request.params.id),
  );

  app.get<WithId>(
    '/orders/:id/line',
    { schema: { summary: 'An order with all its units', params: idParams }, config: { act: 'look' } },
    async (request) => readLine(app.source, request.params.id),
  );

  app.post<WithId<AmendRequest>>(
    '/orders/:id/amendments',
    {
      schema: { summary: 'Amend an order, with a reason', params: idParams, body: amendRequest },
      config: { act: 'decide' },
    },
    async (request) => amendOrder(app.source, request.params.id, request.body, writerOf(request, 'decide')),
  );

  app.post<WithId<DecideRequest>>(
    '/orders/:id/decisions',
    {
      schema: { summary: 'Choose in writing where a setup asks a lead', params: idParams, body: decideRequest },
      config: { act: 'decide' },
    },
    async (request) => decide(app.source, request.params.id, request.body, writerOf(request, 'decide')),
  );

  app.post<WithId<RecompileRequest>>(
    '/orders/:id/setups',
    {
      schema: { summary: 'Work every setup of an order out anew', params: idParams, body: recompileRequest },
      config: { act: 'decide' },
    },
    async (request) => recompileOrder(app.source, request.params.id, request.body, writerOf(request, 'decide')),
  );

  app.post<WithId<AddUnitsRequest>>(
    '/orders/:id/units',
    {
      schema: { summary: 'Add units to an order', params: idParams, body: addUnitsRequest },
      config: { act: 'takeOrders' },
    },
    async (request, reply) =>
      reply
        .status(201)
        .send(await addUnits(app.source, request.params.id, request.body, writerOf(request, 'takeOrders'))),
  );

  app.post<WithId<WithdrawRequest>>(
    '/orders/:id/withdrawals',
    {
      schema: { summary: 'Take units out of an order', params: idParams, body: withdrawRequest },
      config: { act: 'decide' },
    },
    async (request) => withdrawUnits(app.source, request.params.id, request.body, writerOf(request, 'decide')),
  );

  app.post<WithId<PinLookRequest>>(
    '/orders/:id/pin-looks',
    {
      schema: {
        summary: 'Look at the PIN that policy sets; the look is recorded',
        params: idParams,
        body: pinLookRequest,
      },
      config: { act: 'seePins' },
    },
    async (request) => lookAtPin(app.source, request.params.id, request.body, writerOf(request, 'seePins'), pinSecrets),
  );

  app.put<WithId<WishesRequest>>(
    '/units/:id/wishes',
    {
      schema: { summary: 'Set one unit otherwise than its order', params: idParams, body: wishesRequest },
      config: { act: 'decide' },
    },
    async (request) => setWishes(app.source, request.params.id, request.body, writerOf(request, 'decide')),
  );

  app.get<{ Querystring: { serial: string } }>(
    '/units',
    { schema: { summary: 'The unit with this serial', querystring: serialQuery }, config: { act: 'look' } },
    async (request) => findUnit(app.source, request.query.serial),
  );
}
