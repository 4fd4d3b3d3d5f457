import type {
  AfterwardsQuery,
  AfterwardsView,
  AskedChange,
  KeepChangesRequest,
  OfferRequest,
  OfferView,
  PlanOutlook,
  PlanView,
  Scenario,
  WhatIfRequest,
} from '@decurio/contract';
import { api } from './api.js';

/** What the plan is made of: units that move tell the list of orders, and who and what is there stands in the library. */
const MOVED_BY = [{ type: 'Orders', id: 'list' }, 'Library'] as const;

/** The plan of the day, as Plan, Line, Orders and intake ask for it. */
export const planApi = api.injectEndpoints({
  endpoints: (build) => ({
    plan: build.query<PlanView, null>({ query: () => '/plan', providesTags: [...MOVED_BY] }),
    outlook: build.query<PlanOutlook, null>({
      query: () => '/plan/outlook',
      providesTags: [...MOVED_BY],
    }),
    whatIf: build.mutation<readonly Scenario[], WhatIfRequest>({
      query: (body) => ({ url: '/plan/what-if', method: 'POST', body }),
      // Refused since the plan moved: the newer one is looked at, and asked of again.
      invalidatesTags: (_, error) => (error ? [...MOVED_BY] : []),
    }),
    keepChanges: build.mutation<PlanView, KeepChangesRequest>({
      query: (body) => ({ url: '/plan/changes', method: 'POST', body }),
      invalidatesTags: [...MOVED_BY],
    }),
    remedies: build.query<
      readonly { readonly change: AskedChange; readonly inTime: number }[],
      { readonly orderId: string; readonly revision: number }
    >({ query: ({ orderId }) => `/plan/orders/${orderId}/remedies` }),
    offer: build.mutation<OfferView, OfferRequest>({
      query: (body) => ({ url: '/plan/offers', method: 'POST', body }),
    }),
    afterwards: build.query<AfterwardsView, AfterwardsQuery>({
      query: (params) => ({ url: '/plan/afterwards', params }),
    }),
  }),
});
