import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { noticesReducer } from '../look/index.js';
import { api } from './api.js';
import { sendingReducer } from './sendingState.js';
import { sessionReducer } from './sessionState.js';

export function makeStore() {
  const store = configureStore({
    reducer: {
      [api.reducerPath]: api.reducer,
      session: sessionReducer,
      sending: sendingReducer,
      notices: noticesReducer,
    },
    middleware: (usual) => usual().concat(api.middleware),
  });
  setupListeners(store.dispatch);
  return store;
}

export type RootState = ReturnType<ReturnType<typeof makeStore>['getState']>;
