import { createHash } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import { labelSheet } from '@decurio/core';
import { labelSheetQuery, papersQuery, type LabelSheetQuery, type PapersQuery } from '@decurio/contract';
import type { UnitPaper } from '../papers/draw.js';
import { HttpProblem } from '../problems.js';
import { deliveryNoteOf, labelsOf, papersOf } from '../store/unit-papers.js';
import { goneSignal } from '../time-limit.js';

const idParams = object({ id: string().uuid().required() });

/** Each paper of a unit, and all of them in one. */
const PAPERS = {
  certificate: { which: ['certificate'], summary: 'Configuration certificate of a visit' },
  label: { which: ['label'], summary: 'Class label at its true size' },
  'rider-card': { which: ['riderCard'], summary: 'What a rider needs to know of this unit' },
  tag: { which: ['tag'], summary: 'Tag with code square and bars' },
  'odometer-letter': {
    which: ['odometerLetter'],
    summary: 'Letter on the kilometres of a vehicle whose display was changed',
  },
  papers: {
    which: ['certificate', 'odometerLetter', 'riderCard', 'label', 'tag'],
    summary: 'All papers of a unit in one',
  },
} as const satisfies Record<string, { readonly which: readonly UnitPaper[]; readonly summary: string }>;

export async function paperRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { id: string } }>(
    '/visits/:id/papers',
    { schema: { summary: 'What the papers of a unit say', params: idParams }, config: { act: 'look' } },
    async (request) => (await papersOf(app.source, request.params.id)).view,
  );

  for (const [name, { which, summary }] of Object.entries(PAPERS))
    app.get<{ Params: { id: string }; Querystring: PapersQuery }>(
      `/visits/:id/${name}.pdf`,
      { schema: { summary, params: idParams, querystring: papersQuery }, config: { act: 'look' } },
      async (request, reply) => {
        const { language = 'en', size = 'usual' } = request.query;
        const papers = (await papersOf(app.source, request.params.id)).papersIn(language);
        if (name === 'odometer-letter' && !papers.odometer)
          throw new HttpProblem('notFound', { message: 'Its display was never changed: there is no such letter.' });
        const pdf = await app.printer.unit({ papers, which, labelSize: size }, goneSignal(reply));
        return reply
          .header('content-disposition', `inline; filename="${fileName(papers.record.serial)}-${name}.pdf"`)
          .header('x-paper-sha256', createHash('sha256').update(pdf).digest('hex'))
          .type('application/pdf')
          .send(pdf);
      },
    );

  app.get<{ Params: { id: string } }>(
    '/orders/:id/delivery-note.pdf',
    { schema: { summary: 'Delivery note of an order', params: idParams }, config: { act: 'look' } },
    async (request, reply) => {
      const note = await deliveryNoteOf(app.source, request.params.id);
      return reply
        .header('content-disposition', `inline; filename="${fileName(note.orderNumber)}-delivery-note.pdf"`)
        .type('application/pdf')
        .send(await app.printer.deliveryNote(note, goneSignal(reply)));
    },
  );

  app.get<{ Params: { id: string }; Querystring: LabelSheetQuery }>(
    '/orders/:id/labels.pdf',
    {
      schema: {
        summary: 'Class labels of the units of an order that are signed off, one A4 sheet of them',
        params: idParams,
        querystring: labelSheetQuery,
      },
      config: { act: 'look' },
    },
    async (request, reply) => {
      const { size = 'usual' } = request.query;
      const sheet = Number(request.query.sheet);
      const { perSheet } = labelSheet(size);
      const { orderNumber, labels } = await labelsOf(app.source, request.params.id, { sheet, perSheet });
      const pdf = await app.printer.labelSheet(
        { title: `Labels of ${orderNumber}`, madeAt: new Date().toISOString(), labels, labelSize: size },
        goneSignal(reply),
      );
      return reply
        .header('content-disposition', `inline; filename="${fileName(orderNumber)}-labels-${sheet}.pdf"`)
        .type('application/pdf')
        .send(pdf);
    },
  );
}

const fileName = (name: string): string => name.replace(/[^A-Za-z0-9._-]/g, '_');
