import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { ApiProblem } from '../state/api.js';
import type { Waiting } from './outbox-shelf.js';

/** `waiting`: not sent, or sent without an answer. `refused`: the server said no; it is kept until whoever made it has looked. */
export interface OutboxEntry extends Waiting {
  readonly status: 'waiting' | 'refused';
  readonly problem: ApiProblem | null;
}

export interface OutboxState {
  readonly entries: readonly OutboxEntry[];
  /** Why nothing is sent at the moment, or null. */
  readonly away: ApiProblem | null;
  /** What earlier pages left behind was looked for. */
  readonly isRestored: boolean;
  /** This device keeps nothing: what waits is in this page alone. */
  readonly keepsNothing: boolean;
}

const initialState: OutboxState = { entries: [], away: null, isRestored: false, keepsNothing: false };

type Change = (entry: OutboxEntry) => OutboxEntry | null;
const changed = (state: OutboxState, change: Change): OutboxState => ({
  ...state,
  entries: state.entries.flatMap((entry) => change(entry) ?? []),
});

export const outbox = createSlice({
  name: 'outbox',
  initialState,
  reducers: {
    made: (state, { payload }: PayloadAction<Waiting>) => ({
      ...state,
      entries: [...(state.entries as OutboxEntry[]), { ...payload, status: 'waiting' as const, problem: null }],
    }),
    restored: (state, { payload }: PayloadAction<readonly Waiting[]>) => {
      const known = new Set(state.entries.map(({ entry }) => entry.id));
      if (state.isRestored && payload.length === 0) return state;
      const left = payload
        .filter(({ entry }) => !known.has(entry.id))
        .map((waiting) => ({ ...waiting, status: 'waiting' as const, problem: null }));
      return { ...state, isRestored: true, entries: [...left, ...(state.entries as OutboxEntry[])] };
    },
    /** The server took it, and wrote `followed` entries because of it: what waits behind it moves on by as many. */
    taken: (state, { payload }: PayloadAction<{ readonly id: string; readonly followed: number }>) => {
      const now = state as OutboxState;
      const first = now.entries.find(({ entry }) => entry.id === payload.id);
      const next = changed(now, (each) => {
        if (each === first) return null;
        const isBehind =
          each.visitId === first?.visitId && each.status === 'waiting' && each.entry.seq > first.entry.seq;
        return isBehind && payload.followed > 0
          ? { ...each, entry: { ...each.entry, seq: each.entry.seq + payload.followed } }
          : each;
      });
      return { ...next, away: null };
    },
    /** Refused, and with it what was made on top of it. */
    refused: (state, { payload }: PayloadAction<{ readonly id: string; readonly problem: ApiProblem }>) => {
      const now = state as OutboxState;
      const first = now.entries.find(({ entry }) => entry.id === payload.id);
      return {
        ...changed(now, (each) =>
          each.visitId === first?.visitId && each.status === 'waiting' && each.order >= first.order
            ? { ...each, status: 'refused', problem: payload.problem }
            : each,
        ),
        away: null,
      };
    },
    /** To be sent after all, from this number on. */
    sentAgain: (state, { payload }: PayloadAction<{ readonly visitId: string; readonly fromSeq: number }>) => {
      let seq = payload.fromSeq;
      return changed(state as OutboxState, (each) =>
        each.visitId === payload.visitId && each.status === 'refused'
          ? { ...each, status: 'waiting', problem: null, entry: { ...each.entry, seq: seq++ } }
          : each,
      );
    },
    dropped: (state, { payload }: PayloadAction<{ readonly visitId: string }>) =>
      changed(state as OutboxState, (each) =>
        each.visitId === payload.visitId && each.status === 'refused' ? null : each,
      ),
    keeps: (state, { payload }: PayloadAction<boolean>) => ({ ...state, keepsNothing: !payload }),
    away: (state, { payload }: PayloadAction<ApiProblem | null>) => ({ ...state, away: payload }),
  },
});

export const waitingOf = ({ entries }: OutboxState): readonly OutboxEntry[] =>
  entries.filter(({ status }) => status === 'waiting');
