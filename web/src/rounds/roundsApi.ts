import { Done } from '@jigsaw/contract/common';
import type { AnswerStop } from '@jigsaw/contract/rooms';
import { RoomLines } from '@jigsaw/contract/rooms';
import { api } from '../api/index.js';

export const { useListRoomLinesQuery, useAnswerStopMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    listRoomLines: build.query<RoomLines, string>({
      query: (courseId) => `courses/${courseId}/room-lines`,
      responseSchema: RoomLines,
      providesTags: ['Room', 'Stop'],
    }),
    /** name: of the group, for telling what was done. */
    answerStop: build.mutation<Done, { courseId: string; name: string; body: AnswerStop }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/stops`, method: 'PUT', body }),
      responseSchema: Done,
      invalidatesTags: ['Stop'],
    }),
  }),
});
