import type { IncomingMessage } from 'node:http';
import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import { INTAKE_LIMITS, intakeQuery, type IntakeQuery } from '@decurio/contract';
import { checkIntake, takeIntake } from '../intake/intakes.js';
import { HttpProblem } from '../problems.js';
import { permit } from '../security/roles.js';

const idParams = object({ id: string().uuid().required() });
/** Of a file that is too large, this much is still read and thrown away, so that the sender hears why. */
const DRAINED_BYTES = 64 * 1024 * 1024;

export async function intakeRoutes(app: FastifyInstance): Promise<void> {
  app.addContentTypeParser('text/csv', { bodyLimit: DRAINED_BYTES }, (_request, payload, done) => done(null, payload));

  app.post<{ Querystring: IntakeQuery; Body: IncomingMessage }>(
    '/intakes',
    { schema: { summary: 'Check an order file (CSV as body); nothing is taken yet', querystring: intakeQuery, consumes: ['text/csv'] }, config: { act: 'takeOrders' } },
    async (request) => {
      const { userId } = permit(request.session, 'takeOrders');
      if (request.headers['content-type']?.startsWith('text/csv') !== true) throw new HttpProblem('wrongMedia');
      const bytes = await readWithin(request.body, INTAKE_LIMITS.bytes);
      return checkIntake(app.source, { intakeId: request.query.id, fileName: request.query.fileName, bytes }, userId);
    },
  );

  app.post<{ Params: { id: string } }>(
    '/intakes/:id/take',
    { schema: { summary: 'Take the good rows of a checked file into their order', params: idParams }, config: { act: 'takeOrders' } },
    async (request) => takeIntake(app.source, request.params.id, permit(request.session, 'takeOrders').userId),
  );
}

async function readWithin(stream: IncomingMessage, limit: number): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size <= limit) chunks.push(chunk);
    if (size > DRAINED_BYTES) break;
  }
  if (size > limit) {
    const megabytes = (bytes: number) => Math.round(bytes / 1024 / 1024);
    throw new HttpProblem('tooLarge', {
      message: `The file is larger than ${megabytes(limit)} MB, more than any order of ${INTAKE_LIMITS.rows.toLocaleString('en')} units needs. Nothing was taken. Split it, or look whether it is the right file.`,
    });
  }
  return Buffer.concat(chunks);
}
