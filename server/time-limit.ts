import type { FastifyInstance, FastifyReply } from 'fastify';
import { HttpProblem } from './problems.js';

/**
 * Answers every request within `ms`, if only to say that it took too long. What was begun for it may still end by
 * itself; nobody is kept waiting. Streams, which have begun to answer, go on.
 */
export function limitTime(app: FastifyInstance, ms: number): void {
  app.addHook('onRequest', async (_request, reply) => {
    const timer = setTimeout(() => {
      if (!reply.sent && !reply.raw.headersSent) void reply.send(new HttpProblem('tookTooLong'));
    }, ms);
    reply.raw.once('close', () => clearTimeout(timer));
  });
}

/** Stops what is done for a request once whoever asked has hung up. The request itself closes as soon as it was read. */
export function goneSignal({ raw }: FastifyReply): AbortSignal {
  const controller = new AbortController();
  raw.once('close', () => {
    if (!raw.writableFinished) controller.abort();
  });
  return controller.signal;
}
