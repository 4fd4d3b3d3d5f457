import type { FastifyInstance } from 'fastify';
import { object, string, type InferType } from 'yup';
import { permit } from '../security/roles.js';
import { rawBody, takeRaw } from './raw-body.js';
import { writtenBy } from '../store/personal.js';
import { keepPhoto, readPhoto } from '../store/photos.js';

const visitParams = object({ unitId: string().uuid().required(), visitId: string().uuid().required() });
const idParams = object({ id: string().uuid().required() });
const MOST_BYTES = 4 * 1024 * 1024;

export async function photoRoutes(app: FastifyInstance): Promise<void> {
  takeRaw(app, {
    contentType: 'image/jpeg',
    mostBytes: MOST_BYTES,
    tooLarge: 'A photograph has at most 4 MB. Take it through the bench, which makes it small.',
  });

  app.put<{ Params: InferType<typeof visitParams> & { id: string }; Body: unknown }>(
    '/units/:unitId/visits/:visitId/photos/:id',
    {
      schema: {
        summary: 'Keep a photograph (JPEG as body) for an entry to name',
        params: visitParams.concat(idParams),
        consumes: ['image/jpeg'],
      },
      config: { act: 'work' },
    },
    async (request) => {
      const by = permit(request.session, 'work');
      const { unitId, visitId, id } = request.params;
      return keepPhoto(app.source, unitId, { id, visitId, body: rawBody(request), byName: writtenBy(by) });
    },
  );

  app.get<{ Params: InferType<typeof idParams> }>(
    '/photos/:id',
    { schema: { summary: 'A photograph of the record', params: idParams }, config: { act: 'look' } },
    async (request, reply) => {
      const body = await readPhoto(app.source, request.params.id);
      return reply.type('image/jpeg').header('cache-control', 'private, max-age=31536000, immutable').send(body);
    },
  );
}
