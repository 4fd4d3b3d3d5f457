import type { FastifyInstance } from 'fastify';
import { object, string, type InferType } from 'yup';
import {
  confirmClassRequest,
  confirmMapRequest,
  LIBRARY_KINDS,
  newDocumentRequest,
  type ConfirmClassRequest,
  type ConfirmMapRequest,
  type LibraryDocuments,
  type LibraryKind,
} from '@decurio/contract';
import { HttpProblem } from '../problems.js';
import { may, permit } from '../security/roles.js';
import { addDocument, confirmClass, confirmMap, getDocument, listVersions, newestDocuments } from '../store/library.js';
import { today } from '../store/house.js';
import { noticeAll } from '../store/notice-visits.js';
import { writerOf } from './writer.js';
import { rawBody, takeRaw } from './raw-body.js';
import { goneSignal } from '../time-limit.js';
import { bringStarter, listStarters } from '../store/starters.js';

const DOCUMENT_LIMIT_BYTES = 256 * 1024;
const id = () =>
  string()
    .matches(/^[a-z0-9-]{1,60}$/)
    .required();
const mapParams = object({ id: id() });
const classParams = object({ id: id(), classId: id() });
const documentParams = object({
  kind: string()
    .oneOf(LIBRARY_KINDS as LibraryKind[])
    .required(),
  id: id(),
});
const versionParams = documentParams.shape({
  version: string()
    .matches(/^\d{1,6}$/)
    .required(),
});
const kindParams = object({
  kind: string()
    .oneOf(LIBRARY_KINDS as LibraryKind[])
    .required(),
});

export async function libraryRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { kind: LibraryKind } }>(
    '/library/:kind',
    { schema: { summary: 'Newest version of every document of a kind', params: kindParams }, config: { act: 'look' } },
    async (request) => newestDocuments(app.source.manager, request.params.kind),
  );

  app.get<{ Params: InferType<typeof documentParams> }>(
    '/library/:kind/:id/versions',
    { schema: { summary: 'Every version of a document', params: documentParams }, config: { act: 'look' } },
    async (request) => listVersions(app.source, request.params.kind, request.params.id),
  );

  app.get<{ Params: InferType<typeof versionParams> }>(
    '/library/:kind/:id/versions/:version',
    { schema: { summary: 'A document at one version', params: versionParams }, config: { act: 'look' } },
    async (request) =>
      getDocument(app.source.manager, request.params.kind, request.params.id, Number(request.params.version)),
  );

  app.post<{ Params: { id: string }; Body: ConfirmMapRequest }>(
    '/library/displayMap/:id/confirm',
    {
      schema: { summary: 'Confirm a draft map against a real unit', params: mapParams, body: confirmMapRequest },
      config: { act: 'editLibrary' },
    },
    async (request, reply) => {
      const { userId, name } = permit(request.session, 'editLibrary');
      const entry = await confirmMap(app.source, request.params.id, {
        ...request.body,
        by: { userId, name },
        on: await today(app.source.manager),
      });
      return reply.status(201).send(entry);
    },
  );

  app.post<{ Params: InferType<typeof classParams>; Body: ConfirmClassRequest }>(
    '/library/rulePack/:id/classes/:classId/confirm',
    {
      schema: { summary: 'Confirm a class with the local authority', params: classParams, body: confirmClassRequest },
      config: { act: 'decide' },
    },
    async (request, reply) => {
      const { userId, name } = permit(request.session, 'decide');
      const { version, authority, source, expiresOn } = request.body;
      const check = { by: name, authority, source, on: await today(app.source.manager), expiresOn };
      return reply
        .status(201)
        .send(await confirmClass(app.source, request.params.id, request.params.classId, check, { version, userId }));
    },
  );

  app.get(
    '/starters',
    {
      schema: { summary: 'Rule packs that ship with the product and are not in the library yet' },
      config: { act: 'look' },
    },
    async () => listStarters(app.source.manager),
  );

  app.post<{ Params: { id: string } }>(
    '/starters/:id',
    {
      schema: { summary: 'Bring a starter rule pack into the library, unchecked', params: mapParams },
      config: { act: 'editLibrary' },
    },
    async (request, reply) =>
      reply
        .status(201)
        .send(await bringStarter(app.source, request.params.id, permit(request.session, 'editLibrary').userId)),
  );

  await app.register(async (files) => {
    takeRaw(files, {
      contentType: 'application/json',
      mostBytes: DOCUMENT_LIMIT_BYTES,
      tooLarge: 'A document has at most 256 kB. Nothing was changed; look whether it is the right file.',
    });
    // Its thread validates the body; the schema stands here to describe it.
    files.setValidatorCompiler(() => () => true);
    files.post(
      '/library',
      {
        schema: { summary: 'Add a document as a new version', body: newDocumentRequest },
        config: { act: 'editLibrary' },
      },
      async (request, reply) => {
        const { userId, role } = permit(request.session, 'editLibrary');
        const read = await app.readers.document(rawBody(request), goneSignal(reply));
        if (!read.ok)
          throw new HttpProblem(read.code, Object.keys(read.fields).length > 0 ? { fields: read.fields } : {});
        const { kind, document } = read;
        if (
          kind === 'displayMap' &&
          (document as LibraryDocuments['displayMap']).confirmed !== null &&
          !may(role, 'trustMaps')
        )
          throw new HttpProblem('confirmedElsewhere');
        const added = await addDocument(app.source, kind, document, userId);
        if (kind === 'notice')
          await noticeAll(app.source, document as LibraryDocuments['notice'], writerOf(request, 'editLibrary'));
        return reply.status(201).send(added);
      },
    );
  });
}
