import type { FastifyInstance } from 'fastify';
import {
  newAccountRequest,
  ownPasswordRequest,
  roleRequest,
  type AccountEvent,
  type AccountsView,
  type NewAccountRequest,
  type OpenSession,
  type OwnPasswordRequest,
  type PasswordForOnce,
  type RoleRequest,
} from '@decurio/contract';
import { object, string } from 'yup';
import { permit } from '../security/roles.js';
import { accountEvents } from '../store/account-events.js';
import {
  changeOwnPassword,
  giveRole,
  listAccounts,
  lockAccount,
  makeAccount,
  resetPassword,
  unlockAccount,
} from '../store/keep-accounts.js';
import { endSessionOf, openSessions } from '../store/sessions.js';

const idParams = object({ id: string().uuid().required() });
const sessionParams = idParams.shape({ sessionId: string().uuid().required() });
type OfAccount = { readonly Params: { readonly id: string } };
const eventsQuery = object({ before: string().matches(/^\d{1,15}$/, 'is a number of an event') }).noUnknown();

/** Who may sign in, and as what; and everybody's own password. */
export async function accountRoutes(app: FastifyInstance): Promise<void> {
  const view = async (): Promise<AccountsView> => {
    const [accounts, events] = await Promise.all([listAccounts(app.source), accountEvents(app.source)]);
    return { accounts, events };
  };

  app.get(
    '/accounts',
    { schema: { summary: 'Who may sign in, and what came of accounts lately' }, config: { act: 'keepAccounts' } },
    view,
  );

  app.get<{ Querystring: { before?: string } }>(
    '/accounts/events',
    {
      schema: { summary: 'What came of accounts before', querystring: eventsQuery },
      config: { act: 'keepAccounts' },
    },
    async (request): Promise<readonly AccountEvent[]> => {
      const { before } = request.query;
      return accountEvents(app.source, before === undefined ? undefined : Number(before));
    },
  );

  app.post<{ Body: NewAccountRequest }>(
    '/accounts',
    {
      schema: { summary: 'Make an account, with a password for once', body: newAccountRequest },
      config: { act: 'keepAccounts' },
    },
    async (request, reply): Promise<PasswordForOnce> => {
      const made = await makeAccount(app.source, request.body, permit(request.session, 'keepAccounts').userId);
      void reply.status(201);
      return made;
    },
  );

  app.put<OfAccount & { Body: RoleRequest }>(
    '/accounts/:id/role',
    {
      schema: { summary: 'Give an account another role', params: idParams, body: roleRequest },
      config: { act: 'keepAccounts' },
    },
    async (request): Promise<AccountsView> => {
      await giveRole(app.source, request.params.id, request.body.role, permit(request.session, 'keepAccounts').userId);
      return view();
    },
  );

  app.post<OfAccount>(
    '/accounts/:id/password-for-once',
    {
      schema: { summary: 'Give an account a password for once, and end its sessions', params: idParams },
      config: { act: 'keepAccounts' },
    },
    async (request): Promise<PasswordForOnce> =>
      resetPassword(app.source, request.params.id, permit(request.session, 'keepAccounts').userId),
  );

  for (const [path, summary, act] of [
    ['lock', 'Lock an account, and end its sessions', lockAccount],
    ['unlock', 'Let a locked account sign in again', unlockAccount],
  ] as const)
    app.post<OfAccount>(
      `/accounts/:id/${path}`,
      { schema: { summary, params: idParams }, config: { act: 'keepAccounts' } },
      async (request): Promise<AccountsView> => {
        await act(app.source, request.params.id, permit(request.session, 'keepAccounts').userId);
        return view();
      },
    );

  app.get<OfAccount>(
    '/accounts/:id/sessions',
    { schema: { summary: 'Where somebody is signed in', params: idParams }, config: { act: 'keepAccounts' } },
    async (request): Promise<readonly OpenSession[]> =>
      openSessions(app.source, request.params.id, permit(request.session, 'keepAccounts').id),
  );

  app.delete<{ Params: { readonly id: string; readonly sessionId: string } }>(
    '/accounts/:id/sessions/:sessionId',
    {
      schema: { summary: 'Sign somebody out at one place', params: sessionParams },
      config: { act: 'keepAccounts' },
    },
    async (request): Promise<readonly OpenSession[]> => {
      const { id: ownSession, userId } = permit(request.session, 'keepAccounts');
      const { id, sessionId } = request.params;
      await endSessionOf(app.source, id, sessionId, userId);
      app.streams.end(sessionId);
      return openSessions(app.source, id, ownSession);
    },
  );

  app.put<{ Body: OwnPasswordRequest }>(
    '/own-password',
    { schema: { summary: 'Choose a password of one’s own', body: ownPasswordRequest }, config: { act: 'ownPassword' } },
    async (request, reply) => {
      await changeOwnPassword(app.source, permit(request.session, 'ownPassword'), request.body);
      return reply.status(204).send();
    },
  );
}
