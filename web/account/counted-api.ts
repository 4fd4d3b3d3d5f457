import type { CountedView } from '@decurio/contract';
import { api } from '../state/api.js';

export const countedApi = api.injectEndpoints({
  endpoints: (build) => ({
    counted: build.query<CountedView, null>({ query: () => '/session/counted', providesTags: ['Sessions'] }),
    letCount: build.mutation<CountedView, CountedView>({
      query: (body) => ({ url: '/session/counted', method: 'PUT', body }),
      invalidatesTags: ['Sessions', 'Ledger'],
    }),
  }),
});
