import type { FastifyInstance } from 'fastify';
import { object, string, type InferType } from 'yup';
import {
  firstOwnerRequest,
  plainName,
  signInRequest,
  type FirstOwnerRequest,
  type OpenSession,
  type SessionView,
  type SignInRequest,
  type WelcomeView,
} from '@decurio/contract';
import type { Config } from '../config.js';
import { DEMO_PASSWORD } from '../demo-password.js';
import { HttpProblem } from '../problems.js';
import { permit } from '../security/roles.js';
import { clearSessionCookie, sessionOf, setSessionCookie, tokenOf } from '../security/sessions.js';
import { noteRefusal } from '../store/account-events.js';
import { authenticate, demoAccounts } from '../store/accounts.js';
import { makeFirstOwner, needsOwner } from '../store/first-owner.js';
import { houseOf } from '../store/house.js';
import { endByToken, endSession, openSession, openSessions } from '../store/sessions.js';
import { oneTry } from '../store/sign-in-tries.js';

const idParams = object({ id: string().uuid().required() });

export async function sessionRoutes(app: FastifyInstance, { config }: { config: Config }): Promise<void> {
  app.get(
    '/welcome',
    { schema: { summary: 'What the sign-in page needs' }, config: { act: 'anyone' } },
    async (request): Promise<WelcomeView> => {
      const accounts = await demoAccounts(app.source);
      return {
        needsOwner: await needsOwner(app.source),
        session: await sessionOf(request),
        house: await houseOf(app.source.manager),
        demoAccounts: accounts.map(({ signInName, displayName, role }) => ({
          name: signInName,
          displayName,
          role,
          password: DEMO_PASSWORD,
        })),
      };
    },
  );

  app.post<{ Body: SignInRequest }>(
    '/session',
    { schema: { summary: 'Sign in', body: signInRequest }, config: { act: 'anyone' } },
    async (request, reply): Promise<SessionView> => {
      const { password, station } = request.body;
      const name = plainName(request.body.name);
      const account = await oneTry(app.source, { name, address: request.ip }, () =>
        authenticate(app.source, name, password),
      );
      if (!account || account.lockedAt) {
        await noteRefusal(app.source, name, request.ip);
        throw new HttpProblem(account ? 'accountLocked' : 'wrongPassword');
      }
      await endHere(tokenOf(request));
      const { token, session } = await openSession(app.source, account, station);
      setSessionCookie(reply, token, config);
      return session;
    },
  );

  app.post<{ Body: FirstOwnerRequest }>(
    '/first-owner',
    {
      schema: { summary: 'Make the first owner, by the code that the server printed', body: firstOwnerRequest },
      config: { act: 'anyone' },
    },
    async (request, reply) => {
      const made = await oneTry(app.source, { name: null, address: request.ip }, () =>
        makeFirstOwner(app.source, request.body),
      );
      if (!made) throw new HttpProblem('wrongCode');
      return reply.status(204).send();
    },
  );

  app.delete('/session', { schema: { summary: 'Sign out' }, config: { act: 'anyone' } }, async (request, reply) => {
    await endHere(tokenOf(request));
    return clearSessionCookie(reply).status(204).send();
  });

  app.get(
    '/sessions',
    { schema: { summary: 'Where one is signed in' }, config: { act: 'ownSessions' } },
    async (request): Promise<readonly OpenSession[]> => {
      const { userId, id } = permit(request.session, 'ownSessions');
      return openSessions(app.source, userId, id);
    },
  );

  app.delete<{ Params: InferType<typeof idParams> }>(
    '/sessions/:id',
    { schema: { summary: 'End one of these sessions', params: idParams }, config: { act: 'ownSessions' } },
    async (request, reply) => {
      const { userId } = permit(request.session, 'ownSessions');
      const { id } = request.params;
      if (!(await endSession(app.source, userId, id))) throw new HttpProblem('sessionGone');
      app.streams.end(id);
      return reply.status(204).send();
    },
  );

  /** The session that this browser had, if any: its token must not live on unseen. */
  async function endHere(token: string | null): Promise<void> {
    const ended = token === null ? null : await endByToken(app.source, token);
    if (ended !== null) app.streams.end(ended);
  }
}
