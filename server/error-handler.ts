import { STATUS_CODES } from 'node:http';
import type { Socket } from 'node:net';
import type { FastifyError, FastifyReply, FastifyRequest } from 'fastify';
import { ValidationError } from 'yup';
import { errorBody, HttpProblem, type ProblemCode } from './problems.js';

const FASTIFY_CODES: Readonly<Record<string, ProblemCode>> = {
  FST_ERR_CTP_BODY_TOO_LARGE: 'tooLarge',
  FST_ERR_CTP_INVALID_MEDIA_TYPE: 'wrongMedia',
  FST_ERR_CTP_EMPTY_JSON_BODY: 'badJson',
  FST_ERR_CTP_INVALID_JSON_BODY: 'badJson',
  FST_ERR_BAD_URL: 'notFound',
  FST_ERR_MAX_PARAM_LENGTH: 'notFound',
};

const DATABASE_AWAY = new Set([
  'ER_STATEMENT_TIMEOUT',
  'ER_LOCK_WAIT_TIMEOUT',
  'ETIMEDOUT',
  'ECONNREFUSED',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ECONNRESET',
  'ER_CON_COUNT_ERROR',
  // A node of a cluster that has lost the others, or is only joining them.
  'ER_UNKNOWN_COM_ERROR',
  'ER_CONNECTION_KILLED',
  'ER_QUERY_INTERRUPTED',
  'EPIPE',
]);

/** Turns whatever ended a request into the one error shape; what nobody foresaw is logged and told as `internal`. */
export function handleError(error: FastifyError | Error, request: FastifyRequest, reply: FastifyReply): void {
  const problem = asProblem(error);
  // Whoever asked has hung up: nobody hears the answer, and nothing is amiss here.
  if (request.raw.aborted || request.raw.socket.destroyed) return void request.log.info('whoever asked hung up');
  if (problem.statusCode >= 500) request.log.error({ err: error }, 'request failed');
  void reply.status(problem.statusCode).send(errorBody(problem));
}

const BROKEN_CODES: Readonly<Record<string, ProblemCode>> = {
  ERR_HTTP_REQUEST_TIMEOUT: 'tooSlow',
  HPE_HEADER_OVERFLOW: 'tooLarge',
};

/** Answers what is no request that could be read, or came too slowly, in the one error shape, and hangs up. */
export function answerBroken(error: Error & { readonly code?: string }, socket: Socket): void {
  if (error.code === 'ECONNRESET' || !socket.writable) return void socket.destroy();
  const problem = new HttpProblem(BROKEN_CODES[error.code ?? ''] ?? 'badRequest');
  const body = JSON.stringify(errorBody(problem));
  socket.end(
    `HTTP/1.1 ${problem.statusCode} ${STATUS_CODES[problem.statusCode]}\r\ncontent-type: application/json; charset=utf-8\r\ncontent-length: ${Buffer.byteLength(body)}\r\nconnection: close\r\n\r\n${body}`,
  );
}

/** Answers an address that leads nowhere. */
export const nothingHere = (_request: FastifyRequest, reply: FastifyReply): FastifyReply =>
  reply.status(404).send(errorBody(new HttpProblem('notFound')));

function asProblem(error: FastifyError | Error): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof ValidationError) return new HttpProblem('badFields', { fields: fieldsOf(error) });
  const code = 'code' in error && typeof error.code === 'string' ? error.code : '';
  const known = FASTIFY_CODES[code];
  if (known) return new HttpProblem(known);
  if (error instanceof SyntaxError) return new HttpProblem('badJson');
  const driverCode = (error as { driverError?: { code?: string } }).driverError?.code ?? code;
  if (DATABASE_AWAY.has(driverCode)) return new HttpProblem('databaseAway');
  const status = (error as FastifyError).statusCode;
  if (status === 429) return new HttpProblem('tooManyTries');
  if (status !== undefined && status >= 400 && status < 500) return new HttpProblem('badRequest', { status });
  return new HttpProblem('internal');
}

function fieldsOf(error: ValidationError): Record<string, string> {
  const all = error.inner.length > 0 ? error.inner : [error];
  return Object.fromEntries(all.map((e) => [e.path ?? '', e.message]));
}
