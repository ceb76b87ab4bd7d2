import { ActivityList, ActivityView, ReachView } from '@jigsaw/contract/release';
import type { ActivityDraft, EditActivity, ReleaseRequest } from '@jigsaw/contract/release';
import { api } from '../api/index.js';

export const {
  useListActivitiesQuery,
  useReadActivityQuery,
  useReadReachQuery,
  useDraftActivityMutation,
  useEditActivityMutation,
  useReleaseActivityMutation,
  useWithdrawActivityMutation,
} = api.injectEndpoints({
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
    readReach: build.query<ReachView, { activityId: string; setId: string }>({
      query: ({ activityId, setId }) => `activities/${activityId}/reach/${setId}`,
      responseSchema: ReachView,
      providesTags: ['Placement', 'Activity'],
    }),
    draftActivity: build.mutation<ActivityView, { courseId: string; body: ActivityDraft }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}/activities`, method: 'POST', body }),
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
      invalidatesTags: ['Activity', 'Figures', 'Room', 'Desk'],
    }),
    withdrawActivity: build.mutation<ActivityView, string>({
      query: (activityId) => ({ url: `activities/${activityId}/withdraw`, method: 'POST' }),
      responseSchema: ActivityView,
      invalidatesTags: ['Activity', 'Figures', 'Room', 'Desk'],
    }),
  }),
});
