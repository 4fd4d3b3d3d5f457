import type { FastifyInstance } from 'fastify';
import {
  newMachineRequest,
  type MachineMade,
  type MachineView,
  type MayGoOutView,
  type NewMachineRequest,
} from '@decurio/contract';
import { object, string } from 'yup';
import { permit } from '../security/roles.js';
import { endMachine, listMachines, makeMachine } from '../store/machines.js';
import { mayGoOut } from '../store/may-go-out.js';

const idParams = object({ id: string().uuid().required() });
const serialParams = object({ serial: string().max(130).required() });

/** Which programs of others may ask something, and what they ask. */
export async function machineRoutes(app: FastifyInstance): Promise<void> {
  app.get(
    '/machines',
    { schema: { summary: 'Programs of others that may ask something' }, config: { act: 'keepAccounts' } },
    async (): Promise<readonly MachineView[]> => listMachines(app.source),
  );

  app.post<{ Body: NewMachineRequest }>(
    '/machines',
    {
      schema: { summary: 'Let a program ask, by a token that is shown once', body: newMachineRequest },
      config: { act: 'keepAccounts' },
    },
    async (request, reply): Promise<MachineMade> => {
      void reply.status(201);
      return makeMachine(app.source, request.body, permit(request.session, 'keepAccounts').userId);
    },
  );

  app.post<{ Params: { id: string } }>(
    '/machines/:id/end',
    { schema: { summary: 'Let a program ask no more', params: idParams }, config: { act: 'keepAccounts' } },
    async (request): Promise<readonly MachineView[]> => {
      await endMachine(app.source, request.params.id);
      return listMachines(app.source);
    },
  );

  app.get<{ Params: { serial: string } }>(
    '/machine/units/:serial/may-go-out',
    {
      schema: { summary: 'Whether a unit may go out, for a hire system', params: serialParams },
      config: { act: 'machine:mayGoOut' },
    },
    async (request): Promise<MayGoOutView> => mayGoOut(app.source, request.params.serial),
  );
}
