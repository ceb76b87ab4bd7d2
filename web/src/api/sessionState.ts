import { createSlice } from '@reduxjs/toolkit';

/** The session ended while someone was at work: the page stays, and a sign-in comes over it. */
const slice = createSlice({
  name: 'session',
  initialState: { hasEnded: false, resumptions: 0 },
  reducers: {
    sessionEnded: (state) => {
      state.hasEnded = true;
    },
    sessionResumed: (state) => {
      state.hasEnded = false;
      state.resumptions += 1;
    },
  },
});

export const { sessionEnded, sessionResumed } = slice.actions;
export const sessionReducer = slice.reducer;
