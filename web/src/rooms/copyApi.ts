import { CopyHead, SeenAnswer } from '@jigsaw/contract/rooms';
import type { MarkSeen } from '@jigsaw/contract/rooms';
import { api } from '../api/index.js';
import { noteServerTime } from '../page/index.js';

export const { useReadCopyQuery, useMarkSeenMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    readCopy: build.query<CopyHead, string>({
      query: (copyId) => `copies/${copyId}`,
      responseSchema: CopyHead,
      transformResponse: (head: CopyHead) => {
        noteServerTime(head.serverTime);
        return head;
      },
      providesTags: ['Copy'],
    }),
    markSeen: build.mutation<SeenAnswer, { copyId: string; body: MarkSeen }>({
      query: ({ copyId, body }) => ({ url: `copies/${copyId}/seen`, method: 'POST', body }),
      responseSchema: SeenAnswer,
      invalidatesTags: ['Room', 'Figures', 'Copy'],
    }),
  }),
});
