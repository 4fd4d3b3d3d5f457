import cookie from '@fastify/cookie';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import plugin from 'fastify-plugin';
import type { SessionView } from '@decurio/contract';
import type { Config } from '../config.js';
import { readSession, SESSION_HOURS } from '../store/accounts.js';
import { permit, type Act } from './roles.js';

declare module 'fastify' {
  interface FastifyRequest {
    session: SessionView | null;
  }
  interface FastifyInstance {
    /** Forgets the cookie of a reply and what this process believed of its session. */
    forgetSession: (reply: FastifyReply, token: string) => void;
  }
  interface FastifyContextConfig {
    /** What a session must be allowed to do to come here; absent where anyone may. */
    act?: Act;
  }
}

const COOKIE = 'decurio-session';
/** How long a session read from the database is believed without asking again; sign-out elsewhere takes this long to tell. */
const BELIEVED_MS = 5_000;

type Believed = Map<string, { readonly session: SessionView; readonly until: number }>;

/** Reads the signed session cookie of every request and holds the route's `act` against the role. */
export const sessions = plugin(async (app: FastifyInstance, { config }: { config: Config }) => {
  await app.register(cookie, { secret: config.cookieSecret });
  const known: Believed = new Map();
  app.decorate('forgetSession', (reply: FastifyReply, token: string) => {
    known.delete(token);
    void reply.clearCookie(COOKIE, { path: '/' });
  });
  app.decorateRequest('session', null);
  app.addHook('onRequest', async (request) => {
    if (!request.url.startsWith('/api/')) return;
    const token = tokenOf(request);
    request.session = token === null ? null : await sessionFor(app, known, token);
    const { act } = request.routeOptions.config;
    if (act !== undefined) permit(request.session, act);
  });
});

async function sessionFor(app: FastifyInstance, known: Believed, token: string): Promise<SessionView | null> {
  const now = Date.now();
  const hit = known.get(token);
  if (hit && hit.until > now) return hit.session;
  known.delete(token);
  const session = await readSession(app.source, token);
  if (session) {
    if (known.size > 1000) known.clear();
    known.set(token, { session, until: now + BELIEVED_MS });
  }
  return session;
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
