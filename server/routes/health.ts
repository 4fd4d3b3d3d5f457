import type { FastifyInstance } from 'fastify';

/** Whether this process and its database answer. */
export async function healthRoutes(app: FastifyInstance): Promise<void> {
  app.get('/health', { logLevel: 'warn', schema: { summary: 'Whether server and database answer' }, config: { act: 'anyone' } }, async (_request, reply) => {
    try {
      await app.source.query('SELECT 1');
      return { ok: true, database: true };
    } catch {
      return reply.status(503).send({ ok: false, database: false });
    }
  });
}
