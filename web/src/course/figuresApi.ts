import { Figures } from '@jigsaw/contract/track';
import { api } from '../api/index.js';

export const figuresApi = api.injectEndpoints({
  endpoints: (build) => ({
    readFigures: build.query<Figures, string>({
      query: (courseId) => `courses/${courseId}/figures`,
      responseSchema: Figures,
      providesTags: ['Figures'],
    }),
  }),
});

export const { useReadFiguresQuery } = figuresApi;
