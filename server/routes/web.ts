import fastifyStatic from '@fastify/static';
import type { FastifyInstance } from 'fastify';
import { nothingHere } from '../error-handler.js';

/** Serves the built web app to anyone; addresses that are places in it get its page. */
export async function serveWeb(app: FastifyInstance, root: string): Promise<void> {
  await app.register(fastifyStatic, {
    root,
    serve: false,
    preCompressed: true,
    // Its own would take the place of ours.
    cacheControl: false,
    setHeaders: (reply, path) => {
      reply.setHeader('cache-control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache');
    },
  });
  app.get<{ Params: { '*': string } }>(
    '/*',
    { schema: { hide: true, summary: 'The web app' }, config: { act: 'anyone' } },
    (request, reply) => {
      const path = request.params['*'];
      if (path === 'api' || path.startsWith('api/')) return nothingHere(request, reply);
      return reply.sendFile(isPlace(path) ? 'index.html' : path);
    },
  );
  app.setNotFoundHandler(nothingHere);
}

/** An address without a file's ending is a place in the app. */
const isPlace = (path: string): boolean => !/\.[a-z0-9]+$/i.test(path);
