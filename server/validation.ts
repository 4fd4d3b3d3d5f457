import type { FastifyInstance } from 'fastify';
import { isSchema, ValidationError, type Schema } from 'yup';
import { HttpProblem } from './problems.js';
import { hasHalfLetter } from './reading/half-letters.js';
import { DEEPEST_JSON, jsonDepth } from './reading/json-depth.js';

/** Makes Fastify validate with the contract's Yup schemas: strictly, all problems at once, nothing cast. */
export function validateWithYup(app: FastifyInstance): void {
  app.setValidatorCompiler(({ schema, httpPart }) => {
    if (!isSchema(schema)) return () => true;
    const yup = schema as Schema;
    return (data: unknown) => {
      // A schema of optional fields would let a body pass that is not there at all.
      if (httpPart === 'body' && (typeof data !== 'object' || data === null || Array.isArray(data)))
        return { error: new HttpProblem('noBody') };
      try {
        return { value: yup.validateSync(data ?? undefined, { abortEarly: false, strict: true }) as unknown };
      } catch (error) {
        if (error instanceof ValidationError) return { error };
        throw error;
      }
    };
  });
}

/** Reads JSON bodies, but none that nests deeper than ours do, or that holds half a letter. */
export function takeJson(app: FastifyInstance): void {
  const parse = app.getDefaultJsonParser('error', 'error');
  app.removeContentTypeParser('application/json');
  app.addContentTypeParser<string>('application/json', { parseAs: 'string' }, (request, body, done) => {
    if (jsonDepth(body) > DEEPEST_JSON) done(new HttpProblem('tooDeep'));
    else if (hasHalfLetter(body)) done(new HttpProblem('halfLetter'));
    else void parse(request, body, done);
  });
}
