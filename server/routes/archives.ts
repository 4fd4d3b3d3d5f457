import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { FastifyInstance, FastifyReply } from 'fastify';
import { object, string } from 'yup';
import { checkArchive } from '../archive/check-archive.js';
import { ArchiveFault, openArchive, type OpenArchive } from '../archive/open-archive.js';
import { fileName, writeArchive } from '../archive/write-archive.js';
import { HttpProblem } from '../problems.js';
import { dropArchive, elsewhereRecord, elsewhereView, takeArchive } from '../store/elsewhere.js';
import { Orders } from '../store/entities.js';
import { goneSignal } from '../time-limit.js';
import { writerOf } from './writer.js';

const idParams = object({ id: string().uuid().required() });
const MOST_BYTES = 2 * 1024 * 1024 * 1024;
const TOO_LARGE = 'An archive has at most 2 GB. Take it in order by order.';

/** Archives leave the house, and those of others are checked before they are believed. */
export async function archiveRoutes(app: FastifyInstance): Promise<void> {
  const send = (reply: FastifyReply, name: string, body: Readable) =>
    reply
      .header('content-disposition', `attachment; filename="${fileName(name)}-archive.zip"`)
      .type('application/zip')
      .send(body);

  app.get<{ Params: { id: string } }>(
    '/orders/:id/archive.zip',
    { schema: { summary: 'Everything of an order in one file', params: idParams }, config: { act: 'release' } },
    async (request, reply) => {
      const order = await app.source.manager.findOneBy(Orders, { id: request.params.id });
      if (!order) throw new HttpProblem('notFound', { message: 'There is no such order.' });
      const of = { what: 'order', orderId: order.id, name: order.number } as const;
      return send(reply, `order-${order.number}`, await writeArchive(app, of));
    },
  );

  app.get<{ Querystring: { customer: string } }>(
    '/archives/customer',
    {
      schema: {
        summary: 'Everything of a customer in one file',
        querystring: object({ customer: string().trim().min(1).max(120).required() }).noUnknown(),
      },
      config: { act: 'release' },
    },
    async (request, reply) =>
      send(reply, request.query.customer, await writeArchive(app, { what: 'customer', name: request.query.customer })),
  );

  app.get<{ Querystring: { archive?: string } }>(
    '/elsewhere',
    {
      schema: {
        summary: 'Archives of other houses, and the records of one of them',
        querystring: object({ archive: string().matches(/^[0-9a-f]{64}$/) }).noUnknown(),
      },
      config: { act: 'look' },
    },
    async (request) => elsewhereView(app.source, request.query.archive),
  );

  app.get<{ Params: { id: string } }>(
    '/elsewhere/:id',
    { schema: { summary: 'A record of another house', params: idParams }, config: { act: 'look' } },
    async (request) => elsewhereRecord(app.source, request.params.id),
  );

  app.post<{ Params: { archive: string } }>(
    '/elsewhere/:archive/dropped',
    {
      schema: {
        summary: 'Take out an archive of another house, with all that it says of persons',
        params: object({
          archive: string()
            .matches(/^[0-9a-f]{64}$/)
            .required(),
        }),
      },
      config: { act: 'keepHouse' },
    },
    async (request) => {
      await dropArchive(app.source, request.params.archive);
      return {};
    },
  );

  await app.register(async (files) => {
    files.removeContentTypeParser('application/zip');
    files.addContentTypeParser('application/zip', (_request, payload, done) => done(null, payload));
    files.post<{ Querystring: { take?: string }; Body: Readable | undefined }>(
      '/archives',
      {
        schema: {
          summary:
            'Check an archive (ZIP as body) of another house; with take=true it is taken in where all of it holds',
          consumes: ['application/zip'],
          querystring: object({ take: string().oneOf(['true']) }).noUnknown(),
        },
        bodyLimit: MOST_BYTES,
        config: { act: 'decide' },
      },
      async (request, reply) => {
        const writer = writerOf(request, 'decide');
        if (Number(request.headers['content-length'] ?? 0) > MOST_BYTES) {
          request.body?.resume();
          throw new HttpProblem('tooLarge', { message: TOO_LARGE });
        }
        const signal = goneSignal(reply);
        return withFile(request.body, async (path) => {
          const archive = await opened(path);
          try {
            const checked = await checkArchive(app.source.manager, app.readers, archive, signal);
            const { report } = checked;
            if (request.query.take !== 'true' || !report.holds) return report;
            await takeArchive(app.source, archive, checked, writer);
            return { ...report, isTaken: true };
          } finally {
            archive.close();
          }
        });
      },
    );
  });
}

async function opened(path: string): Promise<OpenArchive> {
  try {
    return await openArchive(path);
  } catch (error) {
    if (!(error instanceof ArchiveFault)) throw error;
    throw new HttpProblem('badArchive', { message: error.message });
  }
}

/** A body in a file of its own, for as long as it is looked at. */
async function withFile<T>(body: Readable | undefined, look: (path: string) => Promise<T>): Promise<T> {
  if (!body || typeof body.pipe !== 'function') throw new HttpProblem('wrongMedia');
  const folder = await mkdtemp(join(tmpdir(), 'decurio-archive-'));
  const path = join(folder, `${randomUUID()}.zip`);
  try {
    await pipeline(body, atMost(MOST_BYTES), createWriteStream(path, { mode: 0o600 }));
    return await look(path);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

function atMost(bytes: number): Transform {
  let size = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      size += chunk.length;
      if (size > bytes) done(new HttpProblem('tooLarge', { message: TOO_LARGE }));
      else done(null, chunk);
    },
  });
}
