import { Invited, Outbox } from '@jigsaw/contract/mail';
import type { InviteRequest } from '@jigsaw/contract/mail';
import { api } from '../api/index.js';

export const { useReadOutboxQuery, useInviteMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    readOutbox: build.query<Outbox, string>({
      query: (courseId) => `courses/${courseId}/outbox`,
      responseSchema: Outbox,
      providesTags: ['Outbox'],
    }),
    invite: build.mutation<Invited, { readonly courseId: string; readonly body: InviteRequest }>({
      query: ({ courseId, body }) => ({
        url: `courses/${courseId}/roster/invitations`,
        method: 'POST',
        body,
      }),
      responseSchema: Invited,
      invalidatesTags: ['Outbox', 'Roster'],
    }),
  }),
});
