import type { FastifyInstance, FastifyRequest, RouteOptions } from 'fastify';
import plugin from 'fastify-plugin';
import type { Config } from '../config.js';
import type { MachinePurpose } from '@decurio/contract';
import { HttpProblem } from '../problems.js';
import { machineMay } from '../store/machines.js';
import { permit, type Act } from './roles.js';
import { sessionOf } from './sessions.js';

/** A program with a token for this purpose, and nobody else: no session opens it, and the token opens nothing more. */
export type MachineAccess = `machine:${MachinePurpose}`;
/** Who may call a route: whoever may do the act, a machine, or `anyone` at all, signed in or not. */
export type Access = Act | MachineAccess | 'anyone';

export interface DeclaredRoute {
  readonly method: string;
  readonly url: string;
  readonly access: Access;
  readonly summary: string;
}

declare module 'fastify' {
  interface FastifyInstance {
    /** Every route with who may call it, in the order they were registered. */
    declaredRoutes: readonly DeclaredRoute[];
  }
  interface FastifyContextConfig {
    /** Who may call this route. A route that does not say is not registered. */
    act?: Access;
  }
}

const CHANGES_NOTHING = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Denies by default. A route says who may call it, and that is judged by the route that matched, whatever way its
 * address was written; what matches no route is answered as an address that leads nowhere.
 */
export const access = plugin(async (app: FastifyInstance, { config }: { readonly config: Config }) => {
  const declared: DeclaredRoute[] = [];
  app.decorate('declaredRoutes', declared);
  app.addHook('onRoute', (route) => void declared.push(...declarationsOf(route)));
  // By this a device tells how far its own clock is off.
  app.addHook('onSend', async (request, reply) => {
    void reply.header('x-server-clock', String(Date.now())).header('x-request-id', request.id);
  });
  app.addHook('onRequest', async (request) => {
    if (request.is404) return;
    const { act } = request.routeOptions.config;
    if (act === undefined) throw new HttpProblem('notAllowed');
    if (!CHANGES_NOTHING.has(request.method)) refuseForeign(request, config.publicOrigin);
    if (act === 'anyone') return;
    if (isMachine(act)) return refuseStranger(request, purposeOf(act));
    request.session = await sessionOf(request);
    const { isPasswordForOnce } = permit(request.session, act);
    // A password that somebody else knows opens nothing but the page where it is replaced.
    if (isPasswordForOnce && act !== 'ownPassword' && act !== 'ownSessions') throw new HttpProblem('passwordForOnce');
  });
});

export const isMachine = (needed: Access): needed is MachineAccess => needed.startsWith('machine:');
const purposeOf = (needed: MachineAccess): MachinePurpose => needed.slice('machine:'.length) as MachinePurpose;

async function refuseStranger({ headers, server }: FastifyRequest, purpose: MachinePurpose): Promise<void> {
  const [, token] = /^Bearer ([\w-]{20,200})$/.exec(headers.authorization ?? '') ?? [];
  if (token === undefined || !(await machineMay(server.source, token, purpose))) throw new HttpProblem('noToken');
}

function declarationsOf({ method, url, config, schema }: RouteOptions): readonly DeclaredRoute[] {
  const access = config?.act;
  if (access === undefined)
    throw new Error(`The route ${String(method)} ${url} does not say who may call it. Give it config.act.`);
  const summary = (schema as { readonly summary?: string } | undefined)?.summary ?? '';
  return [method].flat().map((each) => ({ method: each, url, access, summary }));
}

/**
 * Another site's page must not change anything with a session that the browser lends it. Programs that are no browser
 * send no origin and have no session lent to them.
 */
function refuseForeign({ headers, host }: FastifyRequest, publicOrigin: string | null): void {
  const { origin } = headers;
  const site = headers['sec-fetch-site'];
  if (site !== undefined && site !== 'same-origin' && site !== 'none') throw new HttpProblem('otherSite');
  if (origin === undefined) return;
  const isOwn = publicOrigin === null ? hostOf(origin) === host.toLowerCase() : origin === publicOrigin;
  if (!isOwn) throw new HttpProblem('otherSite');
}

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}
