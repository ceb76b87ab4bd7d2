import { DeskList, DeskView, Gradebook, MarkView, MyMarks } from '@jigsaw/contract/marks';
import type { SaveMark } from '@jigsaw/contract/marks';
import { api } from '../api/index.js';

/** What one mark is of: the group's copy, or one student in it. */
export interface MarkOf {
  readonly copyId: string;
  readonly unit: string;
}

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
    listDesk: build.query<DeskList, string>({
      query: (courseId) => `courses/${courseId}/desk`,
      responseSchema: DeskList,
      providesTags: ['Desk'],
    }),
    readDesk: build.query<DeskView, string>({
      query: (releaseId) => `releases/${releaseId}/desk`,
      responseSchema: DeskView,
      providesTags: ['Desk'],
    }),
    readMark: build.query<MarkView, MarkOf>({
      query: ({ copyId, unit }) => `copies/${copyId}/marks/${unit}`,
      responseSchema: MarkView,
      providesTags: ['Mark'],
    }),
    saveMark: build.mutation<MarkView, MarkOf & { body: SaveMark }>({
      query: ({ copyId, unit, body }) => ({ url: `copies/${copyId}/marks/${unit}`, method: 'PUT', body }),
      responseSchema: MarkView,
      invalidatesTags: ['Desk', 'Figures'],
    }),
    releaseMarks: build.mutation<MarkView, MarkOf & { version: number }>({
      query: ({ copyId, unit, version }) => ({
        url: `copies/${copyId}/marks/${unit}/release`,
        method: 'POST',
        body: { version },
      }),
      responseSchema: MarkView,
      invalidatesTags: ['Desk', 'Figures', 'Mark'],
    }),
    recallMarks: build.mutation<MarkView, MarkOf>({
      query: ({ copyId, unit }) => ({ url: `copies/${copyId}/marks/${unit}/recall`, method: 'POST' }),
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
