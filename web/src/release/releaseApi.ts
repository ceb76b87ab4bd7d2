import { Done } from '@jigsaw/contract/common';
import { ForeseenMarks } from '@jigsaw/contract/marks';
import type { ForeseeMarks } from '@jigsaw/contract/marks';
import { ActivityList, ActivityView, CollisionList, ManyChanged, ReachView } from '@jigsaw/contract/release';
import type {
  ActivityDraft,
  ChangeMany,
  ChangeReach,
  CopyFromCourse,
  CopyActivity,
  EditActivity,
  GrantExtension,
  ReachRequest,
  ReleaseRequest,
} from '@jigsaw/contract/release';
import type { EnrolmentId, GroupId } from '@jigsaw/core/ids';
import { api } from '../api/index.js';

/** Who gets more time. */
export type ExtendedTo = { readonly groupId: GroupId } | { readonly enrolmentId: EnrolmentId };

const reachTags = ['Activity', 'Figures', 'Room', 'Desk', 'Gradebook', 'Copy'] as const;

const readApi = api.injectEndpoints({
  endpoints: (build) => ({
    listActivities: build.query<ActivityList, string>({
      query: (courseId) => `courses/${courseId}/activities`,
      responseSchema: ActivityList,
      providesTags: ['Activity'],
    }),
    listCollisions: build.query<CollisionList, string>({
      query: (courseId) => `courses/${courseId}/collisions`,
      responseSchema: CollisionList,
      providesTags: ['Activity', 'Placement'],
    }),
    readActivity: build.query<ActivityView, string>({
      query: (activityId) => `activities/${activityId}`,
      responseSchema: ActivityView,
      providesTags: ['Activity'],
    }),
    /** Whose marks a change would touch; asked, not done. `version`: of the activity that is asked about. */
    foreseeMarks: build.query<ForeseenMarks, { activityId: string; version: number } & ForeseeMarks>({
      query: ({ activityId, extension }) => ({
        url: `activities/${activityId}/marks-foreseen`,
        method: 'POST',
        body: { extension },
      }),
      responseSchema: ForeseenMarks,
      providesTags: ['Activity', 'Mark'],
    }),
    /** Who such a release would reach; asked, not done. */
    foresee: build.query<ReachView, { activityId: string; body: ReachRequest }>({
      query: ({ activityId, body }) => ({ url: `activities/${activityId}/reach`, method: 'POST', body }),
      responseSchema: ReachView,
      providesTags: ['Placement', 'Activity'],
    }),
  }),
});

interface Lifecycle {
  readonly dispatch: (action: never) => unknown;
  readonly getState: () => unknown;
  readonly queryFulfilled: Promise<{ readonly data: ActivityView }>;
}

/** Shows an activity as the answer has it wherever it is shown already. */
async function showActivity(
  { activityId }: { readonly activityId: string },
  { dispatch, getState, queryFulfilled }: Lifecycle,
) {
  const answer = await queryFulfilled.catch(() => null);
  if (!answer) return; // the refusal is told where the act was
  const show = dispatch as unknown as (action: unknown) => unknown;
  show(readApi.util.updateQueryData('readActivity', activityId, () => answer.data));
  const root = getState() as Parameters<typeof readApi.util.selectCachedArgsForQuery>[0];
  for (const courseId of readApi.util.selectCachedArgsForQuery(root, 'listActivities'))
    show(
      readApi.util.updateQueryData('listActivities', courseId, (list) => {
        list.activities = list.activities.map((each) => (each.id === activityId ? answer.data : each));
      }),
    );
}

/** Takes a deleted draft out of the lists that show it. */
async function hideActivity(
  activityId: string,
  {
    dispatch,
    getState,
    queryFulfilled,
  }: Omit<Lifecycle, 'queryFulfilled'> & { queryFulfilled: Promise<unknown> },
) {
  const isRefused = await queryFulfilled.then(
    () => false,
    () => true,
  );
  if (isRefused) return; // told where the act was
  const show = dispatch as unknown as (action: unknown) => unknown;
  const root = getState() as Parameters<typeof readApi.util.selectCachedArgsForQuery>[0];
  for (const courseId of readApi.util.selectCachedArgsForQuery(root, 'listActivities'))
    show(
      readApi.util.updateQueryData('listActivities', courseId, (list) => {
        list.activities = list.activities.filter((each) => each.id !== activityId);
      }),
    );
}

