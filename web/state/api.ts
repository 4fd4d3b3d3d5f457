import { original } from '@reduxjs/toolkit';
import { createApi } from '@reduxjs/toolkit/query/react';
import { shortened, type Evidence, type Pace, type VisitRecord } from '@decurio/core';
import type {
  AddUnitsRequest,
  AmendRequest,
  BenchView,
  ConfirmClassRequest,
  ConfirmMapRequest,
  CountersignRequest,
  DecideRequest,
  DisplayFoundRequest,
  DisputeView,
  EndTrial,
  EraseHandoverRequest,
  EraseRequest,
  EndingAuthority,
  IntakeReport,
  LearntFamily,
  LedgerRecordView,
  LedgerRow,
  LibraryDocuments,
  LibraryEntry,
  LibraryKind,
  LineView,
  HandoverRequest,
  HandoverView,
  HouseView,
  LeaveOutRequest,
  NewBatchRequest,
  MoreRuns,
  NewDispute,
  NewTrial,
  NewTrialRun,
  NewOrderRequest,
  OpenSession,
  OpenVisitRequest,
  OrderActed,
  OrderPageView,
  OrderView,
  PaceView,
  PapersView,
  PhotoKept,
  Page,
  PinLookRequest,
  PersonalView,
  PinView,
  RecompileRequest,
  SealCheck,
  SessionView,
  SignInRequest,
  SpareView,
  StarterView,
  TakenView,
  TakeRunBack,
  TrialView,
  UnitFound,
  VersionView,
  WelcomeView,
  WishesRequest,
  WithdrawRequest,
} from '@decurio/contract';
import { newerBench } from './newer-bench.js';
import { askServer, isAway, type ApiProblem } from './ask-server.js';
import { keptUnit } from './kept-answers.js';
import { isNewReleaseThere } from './new-release.js';

export { type ApiProblem } from './ask-server.js';

/** What answers are about. */
export const TAGS = [
  'Orders',
  'Line',
  'Bench',
  'Ledger',
  'Questions',
  'Library',
  'Disputes',
  'Trials',
  'Pace',
  'Families',
  'Handover',
  'House',
  'Personal',
  'Sessions',
  'Release',
] as const;

