import { ActivityList, ActivityView, ReachView } from '@jigsaw/contract/release';
import type {
  ActivityDraft,
  ChangeReach,
  CopyActivity,
  EditActivity,
  GrantExtension,
  ReachRequest,
  ReleaseRequest,
} from '@jigsaw/contract/release';
import { api } from '../api/index.js';

const reachTags = ['Activity', 'Figures', 'Room', 'Desk', 'Gradebook', 'Copy'] as const;

const readApi = api.injectEndpoints({
  endpoints: (build) => ({
    listActivities: build.query<ActivityList, string>({
      query: (courseId) => `courses/${courseId}/activities`,
      responseSchema: ActivityList,
      providesTags: ['Activity'],
    }),
    readActivity: build.query<ActivityView, string>({
      query: (activityId) => `activities/${activityId}`,
      responseSchema: ActivityView,
      providesTags: ['Activity'],
    }),
    /** Whom such a release would reach; asked, not done. */
    foresee: build.query<ReachView, { activityId: string; body: ReachRequest }>({
      query: ({ activityId, body }) => ({ url: `activities/${activityId}/reach`, method: 'POST', body }),
      responseSchema: ReachView,
      providesTags: ['Placement', 'Activity'],
    }),
  }),
});

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
    editActivity: build.mutation<ActivityView, { activityId: string; body: EditActivity }>({
      query: ({ activityId, body }) => ({ url: `activities/${activityId}`, method: 'PUT', body }),
      responseSchema: ActivityView,
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
    withdrawActivity: build.mutation<ActivityView, string>({
      query: (activityId) => ({ url: `activities/${activityId}/withdraw`, method: 'POST' }),
      responseSchema: ActivityView,
      invalidatesTags: [...reachTags],
    }),
    extend: build.mutation<
      ActivityView,
      { activityId: string; groupId: string; grant: GrantExtension | null }
    >({
      query: ({ activityId, groupId, grant }) => ({
        url: `activities/${activityId}/extensions/${groupId}`,
        method: grant ? 'PUT' : 'DELETE',
        ...(grant ? { body: grant } : {}),
      }),
      responseSchema: ActivityView,
      invalidatesTags: [...reachTags, 'Mark'],
    }),
  }),
});

export const { useListActivitiesQuery, useReadActivityQuery, useForeseeQuery } = readApi;
export const {
  useDraftActivityMutation,
  useCopyActivityMutation,
  useEditActivityMutation,
  useReleaseActivityMutation,
  useChangeReachMutation,
  useWithdrawActivityMutation,
  useExtendMutation,
} = writeApi;
