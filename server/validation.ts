import type { FastifyInstance } from 'fastify';
import { isSchema, ValidationError, type Schema } from 'yup';

/** Makes Fastify validate with the contract's Yup schemas: strictly, all problems at once, nothing cast. */
export function validateWithYup(app: FastifyInstance): void {
  app.setValidatorCompiler(({ schema }) => {
    if (!isSchema(schema)) return () => true;
    const yup = schema as Schema;
    return (data: unknown) => {
      try {
        return { value: yup.validateSync(data ?? undefined, { abortEarly: false, strict: true }) as unknown };
      } catch (error) {
        if (error instanceof ValidationError) return { error };
        throw error;
      }
    };
  });
}
