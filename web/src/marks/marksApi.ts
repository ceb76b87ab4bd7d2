import { Done } from '@jigsaw/contract/common';
import type { SaveMark, SeenUnits } from '@jigsaw/contract/marks';
import type { Gradebook } from '@jigsaw/contract/gradebook';
import { FoldedGradebook, unfoldGradebook } from '@jigsaw/contract/gradebook';
import {
  DeskList,
  DeskView,
  MarkedMany,
  MarkView,
  MyMarks,
  ReadyMarks,
  SavedMark,
} from '@jigsaw/contract/marks';
import { api } from '../api/index.js';

/** What one mark is of: the group's copy, or one student in it. */
export interface MarkOf {
  readonly copyId: string;
  readonly unit: string;
}

const queriesApi = api.injectEndpoints({
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
    readReadyMarks: build.query<ReadyMarks, string>({
      query: (releaseId) => `releases/${releaseId}/marks/ready`,
      responseSchema: ReadyMarks,
      providesTags: ['Mark'],
    }),
    readGradebook: build.query<Gradebook, string>({
      query: (courseId) => `courses/${courseId}/gradebook`,
      rawResponseSchema: FoldedGradebook,
      transformResponse: unfoldGradebook,
      providesTags: ['Gradebook'],
    }),
    readMyMarks: build.query<MyMarks, string>({
      query: (courseId) => `courses/${courseId}/my-marks`,
      responseSchema: MyMarks,
      providesTags: ['MyMarks'],
    }),
  }),
});

interface Lifecycle {
  readonly dispatch: (action: never) => unknown;
  readonly getState: () => unknown;
  readonly queryFulfilled: Promise<{ readonly data: SavedMark }>;
}

/** Shows what an act on a mark made of it where marks are shown already; only what cannot be known from the answer is asked for again. */
async function showSaved({ copyId, unit }: MarkOf, { dispatch, getState, queryFulfilled }: Lifecycle) {
  const answer = await queryFulfilled.catch(() => null);
  if (!answer) return; // the refusal is told where the act was
  const { version, state, groupMark, changes, needsYou } = answer.data;
  const show = dispatch as unknown as (action: unknown) => unknown;
  show(
    queriesApi.util.updateQueryData('readMark', { copyId, unit }, (mark) => {
      Object.assign(mark, { version, state, groupMark, changes, isStale: false });
    }),
  );
  let turned = 0;
  const releaseIds = new Set<string>();
  const root = getState() as Parameters<typeof queriesApi.util.selectCachedArgsForQuery>[0];
  for (const releaseId of queriesApi.util.selectCachedArgsForQuery(root, 'readDesk'))
    show(
      queriesApi.util.updateQueryData('readDesk', releaseId, (desk) => {
        const row = desk.rows.find((each) => each.copyId === copyId && each.unit === unit);
        if (!row) return;
        releaseIds.add(releaseId);
        turned = Number(needsYou) - Number(row.needsYou);
        row.mark = { state, groupMark };
        row.needsYou = needsYou;
      }),
    );
  if (turned === 0) return;
  for (const courseId of queriesApi.util.selectCachedArgsForQuery(root, 'listDesk'))
    show(
      queriesApi.util.updateQueryData('listDesk', courseId, ({ activities }) => {
        for (const activity of activities) if (releaseIds.has(activity.releaseId)) activity.toMark += turned;
      }),
    );
  show(api.util.invalidateTags(['Figures']));
}

type ManyOf = { readonly releaseId: string } & SeenUnits;
const many =
  (act: string) =>
  ({ releaseId, units }: ManyOf) => ({
    url: `releases/${releaseId}/marks/${act}`,
    method: 'POST',
    body: { units },
  });
const manyTags = ['Desk', 'Mark', 'Gradebook', 'Figures'] as const;

const marksApi = queriesApi.injectEndpoints({
  endpoints: (build) => ({
    saveMark: build.mutation<SavedMark, MarkOf & { body: SaveMark }>({
      query: ({ copyId, unit, body }) => ({ url: `copies/${copyId}/marks/${unit}`, method: 'PUT', body }),
      responseSchema: SavedMark,
      invalidatesTags: ['Gradebook'],
      onQueryStarted: showSaved,
    }),
    releaseMarks: build.mutation<SavedMark, MarkOf & { version: number }>({
      query: ({ copyId, unit, version }) => ({
        url: `copies/${copyId}/marks/${unit}/release`,
        method: 'POST',
        body: { version },
      }),
      responseSchema: SavedMark,
      // Its history and when it was released.
      invalidatesTags: ['Mark', 'Gradebook'],
      onQueryStarted: showSaved,
    }),
    releaseManyMarks: build.mutation<MarkedMany, ManyOf>({
      query: many('release'),
      responseSchema: MarkedMany,
      invalidatesTags: [...manyTags],
    }),
    recallManyMarks: build.mutation<MarkedMany, ManyOf>({
      query: many('recall'),
      responseSchema: MarkedMany,
      invalidatesTags: [...manyTags],
    }),
    takeSuggestedMarks: build.mutation<MarkedMany, ManyOf>({
      query: many('take-suggested'),
      responseSchema: MarkedMany,
      invalidatesTags: [...manyTags],
    }),
    /** What is new stays marked as new for as long as the page is open. */
    markSeenMarks: build.mutation<Done, { courseId: string; until: string }>({
      query: ({ courseId, until }) => ({
        url: `courses/${courseId}/my-marks/seen`,
        method: 'POST',
        body: { until },
      }),
      responseSchema: Done,
      invalidatesTags: ['Figures'],
    }),
    recallMarks: build.mutation<SavedMark, MarkOf & { version: number }>({
      query: ({ copyId, unit, version }) => ({
        url: `copies/${copyId}/marks/${unit}/recall`,
        method: 'POST',
        body: { version },
      }),
      responseSchema: SavedMark,
      invalidatesTags: ['Mark', 'Gradebook'],
      onQueryStarted: showSaved,
    }),
  }),
});

export const {
  useListDeskQuery,
  useReadDeskQuery,
  useReadMarkQuery,
  useReadReadyMarksQuery,
  useReadMyMarksQuery,
  useReadGradebookQuery,
} = queriesApi;
export const {
  useSaveMarkMutation,
  useReleaseMarksMutation,
  useRecallMarksMutation,
  useReleaseManyMarksMutation,
  useRecallManyMarksMutation,
  useTakeSuggestedMarksMutation,
  useMarkSeenMarksMutation,
} = marksApi;
