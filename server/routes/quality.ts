import type { FastifyInstance } from 'fastify';
import { countedRequest, qualityQuery, type CountedView, type QualityQuestion } from '@decurio/contract';
import { permit } from '../security/roles.js';
import { agreesToCount, letCount, qualityOf } from '../store/quality.js';

/** How the work goes, for leads; of one person alone only where they agreed to it. */
export async function qualityRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Querystring: QualityQuestion }>(
    '/quality',
    {
      schema: { summary: 'How the work went: right at first, minutes, slips, holds', querystring: qualityQuery },
      config: { act: 'decide' },
    },
    async (request) => qualityOf(app.source, request.query),
  );

  app.get(
    '/session/counted',
    {
      schema: { summary: 'Whether one agreed that one’s own work is counted for oneself' },
      config: { act: 'ownSessions' },
    },
    async (request): Promise<CountedView> => ({
      agrees: await agreesToCount(app.source, permit(request.session, 'ownSessions').userId),
    }),
  );

  app.put<{ Body: CountedView }>(
    '/session/counted',
    {
      schema: { summary: 'Agree to it, or take that back', body: countedRequest },
      config: { act: 'ownSessions' },
    },
    async (request): Promise<CountedView> => {
      await letCount(app.source, permit(request.session, 'ownSessions').userId, request.body.agrees);
      return request.body;
    },
  );
}
