import { createSlice } from '@reduxjs/toolkit';
import { useSelector } from 'react-redux';
import type { HouseView, SessionView } from '@decurio/contract';
import { api } from './api.js';
import { sessionLost } from './ask-server.js';

export interface SessionState {
  readonly who: SessionView | null;
  /** The session ended while someone was at work: their page stays, the sign-in lies over it. */
  readonly lost: boolean;
  readonly house: HouseView | null;
}

const initialState: SessionState = { who: null, lost: false, house: null };

export const session = createSlice({
  name: 'session',
  initialState,
  reducers: {},
  extraReducers: (builder) => {
    builder
      .addCase(sessionLost().type, (state) => {
        state.lost = state.who !== null;
      })
      .addMatcher(api.endpoints.welcome.matchFulfilled, (state, { payload }) => {
        state.house = payload.house;
        if (payload.session) Object.assign(state, { who: payload.session, lost: false });
        else if (state.who) state.lost = true;
      })
      .addMatcher(api.endpoints.signIn.matchFulfilled, (state, { payload }) => {
        state.who = payload;
        state.lost = false;
      })
      .addMatcher(api.endpoints.signOut.matchFulfilled, ({ house }) => ({ ...initialState, house }));
  },
});

export const useSession = (): SessionState => useSelector((state: { session: SessionState }) => state.session);
