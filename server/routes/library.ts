import type { FastifyInstance } from 'fastify';
import { object, string, ValidationError } from 'yup';
import {
  documentSchemas,
  LIBRARY_KINDS,
  newDocumentRequest,
  type LibraryDocuments,
  type LibraryKind,
  type NewDocumentRequest,
} from '@decurio/contract';
import { HttpProblem } from '../problems.js';
import { permit } from '../security/roles.js';
import { addDocument, newestDocuments } from '../store/library.js';

const kindParams = object({ kind: string().oneOf(LIBRARY_KINDS as LibraryKind[]).required() });

export async function libraryRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Params: { kind: LibraryKind } }>(
    '/library/:kind',
    { schema: { summary: 'Newest version of every document of a kind', params: kindParams }, config: { act: 'look' } },
    async (request) => newestDocuments(app.source.manager, request.params.kind),
  );

  app.post<{ Body: NewDocumentRequest }>(
    '/library',
    { schema: { summary: 'Add a document as a new version', body: newDocumentRequest }, config: { act: 'editLibrary' } },
    async (request, reply) => {
      const { userId } = permit(request.session, 'editLibrary');
      const { kind, document } = request.body;
      try {
        documentSchemas[kind].validateSync(document, { abortEarly: false, strict: true });
      } catch (error) {
        if (!(error instanceof ValidationError)) throw error;
        const inner = error.inner.length > 0 ? error.inner : [error];
        throw new HttpProblem('badDocument', { fields: Object.fromEntries(inner.map((e) => [e.path ?? '', e.message])) });
      }
      const entry = await addDocument(app.source, kind, document as LibraryDocuments[typeof kind], userId);
      return reply.status(201).send(entry);
    },
  );
}
