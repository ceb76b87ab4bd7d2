import { ActivityPlaced, HeadingMoved, OutlineView } from '@jigsaw/contract/outline';
import type { MoveHeading, PlaceActivity } from '@jigsaw/contract/outline';
import type { ActivityId, HeadingId } from '@jigsaw/core/ids';
import { headingMoved, placed } from '@jigsaw/core/outline';
import { api } from '../api/index.js';

export interface OfHeading {
  readonly courseId: string;
  readonly headingId: HeadingId;
}

interface Lifecycle {
  readonly dispatch: (action: never) => unknown;
  readonly queryFulfilled: Promise<{ readonly data: OutlineView | { readonly outline: OutlineView } }>;
}

/** Shows what the answer has, and until it comes what it will have.
 * @param foreseen null, or left out: the page waits for the answer. */
async function show(
  courseId: string,
  { dispatch, queryFulfilled }: Lifecycle,
  foreseen: (outline: OutlineView) => OutlineView | null = () => null,
) {
  const update = (next: (outline: OutlineView) => OutlineView) =>
    (dispatch as unknown as (action: unknown) => { undo(): void })(
      readApi.util.updateQueryData('readOutline', courseId, next),
    );
  const shown = update((outline) => foreseen(outline) ?? outline);
  const answer = await queryFulfilled.catch(() => null);
  if (answer === null) return shown.undo(); // the refusal is told where the act was
  const { data } = answer;
  update(() => ('outline' in data ? data.outline : data));
}

/** What was refused was asked of an outline that is not so any more, or another change came between. */
const whenRefused = (_answer: unknown, error: unknown): readonly 'Outline'[] => (error ? ['Outline'] : []);

const readApi = api.injectEndpoints({
  endpoints: (build) => ({
    readOutline: build.query<OutlineView, string>({
      query: (courseId) => `courses/${courseId}/outline`,
      responseSchema: OutlineView,
      // What is released, moved or withdrawn comes into it, and leaves it.
      providesTags: ['Outline', 'Activity'],
    }),
  }),
});

const writeApi = readApi.injectEndpoints({
  endpoints: (build) => ({
    createHeading: build.mutation<OutlineView, { courseId: string; title: string }>({
      query: ({ courseId, title }) => ({
        url: `courses/${courseId}/headings`,
        method: 'POST',
        body: { title },
      }),
      responseSchema: OutlineView,
      invalidatesTags: whenRefused,
      onQueryStarted: ({ courseId }, lifecycle) => show(courseId, lifecycle),
    }),
    renameHeading: build.mutation<OutlineView, OfHeading & { title: string; version: number }>({
      query: ({ headingId, title, version }) => ({
        url: `headings/${headingId}`,
        method: 'PUT',
        body: { title, version },
      }),
      responseSchema: OutlineView,
      invalidatesTags: whenRefused,
      onQueryStarted: ({ courseId }, lifecycle) => show(courseId, lifecycle),
    }),
    moveHeading: build.mutation<HeadingMoved, OfHeading & MoveHeading>({
      query: ({ headingId, before }) => ({
        url: `headings/${headingId}/move`,
        method: 'POST',
        body: { before },
      }),
      responseSchema: HeadingMoved,
      invalidatesTags: whenRefused,
      onQueryStarted: ({ courseId, headingId, before }, lifecycle) =>
        show(
          courseId,
          lifecycle,
          (outline) => headingMoved(outline, headingId, before) as OutlineView | null,
        ),
    }),
    deleteHeading: build.mutation<OutlineView, OfHeading>({
      query: ({ headingId }) => ({ url: `headings/${headingId}`, method: 'DELETE' }),
      responseSchema: OutlineView,
      invalidatesTags: whenRefused,
      onQueryStarted: ({ courseId }, lifecycle) => show(courseId, lifecycle),
    }),
    restoreHeading: build.mutation<OutlineView, OfHeading>({
      query: ({ headingId }) => ({ url: `headings/${headingId}/restore`, method: 'POST' }),
      responseSchema: OutlineView,
      invalidatesTags: whenRefused,
      onQueryStarted: ({ courseId }, lifecycle) => show(courseId, lifecycle),
    }),
    placeActivity: build.mutation<
      ActivityPlaced,
      PlaceActivity & { courseId: string; activityId: ActivityId }
    >({
      query: ({ activityId, headingId, before }) => ({
        url: `activities/${activityId}/place`,
        method: 'POST',
        body: { headingId, before },
      }),
      responseSchema: ActivityPlaced,
      invalidatesTags: whenRefused,
      onQueryStarted: ({ courseId, activityId, ...to }, lifecycle) =>
        show(courseId, lifecycle, (outline) => placed(outline, activityId, to) as OutlineView | null),
    }),
  }),
});

export const { useReadOutlineQuery } = readApi;
export const {
  useCreateHeadingMutation,
  useRenameHeadingMutation,
  useMoveHeadingMutation,
  useDeleteHeadingMutation,
  useRestoreHeadingMutation,
  usePlaceActivityMutation,
} = writeApi;
