import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import { pageQuery, type PageQuery } from '@decurio/contract';
import { checkRecordFile, checkSeal } from '../ledger/seal-checks.js';
import { rawBody, takeRaw } from './raw-body.js';
import { goneSignal } from '../time-limit.js';
import { exportRecord, listLedger, readRecord } from '../store/ledger.js';

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
