import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { useSelector } from 'react-redux';

/** Whether the server answers this page. */
export interface ReachState {
  /** Since when it has not, in ms since 1970; null while it does. */
  readonly awaySince: number | null;
  /** When the oldest of what is shown instead was said by the server; null where nothing was. */
  readonly shownAsOf: number | null;
}

const REACHED: ReachState = { awaySince: null, shownAsOf: null };

export const reach = createSlice({
  name: 'reach',
  initialState: REACHED,
  reducers: {
    answered: (state) => (state.awaySince === null ? state : REACHED),
    unanswered: (state, { payload }: PayloadAction<number>) => {
      state.awaySince ??= payload;
    },
    /** Something that this device kept is shown in place of an answer. */
    shownKept: (state, { payload }: PayloadAction<number>) => {
      state.shownAsOf = Math.min(payload, state.shownAsOf ?? payload);
    },
  },
});

export const useReach = (): ReachState => useSelector((state: { reach: ReachState }) => state.reach);
