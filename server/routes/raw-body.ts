import type { FastifyError, FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { handleError } from '../error-handler.js';
import { HttpProblem } from '../problems.js';

/**
 * Takes bodies of one kind of content as bytes, unread, in the plugin that this is called in: a thread reads them.
 * @param tooLarge what whoever sends more than `mostBytes` is told
 */
export function takeRaw(app: FastifyInstance, { contentType, mostBytes, tooLarge }: { readonly contentType: string; readonly mostBytes: number; readonly tooLarge: string }): void {
  app.removeContentTypeParser(contentType);
  app.addContentTypeParser(contentType, { parseAs: 'buffer', bodyLimit: mostBytes }, (_request, body, done) => done(null, body));
  app.setErrorHandler((error: FastifyError, request: FastifyRequest, reply: FastifyReply) => {
    handleError(error.code === 'FST_ERR_CTP_BODY_TOO_LARGE' ? new HttpProblem('tooLarge', { message: tooLarge }) : error, request, reply);
  });
}

/** The bytes of a body that `takeRaw` took. */
export function rawBody({ body }: FastifyRequest): Buffer {
  if (!Buffer.isBuffer(body)) throw new HttpProblem('wrongMedia');
  return body;
}
