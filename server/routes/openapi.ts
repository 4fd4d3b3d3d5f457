import swagger from '@fastify/swagger';
import { convertSchema } from '@sodaru/yup-to-json-schema';
import type { FastifyInstance } from 'fastify';
import { isSchema, type Schema } from 'yup';

/** Serves an OpenAPI document made from the very schemas that validate. */
export async function describeApi(app: FastifyInstance): Promise<void> {
  await app.register(swagger, {
    openapi: {
      openapi: '3.1.0',
      info: {
        title: 'Decurio',
        version: '1',
        description: 'Errors have one shape: {error: {code, message, fields?}}.',
      },
    },
    transform: ({ schema, url }) => ({ url, schema: schema && mapValues(schema, asJsonSchema) }),
  });
  app.get(
    '/api/openapi.json',
    { schema: { hide: true, summary: 'This description of the API' }, config: { act: 'look' } },
    async () => app.swagger(),
  );
}

const asJsonSchema = (part: unknown): unknown => (isSchema(part) ? convertSchema(part as Schema) : part);

const mapValues = (object: object, map: (value: unknown) => unknown): object =>
  Object.fromEntries(Object.entries(object).map(([key, value]) => [key, map(value)]));
