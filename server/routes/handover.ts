import type { FastifyInstance } from 'fastify';
import { object, string, ValidationError, type InferType } from 'yup';
import {
  handoverRequest,
  handoverSchemas,
  takeUpRequest,
  type HandoverRequest,
  type TakeUpRequest,
} from '@decurio/contract';
import { HttpProblem } from '../problems.js';
import { addHandover, handoverView } from '../store/handovers.js';
import { takeUp } from '../store/returns.js';
import { writerOf } from './writer.js';

const visitParams = object({ id: string().uuid().required() });

/** What leaves with a sealed unit: a chain of its own, from the seal on. */
export async function handoverRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: InferType<typeof visitParams> }>(
    '/visits/:id/handover',
    { schema: { summary: 'What was handed over with a unit', params: visitParams }, config: { act: 'look' } },
    async (request) => handoverView(app.source, request.params.id),
  );

  app.post<{ Params: InferType<typeof visitParams>; Body: HandoverRequest }>(
    '/visits/:id/handover',
    {
      schema: { summary: 'Add to what is handed over', params: visitParams, body: handoverRequest },
      config: { act: 'work' },
    },
    async (request) => {
      const draft = request.body;
      checkData(draft);
      return addHandover(app.source, request.params.id, draft, writerOf(request, 'work'));
    },
  );

  app.post<{ Params: InferType<typeof visitParams>; Body: TakeUpRequest }>(
    '/visits/:id/taken-up',
    {
      schema: { summary: 'Take a unit that came back up again', params: visitParams, body: takeUpRequest },
      config: { act: 'work' },
    },
    async (request) => takeUp(app.source, request.params.id, request.body, writerOf(request, 'work')),
  );
}

function checkData({ kind, data }: HandoverRequest): void {
  try {
    handoverSchemas[kind].validateSync(data, { abortEarly: false, strict: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    throw new HttpProblem('badFields', {
      fields: Object.fromEntries(inner.map((each) => [`data.${each.path ?? ''}`, each.message])),
    });
  }
}
