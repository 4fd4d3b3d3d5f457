import type { FastifyInstance } from 'fastify';
import {
  afterwardsQuery,
  keepChangesRequest,
  offerRequest,
  whatIfRequest,
  type AfterwardsQuery,
  type KeepChangesRequest,
  type OfferRequest,
  type PlanOutlook,
  type WhatIfRequest,
} from '@decurio/contract';
import { object, string } from 'yup';
import { sendLines } from '../json-lines.js';
import { afterwards } from '../planning/afterwards.js';
import { orderCalendar, personCalendar, planCsv } from '../planning/exports.js';
import { keepChanges } from '../planning/keep-changes.js';
import { offerView } from '../planning/offers.js';
import { lookLonger, planAfter, planView, remediesOf, whatIf } from '../planning/the-plan.js';
import { permit } from '../security/roles.js';
import { goneSignal } from '../time-limit.js';

const orderParams = object({ id: string().uuid().required() });
const personParams = object({
  id: string()
    .matches(/^[a-z0-9-]{1,60}$/)
    .required(),
});
/** Nothing is asked beside the address: what else stands there is refused before anything is worked out. */
const nothingAsked = object({}).noUnknown();
type WithId = { readonly Params: { readonly id: string } };
/** A search is ended after so long, however good it is. */
const LONGER_MS = 20_000;

/** The plan of the day: the same for everybody, made anew as the day goes. */
export async function planRoutes(app: FastifyInstance): Promise<void> {
  app.get(
    '/plan',
    {
      schema: {
        querystring: nothingAsked,
        summary: 'The plan as it stands: who does what of which unit, when orders are ready',
      },
      config: { act: 'look' },
    },
    async (request) => planView(app, permit(request.session, 'look').userId),
  );

  app.get(
    '/plan/longer',
    {
      schema: {
        querystring: nothingAsked,
        summary: 'Look longer for a better plan: a line a stretch, with how far it came',
      },
      config: { act: 'decide' },
    },
    async (request, reply) => {
      const { userId } = permit(request.session, 'decide');
      return sendLines(reply, lookLonger(app, userId, LONGER_MS, goneSignal(reply)));
    },
  );

  app.get(
    '/plan/outlook',
    {
      schema: {
        querystring: nothingAsked,
        summary: 'When each open order will be ready, its chance to be in time, and what is next for whoever asks',
      },
      config: { act: 'look' },
    },
    async (request): Promise<PlanOutlook> => {
      const { orders, nextForYou } = await planView(app, permit(request.session, 'look').userId);
      return {
        orders: orders.map(({ id, readyBy, inTime, dueMs }) => ({ orderId: id, readyBy, inTime, dueMs })),
        nextForYou,
      };
    },
  );

  app.post<{ Body: WhatIfRequest }>(
    '/plan/what-if',
    {
      schema: { summary: 'How orders would stand, were some things otherwise; nothing is kept', body: whatIfRequest },
      config: { act: 'look' },
    },
    async (request, reply) => whatIf(app, request.body, goneSignal(reply)),
  );

  app.post<{ Body: KeepChangesRequest }>(
    '/plan/changes',
    {
      schema: { summary: 'Keep what was tried: who has which unit, who is there until when', body: keepChangesRequest },
      config: { act: 'decide' },
    },
    async (request) => {
      const { userId } = permit(request.session, 'decide');
      await keepChanges(app, request.body, { userId });
      return planAfter(app, userId);
    },
  );

  app.get<WithId>(
    '/plan/orders/:id/remedies',
    {
      schema: {
        querystring: nothingAsked,
        summary: 'What could be done for an order at risk, with its chance then',
        params: orderParams,
      },
      config: { act: 'look' },
    },
    async (request, reply) => remediesOf(app, request.params.id, goneSignal(reply)),
  );

  app.post<{ Body: OfferRequest }>(
    '/plan/offers',
    {
      schema: {
        summary: 'What can be promised of an order that is offered, and what it would push',
        body: offerRequest,
      },
      config: { act: 'takeOrders' },
    },
    async (request, reply) => offerView(app, request.body, goneSignal(reply)),
  );

  app.get<{ Querystring: AfterwardsQuery }>(
    '/plan/afterwards',
    {
      schema: { summary: 'Planned against what came of it, by step and by order', querystring: afterwardsQuery },
      config: { act: 'decide' },
    },
    async (request) => afterwards(app.source, request.query),
  );

  app.get<WithId>(
    '/plan/orders/:id/ready.ics',
    {
      schema: { querystring: nothingAsked, summary: 'When an order is ready, for a calendar', params: orderParams },
      config: { act: 'look' },
    },
    async (request, reply) =>
      reply
        .type('text/calendar; charset=utf-8')
        .send(orderCalendar(await planView(app, permit(request.session, 'look').userId), request.params.id)),
  );

  app.get<WithId>(
    '/plan/people/:id/day.ics',
    {
      schema: {
        querystring: nothingAsked,
        summary: 'Somebody’s work by the plan, for a calendar',
        params: personParams,
      },
      config: { act: 'look' },
    },
    async (request, reply) =>
      reply
        .type('text/calendar; charset=utf-8')
        .send(personCalendar(await planView(app, permit(request.session, 'look').userId), request.params.id)),
  );

  app.get(
    '/plan.csv',
    { schema: { querystring: nothingAsked, summary: 'The plan as a table' }, config: { act: 'look' } },
    async (request, reply) =>
      reply
        .type('text/csv; charset=utf-8')
        .header('content-disposition', 'attachment; filename="plan.csv"')
        .send(`\uFEFF${planCsv(await planView(app, permit(request.session, 'look').userId))}`),
  );
}
