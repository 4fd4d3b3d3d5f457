import { Readable } from 'node:stream';
import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import { comparedQuery, keptQuestionBody, ledgerQuestionQuery, pageQuery, type PageQuery } from '@decurio/contract';
import { questionFrom, type LedgerQuestion } from '@decurio/core';
import { answerCsv, answerLines } from '../ledger/answer-lines.js';
import { checkpointNote, listCheckpoints } from '../ledger/checkpoints.js';
import { verifierKey } from '../ledger/signing-key.js';
import { HttpProblem } from '../problems.js';
import { checkRecordFile, checkSeal } from '../ledger/seal-checks.js';
import { rawBody, takeRaw } from './raw-body.js';
import { writerOf } from './writer.js';
import { goneSignal } from '../time-limit.js';
import { dropQuestion, keepQuestion, keptQuestions } from '../store/kept-questions.js';
import { askLedger, ledgerChoices } from '../store/ledger-question.js';
import { exportRecord, listLedger, readRecord } from '../store/ledger.js';
import { compareRefs, unitLife } from '../store/unit-life.js';

const idParams = object({ id: string().uuid().required() });
const RECORD_LIMIT_BYTES = 8 * 1024 * 1024;

export async function ledgerRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Querystring: PageQuery }>(
    '/ledger',
    { schema: { summary: 'Sealed visits, newest first', querystring: pageQuery }, config: { act: 'look' } },
    async (request) => {
      const { after, search } = request.query;
      return listLedger(app.source, { ...(after ? { after } : {}), ...(search ? { search } : {}) });
    },
  );

  app.get<{ Querystring: Record<string, string> }>(
    '/ledger/answer',
    {
      schema: { summary: 'Sealed units that a question asks for', querystring: ledgerQuestionQuery },
      config: { act: 'look' },
    },
    async (request) =>
      askLedger(
        app.source,
        questionFrom((name) => request.query[name]),
        request.query['after'],
      ),
  );

  app.get<{ Querystring: Record<string, string>; Params: { as: string } }>(
    '/ledger/answer/file/:as',
    {
      schema: {
        summary: 'The same as a file: csv, or jsonl with a unit a line',
        querystring: ledgerQuestionQuery,
        params: object({ as: string().oneOf(['csv', 'jsonl']).required() }),
      },
      config: { act: 'look' },
    },
    async (request, reply) => {
      const question = questionFrom((name) => request.query[name]);
      const isCsv = request.params.as === 'csv';
      return reply
        .header('content-disposition', `attachment; filename="ledger.${request.params.as}"`)
        .type(isCsv ? 'text/csv; charset=utf-8' : 'application/x-ndjson')
        .send(Readable.from(isCsv ? answerCsv(app.source, question) : answerLines(app.source, question)));
    },
  );

  app.get(
    '/ledger/checkpoints',
    { schema: { summary: 'How far the ledger had come, signed, newest first' }, config: { act: 'look' } },
    async () => listCheckpoints(app.source),
  );

  app.get(
    '/ledger/checkpoints/key',
    { schema: { summary: 'The key by which anybody can check a checkpoint' }, config: { act: 'look' } },
    async (_request, reply) => {
      const { signingKey } = app;
      if (!signingKey) throw new HttpProblem('notFound', { message: 'This house signs no checkpoints.' });
      return reply
        .header('content-disposition', `attachment; filename="${signingKey.name}-key.txt"`)
        .type('text/plain; charset=utf-8')
        .send(`${verifierKey(signingKey)}\n`);
    },
  );

  app.get<{ Params: { size: string } }>(
    '/ledger/checkpoints/:size',
    {
      schema: {
        summary: 'A checkpoint as a text to be kept elsewhere',
        params: object({
          size: string()
            .matches(/^\d{1,15}$/)
            .required(),
        }),
      },
      config: { act: 'look' },
    },
    async (request, reply) =>
      reply
        .header('content-disposition', `attachment; filename="checkpoint-${request.params.size}.txt"`)
        .type('text/plain; charset=utf-8')
        .send(await checkpointNote(app.source, Number(request.params.size))),
  );

  app.get(
    '/ledger/choices',
    { schema: { summary: 'What there is to choose from in a question' }, config: { act: 'look' } },
    async () => ledgerChoices(app.source),
  );

  app.get(
    '/ledger/questions',
    { schema: { summary: 'Questions kept under a name' }, config: { act: 'look' } },
    async () => keptQuestions(app.source),
  );

  app.post<{ Body: { id: string; name: string; question: LedgerQuestion } }>(
    '/ledger/questions',
    { schema: { summary: 'Keep a question under a name', body: keptQuestionBody }, config: { act: 'work' } },
    async (request, reply) => {
      await keepQuestion(app.source, request.body, writerOf(request, 'work').by);
      return reply.status(201).send({});
    },
  );

  app.post<{ Params: { id: string } }>(
    '/ledger/questions/:id/dropped',
    { schema: { summary: 'Keep a question no longer', params: idParams }, config: { act: 'work' } },
    async (request) => {
      await dropQuestion(app.source, request.params.id);
      return {};
    },
  );

  app.get<{ Params: { serial: string } }>(
    '/ledger/units/:serial',
    {
      schema: {
        summary: 'Everything that is known of a serial, over all visits',
        params: object({ serial: string().trim().min(1).max(40).required() }),
      },
      config: { act: 'look' },
    },
    async (request) => unitLife(app.source, request.params.serial),
  );

  app.get<{ Querystring: Record<'one' | 'oneAt' | 'other' | 'otherAt', string> }>(
    '/ledger/compared',
    { schema: { summary: 'Two states of units side by side', querystring: comparedQuery }, config: { act: 'look' } },
    async ({ query: { one, oneAt, other, otherAt } }) =>
      compareRefs(app.source, { visitId: one, key: oneAt }, { visitId: other, key: otherAt }),
  );

  app.get<{ Params: { id: string } }>(
    '/visits/:id',
    { schema: { summary: 'A visit with every entry', params: idParams }, config: { act: 'look' } },
    async (request) => readRecord(app.source, request.params.id),
  );

  app.get<{ Params: { id: string } }>(
    '/visits/:id/record.json',
    { schema: { summary: 'A sealed visit as a file', params: idParams }, config: { act: 'look' } },
    async (request, reply) => {
      const record = await exportRecord(app.source, request.params.id);
      return reply
        .header('content-disposition', `attachment; filename="${fileName(record.serial)}-record.json"`)
        .type('application/json')
        .send(JSON.stringify(record, null, 2));
    },
  );

  app.post<{ Params: { id: string } }>(
    '/visits/:id/seal-check',
    {
      schema: { summary: 'Recompute a visit and hold it against its seal', params: idParams },
      config: { act: 'look' },
    },
    async (request) => checkSeal(app.source, request.params.id),
  );

  await app.register(async (files) => {
    takeRaw(files, {
      contentType: 'application/json',
      mostBytes: RECORD_LIMIT_BYTES,
      tooLarge: 'A record file has at most 8 MB. Look whether it is the right file.',
    });
    files.post(
      '/record-checks',
      {
        schema: {
          summary: 'Hold an exported record (JSON as body) against the ledger',
          consumes: ['application/json'],
        },
        config: { act: 'look' },
      },
      async (request, reply) =>
        checkRecordFile(app.source, await app.readers.record(rawBody(request), goneSignal(reply))),
    );
  });
}

const fileName = (serial: string): string => serial.replace(/[^A-Za-z0-9._-]/g, '_');
