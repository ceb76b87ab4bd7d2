import { createSlice } from '@reduxjs/toolkit';
import type { PayloadAction } from '@reduxjs/toolkit';
import { useSelector } from 'react-redux';

/** How far a large body on its way to the server is. */
const slice = createSlice({
  name: 'sending',
  initialState: { share: null as number | null },
  reducers: {
    /** null: nothing is on its way. */
    partSent: (state, { payload }: PayloadAction<number | null>) => {
      state.share = payload;
    },
  },
});

export const { partSent } = slice.actions;
export const sendingReducer = slice.reducer;

/** How much of a large body has left, 0 to 1; null: none is on its way. */
export const useShareSent = () =>
  useSelector((state: { readonly sending: { readonly share: number | null } }) => state.sending.share);
