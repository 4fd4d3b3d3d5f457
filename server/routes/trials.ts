import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import {
  endTrialRequest,
  moreRunsRequest,
  newTrialRequest,
  takeRunBackRequest,
  trialRunRequest,
  type EndTrial,
  type MoreRuns,
  type NewTrial,
  type NewTrialRun,
  type TakeRunBack,
} from '@decurio/contract';
import { addRun, beginTrial, drawMore, endTrial, listTrials, takeRunBack } from '../store/trials.js';
import { writerOf } from './writer.js';

const listQuery = object({
  mapId: string()
    .strict()
    .matches(/^[a-z0-9-]{1,60}$/, 'No display map has such an id.')
    .required(),
}).noUnknown();
const idParams = object({ id: string().uuid().required() });
interface OfTrial {
  readonly id: string;
}

export async function trialRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Querystring: { mapId: string } }>(
    '/trials',
    { schema: { summary: 'Trials of the codes of a display', querystring: listQuery }, config: { act: 'look' } },
    async (request) => listTrials(app.source, request.query.mapId),
  );

  app.post<{ Body: NewTrial }>(
    '/trials',
    {
      schema: { summary: 'Begin a trial: values of one code in a drawn order', body: newTrialRequest },
      config: { act: 'work' },
    },
    async (request, reply) =>
      reply.status(201).send(await beginTrial(app.source, request.body, writerOf(request, 'work').by)),
  );

  app.post<{ Params: OfTrial; Body: NewTrialRun }>(
    '/trials/:id/runs',
    {
      schema: { summary: 'Write the next run down', params: idParams, body: trialRunRequest },
      config: { act: 'work' },
    },
    async (request) => addRun(app.source, request.params.id, request.body, writerOf(request, 'work').by),
  );

  app.post<{ Params: OfTrial; Body: TakeRunBack }>(
    '/trials/:id/runs/taken-back',
    {
      schema: { summary: 'Take the newest run back', params: idParams, body: takeRunBackRequest },
      config: { act: 'work' },
    },
    async (request) => takeRunBack(app.source, request.params.id, request.body),
  );

  app.post<{ Params: OfTrial; Body: MoreRuns }>(
    '/trials/:id/more',
    {
      schema: { summary: 'Draw further runs of each value', params: idParams, body: moreRunsRequest },
      config: { act: 'work' },
    },
    async (request) => drawMore(app.source, request.params.id, request.body),
  );

  app.post<{ Params: OfTrial; Body: EndTrial }>(
    '/trials/:id/end',
    {
      schema: { summary: 'End a trial with what follows from it', params: idParams, body: endTrialRequest },
      config: { act: 'editLibrary' },
    },
    async (request) => endTrial(app.source, request.params.id, request.body, writerOf(request, 'editLibrary').by),
  );
}
