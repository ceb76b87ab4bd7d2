import { Home } from '@jigsaw/contract/track';
import { api } from '../api/index.js';

export const { useReadHomeQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    readHome: build.query<Home, void>({
      query: () => 'home',
      responseSchema: Home,
      providesTags: ['Figures', 'Room', 'MessageList'],
    }),
  }),
});
