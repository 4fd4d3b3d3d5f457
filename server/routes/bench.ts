import type { FastifyInstance } from 'fastify';
import { object, string, ValidationError, type InferType } from 'yup';
import {
  countersignRequest,
  displayFoundRequest,
  evidenceSchemas,
  newEvidenceRequest,
  openVisitRequest,
  type CountersignRequest,
  type DisplayFoundRequest,
  type EntryTaken,
  type NewEvidence,
  type OpenVisitRequest,
} from '@decurio/contract';
import { HttpProblem } from '../problems.js';
import { countersign } from '../store/countersign.js';
import { findDisplay } from '../store/find-display.js';
import { noticeUnit } from '../store/notice-visits.js';
import { sparesFor } from '../store/spares.js';
import { readBench } from '../store/units.js';
import { appendEvidence } from '../store/append-evidence.js';
import { openVisit } from '../store/visits.js';
import { writerOf } from './writer.js';

const unitParams = object({ unitId: string().uuid().required() });
const visitParams = unitParams.shape({ visitId: string().uuid().required() });

export async function benchRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: InferType<typeof unitParams> }>(
    '/units/:unitId/bench',
    { schema: { summary: 'Everything the bench needs for one unit', params: unitParams }, config: { act: 'look' } },
    async (request) => readBench(app.source, request.params.unitId),
  );

  app.post<{ Params: InferType<typeof unitParams>; Body: OpenVisitRequest }>(
    '/units/:unitId/visits',
    { schema: { summary: 'Begin a visit', params: unitParams, body: openVisitRequest }, config: { act: 'work' } },
    async (request, reply) => {
      const writer = writerOf(request, 'work');
      const { unitId } = request.params;
      const entry = await openVisit(app.source, unitId, request.body, writer);
      await noticeUnit(app.source, unitId, writer);
      return reply.status(201).send(entry);
    },
  );

  app.post<{ Params: InferType<typeof visitParams>; Body: NewEvidence }>(
    '/units/:unitId/visits/:visitId/evidence',
    {
      schema: { summary: 'Add an entry to a visit', params: visitParams, body: newEvidenceRequest },
      config: { act: 'work' },
    },
    async (request, reply) => {
      const draft = request.body;
      checkData(draft);
      const writer = writerOf(request, draft.kind === 'released' ? 'release' : 'work');
      const { unitId, visitId } = request.params;
      const { entry, followed, isReplay } = await appendEvidence(app.source, unitId, visitId, draft, writer);
      const taken: EntryTaken = { entry, followed };
      return reply.status(isReplay ? 200 : 201).send(taken);
    },
  );

  app.get<{ Params: InferType<typeof unitParams> }>(
    '/units/:unitId/spares',
    {
      schema: { summary: 'Spare displays that are keyed and may go on this unit', params: unitParams },
      config: { act: 'look' },
    },
    async (request) => sparesFor(app.source, request.params.unitId),
  );

  app.post<{ Params: InferType<typeof visitParams>; Body: DisplayFoundRequest }>(
    '/units/:unitId/visits/:visitId/display',
    {
      schema: {
        summary: 'Say which display the unit turned out to carry',
        params: visitParams,
        body: displayFoundRequest,
      },
      config: { act: 'work' },
    },
    async (request, reply) => {
      const { unitId, visitId } = request.params;
      const entry = await findDisplay(app.source, unitId, visitId, request.body, writerOf(request, 'work'));
      return reply.status(201).send(entry);
    },
  );

  app.post<{ Params: InferType<typeof visitParams>; Body: CountersignRequest }>(
    '/units/:unitId/visits/:visitId/countersignature',
    {
      schema: {
        summary: 'Sign beside whoever is signed in, with a password of one’s own',
        params: visitParams,
        body: countersignRequest,
      },
      config: { act: 'work' },
    },
    async (request, reply) => {
      const writer = writerOf(request, 'work');
      const entry = await countersign(app.source, request.params, request.body, writer, request.ip);
      return reply.status(201).send(entry);
    },
  );
}

function checkData(draft: NewEvidence): void {
  try {
    evidenceSchemas[draft.kind].validateSync(draft.data, { abortEarly: false, strict: true });
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    throw new HttpProblem('badFields', {
      fields: Object.fromEntries(inner.map((e) => [`data.${e.path ?? ''}`, e.message])),
    });
  }
}
