import { createHash, timingSafeEqual } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import plugin from 'fastify-plugin';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { HttpProblem } from '../problems.js';
import { databaseAnswers } from '../store/database-answers.js';

const SECONDS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10, 30];

/** What a monitor reads of this process, by a token of its own: nothing of any unit, customer or person. */
export const metrics = plugin(async (app: FastifyInstance, { token }: { readonly token: string }) => {
  const register = new Registry();
  collectDefaultMetrics({ register, prefix: 'decurio_' });
  const took = new Histogram({
    name: 'decurio_request_seconds',
    help: 'How long requests took, by the route that matched',
    labelNames: ['method', 'route', 'status'],
    buckets: SECONDS,
    registers: [register],
  });
  const ask = databaseAnswers(app.source);
  new Gauge({
    name: 'decurio_database_up',
    help: 'Whether the database answers',
    registers: [register],
    async collect() {
      this.set((await ask()) ? 1 : 0);
    },
  });
  new Gauge({
    name: 'decurio_streams_open',
    help: 'Screens that hear of changes as they come',
    registers: [register],
    collect() {
      this.set(app.streams.count());
    },
  });
  app.addHook('onResponse', async (request, reply) => {
    // An address that matched nothing is somebody's text, and there is no end of those.
    const route = request.is404 ? 'none' : (request.routeOptions.url ?? 'none');
    took.observe({ method: request.method, route, status: reply.statusCode }, reply.elapsedTime / 1000);
  });
  const wanted = sha256(`Bearer ${token}`);
  app.get(
    '/metrics',
    { logLevel: 'warn', schema: { hide: true, summary: 'What a monitor reads' }, config: { act: 'anyone' } },
    async (request, reply) => {
      if (!timingSafeEqual(sha256(request.headers.authorization ?? ''), wanted)) throw new HttpProblem('noToken');
      void reply.type(register.contentType);
      return register.metrics();
    },
  );
});

const sha256 = (text: string): Buffer => createHash('sha256').update(text).digest();
