import { DeskList, DeskView, Gradebook, MarkView, MyMarks } from '@jigsaw/contract/marks';
import type { SaveMark } from '@jigsaw/contract/marks';
import { api } from '../api/index.js';

export const {
  useListDeskQuery,
  useReadDeskQuery,
  useReadMarkQuery,
  useSaveMarkMutation,
  useReleaseMarksMutation,
  useRecallMarksMutation,
  useReadMyMarksQuery,
  useReadGradebookQuery,
} = api.injectEndpoints({
  endpoints: (build) => ({
    listDesk: build.query<DeskList, string>({ query: (courseId) => `courses/${courseId}/desk`, responseSchema: DeskList, providesTags: ['Desk'] }),
    readDesk: build.query<DeskView, string>({ query: (releaseId) => `releases/${releaseId}/desk`, responseSchema: DeskView, providesTags: ['Desk'] }),
    readMark: build.query<MarkView, string>({ query: (copyId) => `copies/${copyId}/mark`, responseSchema: MarkView, providesTags: ['Mark'] }),
    saveMark: build.mutation<MarkView, { copyId: string; body: SaveMark }>({
      query: ({ copyId, body }) => ({ url: `copies/${copyId}/mark`, method: 'PUT', body }),
      responseSchema: MarkView,
      invalidatesTags: ['Desk', 'Figures'],
    }),
    releaseMarks: build.mutation<MarkView, { copyId: string; version: number }>({
      query: ({ copyId, version }) => ({ url: `copies/${copyId}/mark/release`, method: 'POST', body: { version } }),
      responseSchema: MarkView,
      invalidatesTags: ['Desk', 'Figures', 'Mark'],
    }),
    recallMarks: build.mutation<MarkView, string>({
      query: (copyId) => ({ url: `copies/${copyId}/mark/recall`, method: 'POST' }),
      responseSchema: MarkView,
      invalidatesTags: ['Desk', 'Figures', 'Mark'],
    }),
    readGradebook: build.query<Gradebook, string>({
      query: (courseId) => `courses/${courseId}/gradebook`,
      responseSchema: Gradebook,
      providesTags: ['Desk', 'Placement'],
    }),
    readMyMarks: build.query<MyMarks, string>({
      query: (courseId) => `courses/${courseId}/my-marks`,
      responseSchema: MyMarks,
      providesTags: ['MyMarks'],
      // Looking at new marks is what makes them no longer new.
      onQueryStarted: async (_courseId, { dispatch, queryFulfilled }) => {
        const answer = await queryFulfilled.catch(() => null);
        if (answer?.data.marks.some((mark) => mark.isNew)) dispatch(api.util.invalidateTags(['Figures']));
      },
    }),
  }),
});
