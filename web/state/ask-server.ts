import { fetchBaseQuery, type BaseQueryApi, type BaseQueryFn, type FetchArgs } from '@reduxjs/toolkit/query/react';
import type { ErrorBody } from '@decurio/contract';
import { clock, clockDifference, type ClockState } from './clock.js';
import { keepAnswer, keptAnswer, type KeptAnswer } from './kept-answers.js';
import { reach } from './reach.js';

/** What any request can fail with: the server's own words, or that it could not be reached. */
export interface ApiProblem {
  readonly status: number;
  readonly code: string;
  readonly message: string;
  readonly fields?: Readonly<Record<string, string>>;
}

/** Where this device has an answer of before, it does not wait longer for a new one. */
const PATIENCE_MS = 8_000;

export const sessionLost = () => ({ type: 'session/lost' as const });

/** Every request says what this device's clock shows, so that the server can tell how far it is off. */
const bare = fetchBaseQuery({
  baseUrl: '/api',
  prepareHeaders: (headers) => headers.set('x-stand-clock', String(Date.now())),
});

/** Asks the server; where it does not answer, what this device kept of its last answer stands in. */
export const askServer: BaseQueryFn<string | FetchArgs, unknown, ApiProblem> = async (args, query, extra) => {
  const sentMs = Date.now();
  const kept = () => keptAnswer(query.endpoint, keyOf(query));
  const answer = await inTime(bare(args, query, extra), kept);
  if ('at' in answer) return standIn(answer, query);
  const { data, error, meta } = answer;
  const serverMs = Number(meta?.response?.headers.get('x-server-clock') ?? Number.NaN);
  setClock(query, clockDifference({ sentMs, heardMs: Date.now(), serverMs }));
  if (!error) {
    query.dispatch(reach.actions.answered());
    void keepAnswer({ key: keyOf(query), endpoint: query.endpoint, at: Date.now(), data });
    return { data };
  }
  const problem = problemOf(error.status, error.data);
  if (!isAway(problem)) {
    query.dispatch(reach.actions.answered());
    const isSignIn = typeof args !== 'string' && args.url === '/session';
    if (problem.status === 401 && !isSignIn) query.dispatch(sessionLost());
    return { error: problem };
  }
  query.dispatch(reach.actions.unanswered(Date.now()));
  const before = await kept();
  return before === null ? { error: problem } : standIn(before, query);
};

/** The answer, or, where it is late and there is one of before, that one. */
async function inTime<T>(asked: T | PromiseLike<T>, kept: () => Promise<KeptAnswer | null>): Promise<T | KeptAnswer> {
  let late: ReturnType<typeof setTimeout> | undefined;
  const before = new Promise<KeptAnswer>((resolve) => {
    late = setTimeout(() => void kept().then((answer) => answer && resolve(answer)), PATIENCE_MS);
  });
  try {
    return await Promise.race([asked, before]);
  } finally {
    clearTimeout(late);
  }
}

function standIn({ at, data }: KeptAnswer, query: BaseQueryApi): { readonly data: unknown } {
  query.dispatch(reach.actions.unanswered(Date.now()));
  query.dispatch(reach.actions.shownKept(at));
  return { data };
}

/** Whether nobody answered who could: the network, the server or its database is gone. */
export const isAway = ({ status, code }: ApiProblem): boolean =>
  status === 0 || status === 502 || status === 504 || code === 'databaseAway';

const keyOf = ({ queryCacheKey, endpoint }: BaseQueryApi): string => queryCacheKey ?? endpoint;

function setClock(query: BaseQueryApi, addMs: number | null): void {
  if (addMs !== null && addMs !== (query.getState() as { readonly clock: ClockState }).clock.addMs)
    query.dispatch(clock.actions.heard(addMs));
}

function problemOf(status: number | string, data: unknown): ApiProblem {
  if (typeof status === 'number' && typeof data === 'object' && data !== null && 'error' in data) {
    return { status, ...(data as ErrorBody).error };
  }
  return {
    status: 0,
    code: 'unreachable',
    message: 'The server does not answer. What you entered is still here; try again in a moment.',
  };
}
