import type { FastifyInstance } from 'fastify';
import { object, string, type InferType } from 'yup';
import { HttpProblem } from '../problems.js';
import { permit } from '../security/roles.js';
import { keepPhoto, readPhoto } from '../store/photos.js';

const visitParams = object({ unitId: string().uuid().required(), visitId: string().uuid().required() });
const idParams = object({ id: string().uuid().required() });
const MOST_BYTES = 4 * 1024 * 1024;

export async function photoRoutes(app: FastifyInstance): Promise<void> {
  app.addContentTypeParser('image/jpeg', { parseAs: 'buffer', bodyLimit: MOST_BYTES }, (_request, body, done) => done(null, body));

  app.put<{ Params: InferType<typeof visitParams> & { id: string }; Body: Buffer }>(
    '/units/:unitId/visits/:visitId/photos/:id',
    { schema: { summary: 'Keep a photograph (JPEG as body) for an entry to name', params: visitParams.concat(idParams), consumes: ['image/jpeg'] }, config: { act: 'work' }, bodyLimit: MOST_BYTES },
    async (request) => {
      const { name } = permit(request.session, 'work');
      if (!Buffer.isBuffer(request.body)) throw new HttpProblem(request.headers['content-type']?.startsWith('image/jpeg') === true ? 'notAPhoto' : 'wrongMedia');
      const { unitId, visitId, id } = request.params;
      return keepPhoto(app.source, unitId, { id, visitId, body: request.body, byName: name });
    },
  );

  app.get<{ Params: InferType<typeof idParams> }>('/photos/:id', { schema: { summary: 'A photograph of the record', params: idParams }, config: { act: 'look' } }, async (request, reply) => {
    const body = await readPhoto(app.source, request.params.id);
    return reply.type('image/jpeg').header('cache-control', 'private, max-age=31536000, immutable').send(body);
  });
}
