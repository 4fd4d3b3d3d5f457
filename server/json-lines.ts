import { Readable } from 'node:stream';
import type { FastifyReply } from 'fastify';

async function* asLines(lines: AsyncIterable<object>): AsyncGenerator<string> {
  for await (const line of lines) yield `${JSON.stringify(line)}\n`;
}

/** Answers line by line as they come, each of them JSON. */
export const sendLines = (reply: FastifyReply, lines: AsyncIterable<object>): FastifyReply =>
  reply
    .type('application/x-ndjson')
    .header('cache-control', 'no-store')
    .send(Readable.from(asLines(lines)));
