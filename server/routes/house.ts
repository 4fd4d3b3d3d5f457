import type { FastifyInstance } from 'fastify';
import { houseRequest, type HouseView } from '@decurio/contract';
import { permit } from '../security/roles.js';
import { changeHouse, houseOf } from '../store/house.js';

export async function houseRoutes(app: FastifyInstance): Promise<void> {
  app.get(
    '/house',
    {
      schema: { summary: 'What is true of the house: its time zone, whom to call where a pack burns' },
      config: { act: 'look' },
    },
    async (): Promise<HouseView> => houseOf(app.source.manager),
  );

  app.put<{ Body: HouseView }>(
    '/house',
    { schema: { summary: 'Change what is true of the house', body: houseRequest }, config: { act: 'keepHouse' } },
    async (request): Promise<HouseView> => {
      const { name } = permit(request.session, 'keepHouse');
      return changeHouse(app.source, request.body, name);
    },
  );
}
