import type { FastifyInstance, FastifyRequest } from 'fastify';
import { HttpProblem } from '../problems.js';

/** Stands for a body that was not kept. */
class TooLarge {
  constructor(readonly says: string) {}
}

/**
 * Takes bodies of one kind of content as bytes, unread, in the plugin that this is called in: a thread reads them. What
 * is too large is refused as soon as that is known. What still comes of it is let run off, so that the sender hears the
 * answer; the time limit of a request bounds that.
 * @param tooLarge what whoever sends more than `mostBytes` is told
 */
export function takeRaw(
  app: FastifyInstance,
  {
    contentType,
    mostBytes,
    tooLarge,
  }: { readonly contentType: string; readonly mostBytes: number; readonly tooLarge: string },
): void {
  app.removeContentTypeParser(contentType);
  app.addContentTypeParser(contentType, (request, payload, done) => {
    // Not as an error of the parser: that would hang up on a sender who is still talking and hears nothing.
    const refuse = () => done(null, new TooLarge(tooLarge));
    if (Number(request.headers['content-length'] ?? 0) > mostBytes) {
      payload.resume();
      return refuse();
    }
    const chunks: Buffer[] = [];
    let size = 0;
    payload.on('data', (chunk: Buffer) => {
      const before = size;
      size += chunk.length;
      if (size <= mostBytes) chunks.push(chunk);
      else if (before <= mostBytes) {
        chunks.length = 0;
        refuse();
      }
    });
    payload.once('end', () => {
      if (size <= mostBytes) done(null, Buffer.concat(chunks));
    });
    payload.once('error', (error) => done(error, undefined));
  });
}

/** The bytes of a body that `takeRaw` took. */
export function rawBody({ body }: FastifyRequest): Buffer {
  if (body instanceof TooLarge) throw new HttpProblem('tooLarge', { message: body.says });
  if (!Buffer.isBuffer(body)) throw new HttpProblem('wrongMedia');
  return body;
}
