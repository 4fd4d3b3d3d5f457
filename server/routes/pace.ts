import type { FastifyInstance } from 'fastify';
import type { Pace } from '@decurio/core';
import { paceRequest, type PaceView } from '@decurio/contract';
import { permit } from '../security/roles.js';
import { keepPace, readPace } from '../store/accounts.js';

export async function paceRoutes(app: FastifyInstance): Promise<void> {
  app.get(
    '/pace',
    { schema: { summary: 'The pace learnt of the person signed in' }, config: { act: 'look' } },
    async (request): Promise<PaceView> => ({
      pace: await readPace(app.source, permit(request.session, 'look').userId),
    }),
  );

  app.put<{ Body: Pace }>(
    '/pace',
    { schema: { summary: 'Keep the pace that practice has learnt', body: paceRequest }, config: { act: 'look' } },
    async (request): Promise<PaceView> => {
      await keepPace(app.source, permit(request.session, 'look').userId, request.body);
      return { pace: request.body };
    },
  );
}
