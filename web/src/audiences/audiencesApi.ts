import type { AudienceDraft, EditAudience, WhoIsIn } from '@jigsaw/contract/audiences';
import { AudienceList, AudienceMembers, AudienceView } from '@jigsaw/contract/audiences';
import { Done } from '@jigsaw/contract/common';
import { api } from '../api/index.js';

/** What was released to an audience follows it. */
const followed = ['Audience', 'Activity', 'Room', 'Copy', 'Desk', 'Gradebook'] as const;

export const audiencesApi = api.injectEndpoints({
  endpoints: (build) => ({
    listAudiences: build.query<AudienceList, string>({
      query: (courseId) => `courses/${courseId}/audiences`,
      responseSchema: AudienceList,
      providesTags: ['Audience', 'Placement', 'Roster'],
    }),
    /** Who would be in such an audience; asked, not done. */
    whoIsInAudience: build.query<AudienceMembers, { courseId: string; body: WhoIsIn }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/audiences/members`, method: 'POST', body }),
      responseSchema: AudienceMembers,
      providesTags: ['Audience', 'Placement', 'Roster'],
    }),
    createAudience: build.mutation<AudienceView, { courseId: string; body: AudienceDraft }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/audiences`, method: 'POST', body }),
      responseSchema: AudienceView,
      invalidatesTags: ['Audience'],
    }),
    editAudience: build.mutation<AudienceView, { audienceId: string; body: EditAudience }>({
      query: ({ audienceId, body }) => ({ url: `audiences/${audienceId}`, method: 'PUT', body }),
      responseSchema: AudienceView,
      invalidatesTags: followed,
    }),
    deleteAudience: build.mutation<Done, { audienceId: string }>({
      query: ({ audienceId }) => ({ url: `audiences/${audienceId}`, method: 'DELETE' }),
      responseSchema: Done,
      invalidatesTags: ['Audience'],
    }),
    restoreAudience: build.mutation<AudienceView, { audienceId: string }>({
      query: ({ audienceId }) => ({ url: `audiences/${audienceId}/restore`, method: 'POST' }),
      responseSchema: AudienceView,
      invalidatesTags: ['Audience'],
    }),
  }),
});

export const {
  useCreateAudienceMutation,
  useDeleteAudienceMutation,
  useEditAudienceMutation,
  useListAudiencesQuery,
  useRestoreAudienceMutation,
  useWhoIsInAudienceQuery,
} = audiencesApi;
