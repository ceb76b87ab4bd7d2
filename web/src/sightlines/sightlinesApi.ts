import { SightlinesView } from '@jigsaw/contract/sightlines';
import { api } from '../api/index.js';

export const { useReadSightlinesQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    readSightlines: build.query<SightlinesView, string>({
      query: (courseId) => `courses/${courseId}/sightlines`,
      responseSchema: SightlinesView,
      providesTags: ['Activity', 'Placement', 'Roster', 'Set', 'Audience', 'Course'],
    }),
  }),
});
