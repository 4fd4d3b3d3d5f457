import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import { INTAKE_LIMITS, intakeQuery, type IntakeQuery } from '@decurio/contract';
import { checkIntake, takeIntake } from '../intake/intakes.js';
import { permit } from '../security/roles.js';
import { rawBody, takeRaw } from './raw-body.js';
import { goneSignal } from '../time-limit.js';

const idParams = object({ id: string().uuid().required() });
const megabytes = Math.round(INTAKE_LIMITS.bytes / 1024 / 1024);
const TOO_LARGE = `The file is larger than ${megabytes} MB, more than any order of ${INTAKE_LIMITS.rows.toLocaleString('en')} units needs. Nothing was taken. Split it, or look whether it is the right file.`;

export async function intakeRoutes(app: FastifyInstance): Promise<void> {
  await app.register(async (files) => {
    takeRaw(files, { contentType: 'text/csv', mostBytes: INTAKE_LIMITS.bytes, tooLarge: TOO_LARGE });
    files.post<{ Querystring: IntakeQuery }>(
      '/intakes',
      {
        schema: {
          summary: 'Check an order file (CSV as body); nothing is taken yet',
          querystring: intakeQuery,
          consumes: ['text/csv'],
        },
        config: { act: 'takeOrders' },
      },
      async (request, reply) => {
        const { userId } = permit(request.session, 'takeOrders');
        const file = { intakeId: request.query.id, fileName: request.query.fileName, bytes: rawBody(request) };
        return checkIntake(app.source, file, userId, { readers: app.readers, signal: goneSignal(reply) });
      },
    );
  });

  app.post<{ Params: { id: string } }>(
    '/intakes/:id/take',
    {
      schema: { summary: 'Take the good rows of a checked file into their order', params: idParams },
      config: { act: 'takeOrders' },
    },
    async (request) => takeIntake(app.source, request.params.id, permit(request.session, 'takeOrders').userId),
  );
}
