import cookie from '@fastify/cookie';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import plugin from 'fastify-plugin';
import type { SessionView } from '@decurio/contract';
import type { Config } from '../config.js';
import { readSession, SESSION_HOURS } from '../store/sessions.js';

declare module 'fastify' {
  interface FastifyRequest {
    session: SessionView | null;
  }
}

const COOKIE = 'decurio-session';

/** Lets requests carry a session: a signed cookie with a token of which the database keeps the hash. */
export const sessions = plugin(async (app: FastifyInstance, { config }: { config: Config }) => {
  await app.register(cookie, { secret: config.cookieSecret });
  app.decorateRequest('session', null);
});

/** The session that a request carries, asked of the database each time: one that was ended opens nothing from then on. */
export async function sessionOf(request: FastifyRequest): Promise<SessionView | null> {
  const token = tokenOf(request);
  return token === null ? null : readSession(request.server.source, token);
}

export function tokenOf(request: FastifyRequest): string | null {
  const raw = request.cookies[COOKIE];
  if (raw === undefined) return null;
  const { valid, value } = request.unsignCookie(raw);
  return valid ? value : null;
}

export function setSessionCookie(reply: FastifyReply, token: string, config: Config): void {
  void reply.setCookie(COOKIE, token, {
    path: '/',
    httpOnly: true,
    sameSite: 'strict',
    secure: config.secureCookie,
    signed: true,
    maxAge: SESSION_HOURS * 3600,
  });
}

export const clearSessionCookie = (reply: FastifyReply): FastifyReply => reply.clearCookie(COOKIE, { path: '/' });
