import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { api } from './api.js';
import { session } from './session.js';

export const store = configureStore({
  reducer: { [api.reducerPath]: api.reducer, session: session.reducer },
  middleware: (defaults) => defaults({ immutableCheck: false, serializableCheck: false }).concat(api.middleware),
});
setupListeners(store.dispatch);

export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
