import { Foreseen } from '@jigsaw/contract/foreseen';
import type { Planned } from '@jigsaw/contract/foreseen';
import { api } from '../api/index.js';

export const { useForeseeSightQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    // It changes nothing: asked for as a read, and again when anything of it changes.
    foreseeSight: build.query<Foreseen, { courseId: string; planned: Planned }>({
      query: ({ courseId, planned }) => ({
        url: `courses/${courseId}/foreseen`,
        method: 'POST',
        body: planned,
      }),
      responseSchema: Foreseen,
      keepUnusedDataFor: 0,
      providesTags: ['Activity', 'Placement', 'Roster', 'Set', 'Audience'],
    }),
  }),
});