export const api = createApi({
  reducerPath: 'api',
  baseQuery: askServer,
  tagTypes: TAGS,
  refetchOnFocus: true,
  refetchOnReconnect: true,
  endpoints: (build) => ({
    welcome: build.query<WelcomeView, null>({ query: () => '/welcome', providesTags: ['House'] }),
    signIn: build.mutation<SessionView, SignInRequest>({
      query: (body) => ({ url: '/session', method: 'POST', body }),
      invalidatesTags: ['House'],
    }),
    signOut: build.mutation<null, null>({
      query: () => ({ url: '/session', method: 'DELETE' }),
      invalidatesTags: ['House'],
    }),
    sessions: build.query<OpenSession[], null>({ query: () => '/sessions', providesTags: ['Sessions'] }),
    endSession: build.mutation<null, string>({
      query: (id) => ({ url: `/sessions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Sessions'],
    }),

    orders: build.query<Page<OrderView>, string | undefined>({
      query: (after) => ({ url: '/orders', params: after === undefined ? {} : { after } }),
      providesTags: [{ type: 'Orders', id: 'list' }],
    }),
    ending: build.query<EndingAuthority[], null>({
      query: () => '/orders/ending',
      providesTags: [{ type: 'Orders', id: 'list' }],
    }),
    line: build.query<LineView, string>({
      query: (id) => `/orders/${id}/line`,
      providesTags: (_view, _problem, id) => [{ type: 'Line', id }],
    }),
    checkFile: build.mutation<IntakeReport, { id: string; file: File }>({
      query: ({ id, file }) => ({
        url: '/intakes',
        method: 'POST',
        params: { id, fileName: shortened(file.name, 200) },
        headers: { 'content-type': 'text/csv' },
        body: file,
      }),
    }),
    takeIntake: build.mutation<TakenView, string>({
      query: (id) => ({ url: `/intakes/${id}/take`, method: 'POST', body: {} }),
      invalidatesTags: ['Orders', 'Line'],
    }),

    findUnit: build.query<UnitFound, string>({
      queryFn: async (serial, _api, _extra, ask) => {
        const { data, error } = await ask({ url: '/units', params: { serial } });
        if (!error) return { data: data as UnitFound };
        const kept = isAway(error) ? await keptUnit(serial) : null;
        return kept ? { data: kept } : { error };
      },
    }),
    bench: build.query<BenchView, string>({
      query: (unitId) => `/units/${unitId}/bench`,
      merge: (known, answer) => newerBench(original(known as object) as BenchView, answer) as typeof known,
      providesTags: (_view, _problem, id) => [{ type: 'Bench', id }],
    }),
    openVisit: build.mutation<Evidence, { unitId: string; body: OpenVisitRequest }>({
      query: ({ unitId, body }) => ({ url: `/units/${unitId}/visits`, method: 'POST', body }),
      invalidatesTags: ['Bench', 'Line'],
    }),
    countersign: build.mutation<Evidence, { unitId: string; visitId: string; body: CountersignRequest }>({
      query: ({ unitId, visitId, body }) => ({
        url: `/units/${unitId}/visits/${visitId}/countersignature`,
        method: 'POST',
        body,
      }),
      invalidatesTags: (_entry, _problem, { unitId }) => ['Line', { type: 'Bench', id: unitId }],
    }),
    papers: build.query<PapersView, string>({
      query: (visitId) => `/visits/${visitId}/papers`,
      providesTags: ['Line'],
    }),
    handover: build.query<HandoverView, string>({
      query: (visitId) => `/visits/${visitId}/handover`,
      providesTags: (_view, _problem, id) => [{ type: 'Handover', id }],
    }),
    addHandover: build.mutation<HandoverView, { visitId: string; body: HandoverRequest }>({
      query: ({ visitId, body }) => ({ url: `/visits/${visitId}/handover`, method: 'POST', body }),
      invalidatesTags: (_view, _problem, { visitId }) => ['Line', { type: 'Handover', id: visitId }],
    }),
    keepPhoto: build.mutation<PhotoKept, { unitId: string; visitId: string; photoId: string; jpeg: Blob }>({
      query: ({ unitId, visitId, photoId, jpeg }) => ({
        url: `/units/${unitId}/visits/${visitId}/photos/${photoId}`,
        method: 'PUT',
        body: jpeg,
        headers: { 'content-type': 'image/jpeg' },
      }),
    }),

    displayFound: build.mutation<Evidence, { unitId: string; visitId: string; body: DisplayFoundRequest }>({
      query: ({ unitId, visitId, body }) => ({
        url: `/units/${unitId}/visits/${visitId}/display`,
        method: 'POST',
        body,
      }),
      invalidatesTags: ['Bench', 'Line'],
    }),

    library: build.query<LibraryEntry[], LibraryKind>({
      query: (kind) => `/library/${kind}`,
      providesTags: ['Library'],
    }),
    versions: build.query<VersionView[], { kind: LibraryKind; id: string }>({
      query: ({ kind, id }) => `/library/${kind}/${id}/versions`,
      providesTags: ['Library'],
    }),
    atVersion: build.query<LibraryEntry, { kind: LibraryKind; id: string; version: number }>({
      query: ({ kind, id, version }) => `/library/${kind}/${id}/versions/${version}`,
    }),
    addDocument: build.mutation<LibraryEntry, { kind: LibraryKind; document: LibraryDocuments[LibraryKind] }>({
      query: (body) => ({ url: '/library', method: 'POST', body }),
      invalidatesTags: ['Library'],
    }),
    confirmMap: build.mutation<LibraryEntry, { id: string; body: ConfirmMapRequest }>({
      query: ({ id, body }) => ({ url: `/library/displayMap/${id}/confirm`, method: 'POST', body }),
      invalidatesTags: ['Library'],
    }),
    confirmClass: build.mutation<LibraryEntry<'rulePack'>, { id: string; classId: string; body: ConfirmClassRequest }>({
      query: ({ id, classId, body }) => ({
        url: `/library/rulePack/${id}/classes/${classId}/confirm`,
        method: 'POST',
        body,
      }),
      invalidatesTags: ['Library', 'Orders', 'Line', 'Bench'],
    }),
    starters: build.query<StarterView[], null>({ query: () => '/starters', providesTags: ['Library'] }),
    bringStarter: build.mutation<LibraryEntry<'rulePack'>, string>({
      query: (id) => ({ url: `/starters/${id}`, method: 'POST', body: {} }),
      invalidatesTags: ['Library'],
    }),
    order: build.query<OrderPageView, string>({
      query: (id) => `/orders/${id}`,
      providesTags: (_view, _problem, id) => [{ type: 'Orders', id }, 'Families'],
    }),
    takeByHand: build.mutation<TakenView, NewOrderRequest>({
      query: (body) => ({ url: '/orders', method: 'POST', body }),
      invalidatesTags: ['Orders', 'Line'],
    }),
    amendOrder: build.mutation<OrderActed, { id: string; body: AmendRequest }>({
      query: ({ id, body }) => ({ url: `/orders/${id}/amendments`, method: 'POST', body }),
      invalidatesTags: ['Orders', 'Line', 'Bench'],
    }),
    decide: build.mutation<OrderActed, { id: string; body: DecideRequest }>({
      query: ({ id, body }) => ({ url: `/orders/${id}/decisions`, method: 'POST', body }),
      invalidatesTags: ['Orders', 'Line', 'Bench'],
    }),
    recompile: build.mutation<OrderActed, { id: string; body: RecompileRequest }>({
      query: ({ id, body }) => ({ url: `/orders/${id}/setups`, method: 'POST', body }),
      invalidatesTags: ['Orders', 'Line', 'Bench'],
    }),
    addUnits: build.mutation<OrderActed, { id: string; body: AddUnitsRequest }>({
      query: ({ id, body }) => ({ url: `/orders/${id}/units`, method: 'POST', body }),
      invalidatesTags: ['Orders', 'Line'],
    }),
    withdrawUnits: build.mutation<OrderActed, { id: string; body: WithdrawRequest }>({
      query: ({ id, body }) => ({ url: `/orders/${id}/withdrawals`, method: 'POST', body }),
      invalidatesTags: ['Orders', 'Line', 'Bench'],
    }),
    lookAtPin: build.mutation<PinView, { id: string; body: PinLookRequest }>({
      query: ({ id, body }) => ({ url: `/orders/${id}/pin-looks`, method: 'POST', body }),
    }),
    setWishes: build.mutation<OrderActed, { unitId: string; body: WishesRequest }>({
      query: ({ unitId, body }) => ({ url: `/units/${unitId}/wishes`, method: 'PUT', body }),
      invalidatesTags: ['Orders', 'Line', 'Bench'],
    }),
    families: build.query<LearntFamily[], null>({ query: () => '/families', providesTags: ['Families'] }),
    beginBatch: build.mutation<LearntFamily[], NewBatchRequest>({
      query: (body) => ({ url: '/families/batches', method: 'POST', body }),
      invalidatesTags: ['Families'],
    }),
    newRelease: build.query<boolean, null>({
      queryFn: async () => ({ data: await isNewReleaseThere() }),
      providesTags: ['Release'],
    }),
    house: build.query<HouseView, null>({ query: () => '/house', providesTags: ['House'] }),
    changeHouse: build.mutation<HouseView, HouseView>({
      query: (body) => ({ url: '/house', method: 'PUT', body }),
      invalidatesTags: ['House'],
    }),
    spares: build.query<SpareView[], string>({
      query: (unitId) => `/units/${unitId}/spares`,
      providesTags: ['Line'],
    }),
    personal: build.query<PersonalView, null>({ query: () => '/personal', providesTags: ['Personal'] }),
    erasePerson: build.mutation<PersonalView, { id: string; body: EraseRequest }>({
      query: ({ id, body }) => ({ url: `/personal/people/${id}/erase`, method: 'POST', body }),
      invalidatesTags: ['Personal', 'Ledger', 'Line', 'Orders', 'Disputes', 'Families'],
    }),
    eraseReceiver: build.mutation<HandoverView, { visitId: string; body: EraseHandoverRequest }>({
      query: ({ visitId, body }) => ({ url: `/visits/${visitId}/handover/erase`, method: 'POST', body }),
      invalidatesTags: ['Personal', 'Handover', 'Line', 'Orders'],
    }),
    leaveRunOut: build.mutation<LearntFamily[], LeaveOutRequest>({
      query: (body) => ({ url: '/families/runs/left-out', method: 'POST', body }),
      invalidatesTags: ['Families'],
    }),
    leaveOvershootOut: build.mutation<LearntFamily[], LeaveOutRequest>({
      query: (body) => ({ url: '/families/overshoots/left-out', method: 'POST', body }),
      invalidatesTags: ['Families'],
    }),
    disputes: build.query<DisputeView[], string | null>({
      query: (mapId) => ({ url: '/disputes', params: mapId === null ? {} : { mapId } }),
      providesTags: ['Disputes'],
    }),
    raiseDispute: build.mutation<DisputeView, NewDispute>({
      query: (body) => ({ url: '/disputes', method: 'POST', body }),
      invalidatesTags: ['Disputes'],
    }),
    settleDispute: build.mutation<DisputeView, { id: string; words: string }>({
      query: ({ id, words }) => ({ url: `/disputes/${id}/settle`, method: 'POST', body: { words } }),
      invalidatesTags: ['Disputes'],
    }),
    trials: build.query<TrialView[], string>({
      query: (mapId) => ({ url: '/trials', params: { mapId } }),
      providesTags: ['Trials'],
    }),
    beginTrial: build.mutation<TrialView, NewTrial>({
      query: (body) => ({ url: '/trials', method: 'POST', body }),
      invalidatesTags: ['Trials'],
    }),
    addTrialRun: build.mutation<TrialView, { id: string; body: NewTrialRun }>({
      query: ({ id, body }) => ({ url: `/trials/${id}/runs`, method: 'POST', body }),
      invalidatesTags: ['Trials'],
    }),
    takeTrialRunBack: build.mutation<TrialView, { id: string; body: TakeRunBack }>({
      query: ({ id, body }) => ({ url: `/trials/${id}/runs/taken-back`, method: 'POST', body }),
      invalidatesTags: ['Trials'],
    }),
    drawMoreRuns: build.mutation<TrialView, { id: string; body: MoreRuns }>({
      query: ({ id, body }) => ({ url: `/trials/${id}/more`, method: 'POST', body }),
      invalidatesTags: ['Trials'],
    }),
    endTrial: build.mutation<TrialView, { id: string; body: EndTrial }>({
      query: ({ id, body }) => ({ url: `/trials/${id}/end`, method: 'POST', body }),
      invalidatesTags: ['Trials'],
    }),
    pace: build.query<PaceView, null>({ query: () => '/pace', providesTags: ['Pace', 'Families'] }),
    keepPace: build.mutation<PaceView, Pace>({
      query: (body) => ({ url: '/pace', method: 'PUT', body }),
      invalidatesTags: ['Pace', 'Families'],
    }),
    ledger: build.query<Page<LedgerRow>, { after?: string; search?: string }>({
      query: (params) => ({ url: '/ledger', params }),
      providesTags: ['Ledger'],
    }),
    record: build.query<LedgerRecordView, string>({ query: (id) => `/visits/${id}`, providesTags: ['Ledger'] }),
    checkSeal: build.mutation<SealCheck, string>({
      query: (id) => ({ url: `/visits/${id}/seal-check`, method: 'POST', body: {} }),
    }),
    checkRecord: build.mutation<SealCheck, VisitRecord>({
      query: (body) => ({ url: '/record-checks', method: 'POST', body }),
    }),
  }),
});

/** Puts accepted entries into the bench as this device knows it, without asking again. */
export const entryAccepted = (unitId: string, entries: readonly Evidence[]) =>
  api.util.updateQueryData('bench', unitId, ({ evidence }) => {
    for (const entry of entries)
      if (!evidence.some((known) => known.id === entry.id)) (evidence as Evidence[]).push(entry);
  });

/** The problem in an RTK Query error, whichever way it came. */
export function asProblem(error: unknown): ApiProblem | null {
  if (typeof error !== 'object' || error === null) return null;
  return 'code' in error && 'status' in error
    ? (error as ApiProblem)
    : { status: 0, code: 'bug', message: 'Something went wrong on this page. Reload it; what was accepted is safe.' };
}
