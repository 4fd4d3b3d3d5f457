import type { FastifyInstance, FastifyRequest } from 'fastify';
import { object, string, ValidationError, type InferType } from 'yup';
import {
  countersignRequest,
  displayFoundRequest,
  evidenceSchemas,
  newEntriesRequest,
  newEvidenceRequest,
  openVisitRequest,
  type CountersignRequest,
  type DisplayFoundRequest,
  type EntriesTaken,
  type EntryTaken,
  type NewEntriesRequest,
  type NewEvidence,
  type OpenVisitRequest,
} from '@decurio/contract';
import { errorBody, HttpProblem } from '../problems.js';
import { countersign } from '../store/countersign.js';
import { findDisplay } from '../store/find-display.js';
import { noticeUnit } from '../store/notice-visits.js';
import { sparesFor } from '../store/spares.js';
import { readBench } from '../store/units.js';
import { appendEvidence } from '../store/append-evidence.js';
import { openVisit } from '../store/open-visit.js';
import type { Writer } from '../store/writer.js';
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
      const { unitId, visitId } = request.params;
      const { taken, refused } = await appendEvidence(
        app.source,
        unitId,
        visitId,
        [draft],
        writerFor(request, [draft]),
      );
      const [first] = taken;
      if (!first) throw refused ?? new Error('an entry is taken or refused');
      const { entry, followed, isReplay } = first;
      return reply.status(isReplay ? 200 : 201).send({ entry, followed } satisfies EntryTaken);
    },
  );

  app.post<{ Params: InferType<typeof visitParams>; Body: NewEntriesRequest }>(
    '/units/:unitId/visits/:visitId/entries',
    {
      schema: {
        summary: 'Add entries that waited to a visit, up to the first that is refused',
        params: visitParams,
        body: newEntriesRequest,
      },
      config: { act: 'work' },
    },
    async (request): Promise<EntriesTaken> => {
      const { entries } = request.body;
      entries.forEach(checkData);
      const { unitId, visitId } = request.params;
      const { taken, refused } = await appendEvidence(
        app.source,
        unitId,
        visitId,
        entries,
        writerFor(request, entries),
      );
      return {
        taken: taken.map(({ entry, followed }) => ({ entry, followed })),
        refused: refused && { ...errorBody(refused).error, status: refused.statusCode },
      };
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

const writerFor = (request: FastifyRequest, drafts: readonly NewEvidence[]): Writer =>
  writerOf(request, drafts.some(({ kind }) => kind === 'released') ? 'release' : 'work');

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
