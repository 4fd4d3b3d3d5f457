import type { FastifyInstance } from 'fastify';
import { leaveOutRequest, newBatchRequest, type LeaveOutRequest, type NewBatchRequest } from '@decurio/contract';
import { permit } from '../security/roles.js';
import { leaveOvershootOut } from '../store/overshoots.js';
import { writtenBy } from '../store/personal.js';
import { beginBatch, learntFamilies, leaveRunOut } from '../store/wheel-families.js';

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
      const by = permit(request.session, 'decide');
      await beginBatch(app.source.manager, { ...request.body, by: writtenBy(by) });
      return reply.status(201).send(await learntFamilies(app.source.manager));
    },
  );

  app.post<{ Body: LeaveOutRequest }>(
    '/families/runs/left-out',
    {
      schema: {
        summary: 'Leave a run out of what its family is learnt from, with the reason, or take it in again',
        body: leaveOutRequest,
      },
      config: { act: 'decide' },
    },
    async (request) => {
      const { name } = permit(request.session, 'decide');
      await leaveRunOut(app.source.manager, { ...request.body, by: name });
      return learntFamilies(app.source.manager);
    },
  );

  app.post<{ Body: LeaveOutRequest }>(
    '/families/overshoots/left-out',
    {
      schema: {
        summary: 'Have what one unit showed beyond its cap count no more for the next ones, with the reason, or again',
        body: leaveOutRequest,
      },
      config: { act: 'decide' },
    },
    async (request) => {
      const { name } = permit(request.session, 'decide');
      await leaveOvershootOut(app.source.manager, { ...request.body, by: name });
      return learntFamilies(app.source.manager);
    },
  );
}
