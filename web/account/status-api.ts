import type { StatusView } from '@decurio/contract';
import { api } from '../state/api.js';

export const statusApi = api.injectEndpoints({
  endpoints: (build) => ({
    status: build.query<StatusView, null>({ query: () => '/status', providesTags: ['House'] }),
  }),
});
