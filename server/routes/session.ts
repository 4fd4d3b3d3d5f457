import type { FastifyInstance } from 'fastify';
import { signInRequest, type SessionView, type SignInRequest, type WelcomeView } from '@decurio/contract';
import type { Config } from '../config.js';
import { DEMO_PASSWORD } from '../demo-password.js';
import { HttpProblem } from '../problems.js';
import { setSessionCookie, tokenOf } from '../security/sessions.js';
import { authenticate, closeSession, demoAccounts, openSession, sessionView } from '../store/accounts.js';

const TRIES_A_MINUTE = 10;

export async function sessionRoutes(app: FastifyInstance, { config }: { config: Config }): Promise<void> {
  app.get('/welcome', { schema: { summary: 'What the sign-in page needs' } }, async (request): Promise<WelcomeView> => {
    const accounts = await demoAccounts(app.source);
    return {
      session: request.session,
      demoAccounts: accounts.map(({ signInName, displayName, role }) => ({ name: signInName, displayName, role, password: DEMO_PASSWORD })),
    };
  });

  app.post<{ Body: SignInRequest }>(
    '/session',
    {
      schema: { summary: 'Sign in', body: signInRequest },
      config: {
        rateLimit: {
          max: TRIES_A_MINUTE,
          timeWindow: '1 minute',
          hook: 'preHandler',
          keyGenerator: (request) => `${request.ip} ${(request.body as SignInRequest).name.toLowerCase()}`,
        },
      },
    },
    async (request, reply): Promise<SessionView> => {
      const { name, password, station } = request.body;
      const account = await authenticate(app.source, name, password);
      if (!account) throw new HttpProblem('wrongPassword');
      setSessionCookie(reply, await openSession(app.source, account, station), config);
      return sessionView(account, station);
    },
  );

  app.delete('/session', { schema: { summary: 'Sign out' } }, async (request, reply) => {
    const token = tokenOf(request);
    if (token !== null) {
      await closeSession(app.source, token);
      app.forgetSession(reply, token);
    }
    return reply.status(204).send();
  });
}
