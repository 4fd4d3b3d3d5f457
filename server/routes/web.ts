import fastifyStatic from '@fastify/static';
import type { FastifyInstance } from 'fastify';
import { nothingHere } from '../error-handler.js';

/** Serves the built web app; addresses that are places in it get its page. */
export async function serveWeb(app: FastifyInstance, root: string): Promise<void> {
  await app.register(fastifyStatic, {
    root,
    preCompressed: true,
    setHeaders: (reply, path) => {
      reply.setHeader('cache-control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache');
    },
  });
  app.setNotFoundHandler((request, reply) => {
    const isPlace = request.method === 'GET' && !request.url.startsWith('/api/') && !/\.[a-z0-9]+$/i.test(request.url.split('?')[0] ?? '');
    return isPlace ? reply.sendFile('index.html') : nothingHere(request, reply);
  });
}
