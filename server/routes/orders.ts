import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import { pageQuery, type PageQuery } from '@decurio/contract';
import { listOrders, readLine } from '../store/orders.js';
import { findUnit } from '../store/units.js';

const idParams = object({ id: string().uuid().required() });
const serialQuery = object({ serial: string().strict().trim().min(1).max(40).required() }).noUnknown();

export async function orderRoutes(app: FastifyInstance): Promise<void> {
  app.get<{ Querystring: PageQuery }>(
    '/orders',
    { schema: { summary: 'Orders, newest first', querystring: pageQuery }, config: { act: 'look' } },
    async (request) => listOrders(app.source, request.query.after),
  );

  app.get<{ Params: { id: string } }>(
    '/orders/:id/line',
    { schema: { summary: 'An order with all its units', params: idParams }, config: { act: 'look' } },
    async (request) => readLine(app.source, request.params.id),
  );

  app.get<{ Querystring: { serial: string } }>(
    '/units',
    { schema: { summary: 'The unit with this serial', querystring: serialQuery }, config: { act: 'look' } },
    async (request) => findUnit(app.source, request.query.serial),
  );
}
