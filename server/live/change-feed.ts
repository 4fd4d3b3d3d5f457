import type { ChangeSeen } from '@decurio/contract';
import type { DataSource } from 'typeorm';
import { changesAfter, forgetOldChanges, newestChange } from '../store/changes.js';

export type Listener = (change: ChangeSeen) => void;

export interface ChangeFeed {
  /** Hears every change from now on, whichever process made it. Gives back how to stop. */
  readonly listen: (listener: Listener) => Promise<() => void>;
  readonly close: () => void;
}

const ASK_MS = 250;
/** Numbers are given before transactions end, and by each node of a cluster in steps: one that ends late may stand this far behind the newest. */
const LATE = 600;
const MOST = 2000;
const FORGET_MS = 10 * 60_000;

/** Asks the database for changes while anybody listens: one question at a time for all listeners of this process. */
export function changeFeed(source: DataSource, onError: (error: unknown) => void): ChangeFeed {
  const listeners = new Set<Listener>();
  let told = new Set<number>();
  let newest = 0;
  let timer: NodeJS.Timeout | undefined;
  let forgotAt = Date.now();
  let closed = false;
  let begun: Promise<void> | null = null;

  /** From where the first listener hears; those who come meanwhile wait for the same. */
  const begin = async () => {
    newest = await newestChange(source);
    told = new Set((await changesAfter(source, newest - LATE, MOST)).map(({ id }) => id));
  };

  const ask = async () => {
    try {
      const changes = await changesAfter(source, newest - LATE, MOST);
      for (const change of changes) {
        if (told.has(change.id)) continue;
        told.add(change.id);
        for (const listener of listeners) listener(change);
      }
      newest = Math.max(newest, changes.at(-1)?.id ?? 0);
      told = new Set([...told].filter((id) => id > newest - LATE));
      if (Date.now() - forgotAt > FORGET_MS) {
        forgotAt = Date.now();
        await forgetOldChanges(source);
      }
    } catch (error) {
      if (!closed) onError(error);
    }
    if (listeners.size > 0 && !closed) timer = setTimeout(() => void ask(), ASK_MS);
    else {
      timer = undefined;
      begun = null;
    }
  };

  return {
    listen: async (listener) => {
      begun ??= begin();
      await begun.catch((error: unknown) => {
        begun = null;
        throw error;
      });
      listeners.add(listener);
      timer ??= setTimeout(() => void ask(), ASK_MS);
      return () => listeners.delete(listener);
    },
    close: () => {
      closed = true;
      clearTimeout(timer);
      listeners.clear();
    },
  };
}