const writeApi = readApi.injectEndpoints({
  endpoints: (build) => ({
    draftActivity: build.mutation<ActivityView, { courseId: string; body: ActivityDraft }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/activities`, method: 'POST', body }),
      responseSchema: ActivityView,
      invalidatesTags: ['Activity', 'Figures'],
    }),
    copyActivity: build.mutation<ActivityView, { activityId: string; body: CopyActivity }>({
      query: ({ activityId, body }) => ({ url: `activities/${activityId}/copy`, method: 'POST', body }),
      responseSchema: ActivityView,
      invalidatesTags: ['Activity', 'Figures'],
    }),
    copyFromCourse: build.mutation<ManyChanged, { courseId: string; body: CopyFromCourse }>({
      query: ({ courseId, body }) => ({
        url: `courses/${courseId}/activities/from-course`,
        method: 'POST',
        body,
      }),
      responseSchema: ManyChanged,
      invalidatesTags: (answer) => (answer ? ['Activity', 'Figures'] : []),
    }),
    editActivity: build.mutation<ActivityView, { activityId: string; body: EditActivity }>({
      query: ({ activityId, body }) => ({ url: `activities/${activityId}`, method: 'PUT', body }),
      responseSchema: ActivityView,
      onQueryStarted: showActivity,
    }),
    publishActivity: build.mutation<ActivityView, { activityId: string; version: number }>({
      query: ({ activityId, version }) => ({
        url: `activities/${activityId}/publish`,
        method: 'POST',
        body: { version },
      }),
      responseSchema: ActivityView,
      invalidatesTags: [...reachTags, 'Mark'],
    }),
    discardChanges: build.mutation<ActivityView, { activityId: string; version: number }>({
      query: ({ activityId, version }) => ({
        url: `activities/${activityId}/discard`,
        method: 'POST',
        body: { version },
      }),
      responseSchema: ActivityView,
      invalidatesTags: ['Activity'],
    }),
    deleteActivity: build.mutation<Done, string>({
      query: (activityId) => ({ url: `activities/${activityId}`, method: 'DELETE' }),
      responseSchema: Done,
      invalidatesTags: (_done, _refusal, activityId) => ['Figures', { type: 'Activity', id: activityId }],
      onQueryStarted: hideActivity,
    }),
    restoreActivity: build.mutation<ActivityView, string>({
      query: (activityId) => ({ url: `activities/${activityId}/restore`, method: 'POST' }),
      responseSchema: ActivityView,
      invalidatesTags: ['Activity', 'Figures'],
    }),
    releaseActivity: build.mutation<ActivityView, { activityId: string; body: ReleaseRequest }>({
      query: ({ activityId, body }) => ({ url: `activities/${activityId}/release`, method: 'POST', body }),
      responseSchema: ActivityView,
      invalidatesTags: [...reachTags],
    }),
    changeReach: build.mutation<ActivityView, { activityId: string; body: ChangeReach }>({
      query: ({ activityId, body }) => ({ url: `activities/${activityId}/reach`, method: 'PUT', body }),
      responseSchema: ActivityView,
      invalidatesTags: [...reachTags],
    }),
    changeMany: build.mutation<ManyChanged, { courseId: string } & ChangeMany>({
      query: ({ courseId, ...body }) => ({
        url: `courses/${courseId}/activities/many`,
        method: 'POST',
        body,
      }),
      responseSchema: ManyChanged,
      invalidatesTags: [...reachTags, 'Mark', 'MyMarks'],
    }),
    withdrawActivity: build.mutation<ActivityView, string>({
      query: (activityId) => ({ url: `activities/${activityId}/withdraw`, method: 'POST' }),
      responseSchema: ActivityView,
      invalidatesTags: [...reachTags],
    }),
    extend: build.mutation<
      ActivityView,
      { activityId: string; to: ExtendedTo; grant: GrantExtension | null }
    >({
      query: ({ activityId, to, grant }) => ({
        url:
          'groupId' in to
            ? `activities/${activityId}/extensions/${to.groupId}`
            : `activities/${activityId}/student-extensions/${to.enrolmentId}`,
        method: grant ? 'PUT' : 'DELETE',
        ...(grant ? { body: grant } : {}),
      }),
      responseSchema: ActivityView,
      invalidatesTags: [...reachTags, 'Mark'],
    }),
  }),
});

/** The same change, asked so that it takes this one back. */
export const backToWas = <Asked extends { readonly body: ChangeReach }>({ body, ...rest }: Asked) => ({
  ...rest,
  body: { ...body.was, was: { to: body.to, outsiders: body.outsiders } },
});

export const {
  useListActivitiesQuery,
  useListCollisionsQuery,
  useReadActivityQuery,
  useForeseeMarksQuery,
  useForeseeQuery,
} = readApi;
export const {
  useDraftActivityMutation,
  useCopyActivityMutation,
  useEditActivityMutation,
  usePublishActivityMutation,
  useDiscardChangesMutation,
  useDeleteActivityMutation,
  useRestoreActivityMutation,
  useReleaseActivityMutation,
  useChangeReachMutation,
  useWithdrawActivityMutation,
  useChangeManyMutation,
  useCopyFromCourseMutation,
  useExtendMutation,
} = writeApi;
