import { Invited, Outbox, Written } from '@jigsaw/contract/mail';
import type { InviteRequest, MessageRequest } from '@jigsaw/contract/mail';
import { api } from '../api/index.js';

export const { useReadOutboxQuery, useInviteMutation, useWriteToPeopleMutation } = api.injectEndpoints({
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
    writeToPeople: build.mutation<Written, { readonly courseId: string; readonly body: MessageRequest }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/roster/messages`, method: 'POST', body }),
      responseSchema: Written,
      invalidatesTags: ['Outbox'],
    }),
  }),
});
