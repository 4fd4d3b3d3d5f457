import type { DataSource } from 'typeorm';
import { endedOf } from '../store/sessions.js';

const ASK_MS = 2_000;

/** Streams that stay open, each belonging to a session: they end when it does, wherever it was ended. */
export interface SessionStreams {
  /** @param close ends the stream @returns how to say that it has ended by itself */
  readonly add: (sessionId: string, close: () => void) => () => void;
  /** Ends the streams of a session at once, in this process; others notice within seconds. */
  readonly end: (sessionId: string) => void;
  /** How many are open. */
  readonly count: () => number;
  readonly close: () => void;
}

/** Watches the sessions of open streams: one question at a time to the database, and none while no stream is open. */
export function sessionStreams(source: DataSource, onError: (error: unknown) => void): SessionStreams {
  const open = new Map<string, Set<() => void>>();
  let timer: NodeJS.Timeout | undefined;
  let closed = false;

  const end = (sessionId: string) => {
    const streams = open.get(sessionId) ?? [];
    open.delete(sessionId);
    for (const close of streams) close();
  };
  const watch = () => {
    if (timer === undefined && open.size > 0 && !closed) timer = setTimeout(() => void ask(), ASK_MS);
  };
  const ask = async () => {
    await endedOf(source, [...open.keys()]).then(
      (ended) => ended.forEach(end),
      (error: unknown) => {
        if (!closed) onError(error);
      },
    );
    timer = undefined;
    watch();
  };

  return {
    add: (sessionId, close) => {
      const streams = open.get(sessionId) ?? new Set();
      open.set(sessionId, streams.add(close));
      watch();
      return () => {
        streams.delete(close);
        if (streams.size === 0 && open.get(sessionId) === streams) open.delete(sessionId);
      };
    },
    end,
    count: () => [...open.values()].reduce((sum, streams) => sum + streams.size, 0),
    close: () => {
      closed = true;
      clearTimeout(timer);
      open.clear();
    },
  };
}
