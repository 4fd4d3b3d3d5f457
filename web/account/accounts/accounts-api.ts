import type {
  AccountEvent,
  AccountsView,
  FirstOwnerRequest,
  MachineMade,
  MachineView,
  NewAccountRequest,
  NewMachineRequest,
  OpenSession,
  OwnPasswordRequest,
  PasswordForOnce,
  RoleRequest,
} from '@decurio/contract';
import { api } from '../../state/api.js';

type OfAccount = { readonly id: string };

/** Who may sign in, and everybody's own password. */
export const accountsApi = api.injectEndpoints({
  endpoints: (build) => ({
    accounts: build.query<AccountsView, null>({ query: () => '/accounts', providesTags: ['Sessions'] }),
    earlierEvents: build.query<readonly AccountEvent[], number>({
      query: (before) => `/accounts/events?before=${before}`,
    }),
    makeAccount: build.mutation<PasswordForOnce, NewAccountRequest>({
      query: (body) => ({ url: '/accounts', method: 'POST', body }),
      invalidatesTags: ['Sessions'],
    }),
    giveRole: build.mutation<AccountsView, OfAccount & RoleRequest>({
      query: ({ id, role }) => ({ url: `/accounts/${id}/role`, method: 'PUT', body: { role } }),
      invalidatesTags: ['Sessions'],
    }),
    resetPassword: build.mutation<PasswordForOnce, OfAccount>({
      query: ({ id }) => ({ url: `/accounts/${id}/password-for-once`, method: 'POST', body: {} }),
      invalidatesTags: ['Sessions'],
    }),
    lockAccount: build.mutation<AccountsView, OfAccount & { readonly act: 'lock' | 'unlock' }>({
      query: ({ id, act }) => ({ url: `/accounts/${id}/${act}`, method: 'POST', body: {} }),
      invalidatesTags: ['Sessions'],
    }),
    sessionsOf: build.query<OpenSession[], string>({
      query: (id) => `/accounts/${id}/sessions`,
      providesTags: ['Sessions'],
    }),
    endSessionOf: build.mutation<OpenSession[], OfAccount & { readonly sessionId: string }>({
      query: ({ id, sessionId }) => ({ url: `/accounts/${id}/sessions/${sessionId}`, method: 'DELETE' }),
      invalidatesTags: ['Sessions'],
    }),
    machines: build.query<MachineView[], null>({ query: () => '/machines', providesTags: ['Sessions'] }),
    makeMachine: build.mutation<MachineMade, NewMachineRequest>({
      query: (body) => ({ url: '/machines', method: 'POST', body }),
      invalidatesTags: ['Sessions'],
    }),
    endMachine: build.mutation<MachineView[], OfAccount>({
      query: ({ id }) => ({ url: `/machines/${id}/end`, method: 'POST', body: {} }),
      invalidatesTags: ['Sessions'],
    }),
    makeFirstOwner: build.mutation<null, FirstOwnerRequest>({
      query: (body) => ({ url: '/first-owner', method: 'POST', body }),
    }),
    changeOwnPassword: build.mutation<null, OwnPasswordRequest>({
      query: (body) => ({ url: '/own-password', method: 'PUT', body }),
      invalidatesTags: ['Sessions'],
    }),
  }),
});
