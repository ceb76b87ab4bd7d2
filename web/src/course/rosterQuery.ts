import { RosterView } from '@jigsaw/contract/roster';
import { api } from '../api/index.js';

/** Everyone in a course, as staff see them: the roster shows them, and audiences choose among them. */
export const { useReadRosterQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    readRoster: build.query<RosterView, string>({
      query: (courseId) => `courses/${courseId}/roster`,
      responseSchema: RosterView,
      providesTags: ['Roster'],
    }),
  }),
});
