import type { FastifyInstance } from 'fastify';
import { newBatchRequest, type NewBatchRequest } from '@decurio/contract';
import { permit } from '../security/roles.js';
import { beginBatch, learntFamilies } from '../store/wheel-families.js';

export async function familyRoutes(app: FastifyInstance): Promise<void> {
  app.get(
    '/families',
    {
      schema: { summary: 'What units that were run tell of the next ones, by type, display revision and tyre' },
      config: { act: 'look' },
    },
    async () => learntFamilies(app.source.manager),
  );

  app.post<{ Body: NewBatchRequest }>(
    '/families/batches',
    {
      schema: { summary: 'Begin a new tyre batch: its units are learnt anew', body: newBatchRequest },
      config: { act: 'decide' },
    },
    async (request, reply) => {
      const { name } = permit(request.session, 'decide');
      await beginBatch(app.source.manager, { ...request.body, by: name });
      return reply.status(201).send(await learntFamilies(app.source.manager));
    },
  );
}
