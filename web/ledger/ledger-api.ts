import type { LedgerQuestion } from '@decurio/core';
import type {
  ArchiveReport,
  CheckpointView,
  ElsewhereRecordView,
  ElsewhereView,
  ComparedStates,
  KeptQuestion,
  LedgerAnswer,
  LedgerChoices,
  MovedDocument,
  MovedView,
  Recalled,
  QualityQuestion,
  QualityView,
  RecallRequest,
  StayRequest,
  TakeUpRequest,
  UnitLife,
} from '@decurio/contract';
import { api } from '../state/api.js';

type About = Pick<MovedDocument, 'kind' | 'id'>;
const movedUrl = ({ kind, id }: About): string => `/ledger/moved/${kind}/${encodeURIComponent(id)}`;

/** What the ledger is asked, beside what other places ask of it too. */
export const ledgerApi = api.injectEndpoints({
  endpoints: (build) => ({
    askLedger: build.infiniteQuery<LedgerAnswer, LedgerQuestion, string>({
      query: ({ queryArg, pageParam }) => ({
        url: '/ledger/answer',
        params: { ...queryArg, ...(pageParam === '' ? {} : { after: pageParam }) },
      }),
      infiniteQueryOptions: { initialPageParam: '', getNextPageParam: ({ next }) => next ?? undefined },
      providesTags: ['Ledger'],
    }),
    ledgerChoices: build.query<LedgerChoices, null>({ query: () => '/ledger/choices', providesTags: ['Ledger'] }),
    keptQuestions: build.query<readonly KeptQuestion[], null>({
      query: () => '/ledger/questions',
      providesTags: ['Questions'],
    }),
    keepQuestion: build.mutation<object, Omit<KeptQuestion, 'keptBy'>>({
      query: (body) => ({ url: '/ledger/questions', method: 'POST', body }),
      invalidatesTags: ['Questions'],
    }),
    takeUp: build.mutation<{ readonly unitId: string }, { readonly visitId: string; readonly body: TakeUpRequest }>({
      query: ({ visitId, body }) => ({ url: `/visits/${visitId}/taken-up`, method: 'POST', body }),
      invalidatesTags: ['Ledger', 'Bench', 'Line', 'Orders'],
    }),
    unitLife: build.query<UnitLife, string>({
      query: (serial) => `/ledger/units/${encodeURIComponent(serial)}`,
      providesTags: ['Ledger'],
    }),
    compared: build.query<ComparedStates, Readonly<Record<'one' | 'oneAt' | 'other' | 'otherAt', string>>>({
      query: (params) => ({ url: '/ledger/compared', params }),
      providesTags: ['Ledger'],
    }),
    moved: build.query<MovedView, null>({ query: () => '/ledger/moved', providesTags: ['Ledger'] }),
    letStay: build.mutation<object, { readonly about: About; readonly body: StayRequest }>({
      query: ({ about, body }) => ({ url: `${movedUrl(about)}/stays`, method: 'POST', body }),
    }),
    recall: build.mutation<Recalled, { readonly about: About; readonly body: RecallRequest }>({
      query: ({ about, body }) => ({ url: `${movedUrl(about)}/recalls`, method: 'POST', body }),
      invalidatesTags: ['Orders', 'Line'],
    }),
    elsewhere: build.query<ElsewhereView, string | undefined>({
      query: (archive) => ({ url: '/elsewhere', params: archive === undefined ? {} : { archive } }),
      providesTags: ['Ledger'],
    }),
    elsewhereRecord: build.query<ElsewhereRecordView, string>({ query: (id) => `/elsewhere/${id}` }),
    bringArchive: build.mutation<ArchiveReport, { readonly file: File; readonly take: boolean }>({
      query: ({ file, take }) => ({
        url: '/archives',
        method: 'POST',
        params: take ? { take: 'true' } : {},
        body: file,
        headers: { 'content-type': 'application/zip' },
      }),
      invalidatesTags: ['Ledger'],
    }),
    dropArchive: build.mutation<object, string>({
      query: (id) => ({ url: `/elsewhere/${id}/dropped`, method: 'POST', body: {} }),
      invalidatesTags: ['Ledger'],
    }),
    quality: build.query<QualityView, QualityQuestion>({
      query: (params) => ({ url: '/quality', params: { ...params } }),
      providesTags: ['Ledger'],
    }),
    checkpoints: build.query<readonly CheckpointView[], null>({
      query: () => '/ledger/checkpoints',
      providesTags: ['Ledger'],
    }),
    dropQuestion: build.mutation<object, string>({
      query: (id) => ({ url: `/ledger/questions/${id}/dropped`, method: 'POST', body: {} }),
      invalidatesTags: ['Questions'],
    }),
  }),
});
