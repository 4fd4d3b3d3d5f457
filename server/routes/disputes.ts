import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import { newDisputeRequest, settleDisputeRequest, type NewDispute, type SettleDispute } from '@decurio/contract';
import { permit } from '../security/roles.js';
import { listDisputes, raiseDispute, settleDispute } from '../store/disputes.js';
import { getDocument } from '../store/library.js';
import { inTransaction } from '../store/transaction.js';

const listQuery = object({
  mapId: string()
    .strict()
    .matches(/^[a-z0-9-]{1,60}$/, 'No display map has such an id.'),
}).noUnknown();
const idParams = object({ id: string().uuid().required() });

export async function disputeRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Querystring: { mapId?: string } }>(
    '/disputes',
    {
      schema: { summary: 'Disputes on display maps, open ones first', querystring: listQuery },
      config: { act: 'look' },
    },
    async (request) => listDisputes(app.source, request.query.mapId),
  );

  app.post<{ Body: NewDispute }>(
    '/disputes',
    { schema: { summary: 'Dispute a display map', body: newDisputeRequest }, config: { act: 'dispute' } },
    async (request, reply) => {
      const { name } = permit(request.session, 'dispute');
      const dispute = await inTransaction(app.source, async (manager) => {
        await getDocument(manager, 'displayMap', request.body.mapId, request.body.mapVersion);
        return raiseDispute(manager, request.body, name);
      });
      return reply.status(201).send(dispute);
    },
  );

  app.post<{ Params: { id: string }; Body: SettleDispute }>(
    '/disputes/:id/settle',
    {
      schema: { summary: 'Settle a dispute in writing', params: idParams, body: settleDisputeRequest },
      config: { act: 'editLibrary' },
    },
    async (request) =>
      settleDispute(app.source, request.params.id, request.body.words, permit(request.session, 'editLibrary').name),
  );
}
