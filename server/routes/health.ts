import type { FastifyInstance } from 'fastify';
import { databaseAnswers } from '../store/database-answers.js';

/** Whether this process and its database answer; says so within two seconds either way. */
export async function healthRoutes(app: FastifyInstance): Promise<void> {
  const ask = databaseAnswers(app.source);
  app.get(
    '/health',
    { logLevel: 'warn', schema: { summary: 'Whether server and database answer' }, config: { act: 'anyone' } },
    async (_request, reply) => {
      const isThere = await ask();
      return reply.status(isThere ? 200 : 503).send({ ok: isThere, database: isThere });
    },
  );
}
