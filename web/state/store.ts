import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { keepAtHand, atHand } from './at-hand.js';
import { outbox } from '../outbox/outbox.js';
import { api } from './api.js';
import { clock } from './clock.js';
import { reach } from './reach.js';
import { session } from './session.js';

export const store = configureStore({
  reducer: {
    [api.reducerPath]: api.reducer,
    session: session.reducer,
    clock: clock.reducer,
    reach: reach.reducer,
    outbox: outbox.reducer,
    atHand: atHand.reducer,
  },
  middleware: (defaults) => defaults({ immutableCheck: false, serializableCheck: false }).concat(api.middleware),
});
setupListeners(store.dispatch);

export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;

let kept = store.getState().atHand;
store.subscribe(() => {
  const { atHand: now } = store.getState();
  if (now === kept) return;
  kept = now;
  keepAtHand(now);
});
