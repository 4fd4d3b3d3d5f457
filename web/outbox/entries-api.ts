import type { EntriesTaken, EntryTaken, NewEvidence } from '@decurio/contract';
import { api } from '../state/api.js';

type OfVisit = { readonly unitId: string; readonly visitId: string };
const MOVES = ['Line', 'Orders', 'Ledger', 'Disputes'] as const;

/** How entries reach the server: one, or those that waited together. */
export const entriesApi = api.injectEndpoints({
  endpoints: (build) => ({
    addEvidence: build.mutation<EntryTaken, OfVisit & { readonly body: NewEvidence }>({
      query: ({ unitId, visitId, body }) => ({
        url: `/units/${unitId}/visits/${visitId}/evidence`,
        method: 'POST',
        body,
      }),
      invalidatesTags: [...MOVES],
    }),
    addEntries: build.mutation<EntriesTaken, OfVisit & { readonly entries: readonly NewEvidence[] }>({
      query: ({ unitId, visitId, entries }) => ({
        url: `/units/${unitId}/visits/${visitId}/entries`,
        method: 'POST',
        body: { entries },
      }),
      invalidatesTags: [...MOVES],
    }),
  }),
});
