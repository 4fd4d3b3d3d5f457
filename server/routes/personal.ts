import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import {
  eraseHandoverRequest,
  eraseRequest,
  type EraseHandoverRequest,
  type EraseRequest,
  type PersonalView,
} from '@decurio/contract';
import { permit } from '../security/roles.js';
import { erasePerson, eraseReceiver, personalKept } from '../store/erase-personal.js';
import { handoverView } from '../store/handovers.js';

const idParams = object({ id: string().uuid().required() });

/** What is kept of persons apart from the records, and erasing it. */
export async function personalRoutes(app: FastifyInstance): Promise<void> {
  app.get(
    '/personal',
    { schema: { summary: 'What the house keeps of persons apart from its records' }, config: { act: 'keepHouse' } },
    async (): Promise<PersonalView> => personalKept(app.source),
  );

  app.post<{ Params: { id: string }; Body: EraseRequest }>(
    '/personal/people/:id/erase',
    {
      schema: {
        summary: 'Erase the names that somebody had here, and close their account',
        params: idParams,
        body: eraseRequest,
      },
      config: { act: 'keepHouse' },
    },
    async (request): Promise<PersonalView> => {
      const { userId } = permit(request.session, 'keepHouse');
      await erasePerson(app.source, request.params.id, request.body.why, userId);
      return personalKept(app.source);
    },
  );

  app.post<{ Params: { id: string }; Body: EraseHandoverRequest }>(
    '/visits/:id/handover/erase',
    {
      schema: {
        summary: 'Erase the signature of whoever received a unit, or the name too',
        params: idParams,
        body: eraseHandoverRequest,
      },
      config: { act: 'keepHouse' },
    },
    async (request) => {
      const { userId } = permit(request.session, 'keepHouse');
      await eraseReceiver(app.source, request.params.id, request.body, userId);
      return handoverView(app.source, request.params.id);
    },
  );
}
