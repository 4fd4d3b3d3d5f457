import type { FastifyInstance } from 'fastify';
import {
  movedParams,
  recallRequest,
  stayRequest,
  type MovingKind,
  type RecallRequest,
  type StayRequest,
} from '@decurio/contract';
import { sendLines } from '../json-lines.js';
import { holdAgainst } from '../ledger/hold-against.js';
import { letStay, movedView, recall } from '../store/recalls.js';
import { goneSignal } from '../time-limit.js';
import { writerOf } from './writer.js';

interface About {
  readonly Params: { readonly kind: MovingKind; readonly id: string };
}

/** Rules, maps, types and house rules that moved while units are out under them. */
export async function movedRoutes(app: FastifyInstance): Promise<void> {
  app.get(
    '/ledger/moved',
    {
      schema: { summary: 'Documents that moved since units left under them, and what ends before long' },
      config: { act: 'look' },
    },
    async () => movedView(app.source),
  );

  app.get<About>(
    '/ledger/moved/:kind/:id',
    {
      schema: {
        summary: 'Hold the units that are out against the newest version: a line a unit, with how far it came',
        params: movedParams,
      },
      config: { act: 'decide' },
    },
    async (request, reply) => sendLines(reply, holdAgainst(app.source, request.params, goneSignal(reply))),
  );

  app.post<About & { Body: StayRequest }>(
    '/ledger/moved/:kind/:id/stays',
    {
      schema: { summary: 'Let units stay as they left, in writing', params: movedParams, body: stayRequest },
      config: { act: 'decide' },
    },
    async (request) => {
      await letStay(app.source, request.params, request.body, writerOf(request, 'decide'));
      return {};
    },
  );

  app.post<About & { Body: RecallRequest }>(
    '/ledger/moved/:kind/:id/recalls',
    {
      schema: { summary: 'Call units back in an order of their own', params: movedParams, body: recallRequest },
      config: { act: 'decide' },
    },
    async (request, reply) =>
      reply.status(201).send(await recall(app.source, request.params, request.body, writerOf(request, 'decide'))),
  );
}
