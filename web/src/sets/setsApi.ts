import { ChangeAssistants, ChangeCourse, CourseSettings } from '@jigsaw/contract/course';
import type { CopySet } from '@jigsaw/contract/setUp';
import { MadeGroupSet } from '@jigsaw/contract/setUp';
import type { SetSettings } from '@jigsaw/contract/sets';
import { GroupSetList, GroupSetView } from '@jigsaw/contract/sets';
import type { GroupSetId } from '@jigsaw/core/ids';
import { api } from '../api/index.js';

/** A new set, and what its groups get with it. */
export const madeTags = [
  'Set',
  'Figures',
  'Roster',
  'Activity',
  'Room',
  'Copy',
  'Desk',
  'Gradebook',
] as const;

export const setsApi = api.injectEndpoints({
  endpoints: (build) => ({
    listGroupSets: build.query<GroupSetList, string>({
      query: (courseId) => `courses/${courseId}/sets`,
      responseSchema: GroupSetList,
      providesTags: ['Set'],
    }),
    changeGroupSet: build.mutation<GroupSetView, { setId: string; body: SetSettings }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}`, method: 'PATCH', body }),
      responseSchema: GroupSetView,
      invalidatesTags: ['Set', 'Placement', 'Roster', 'Room'],
    }),
    archiveGroupSet: build.mutation<GroupSetView, { setId: string; isArchived: boolean }>({
      query: ({ setId, isArchived }) => ({
        url: `sets/${setId}/archive`,
        method: 'POST',
        body: { isArchived },
      }),
      responseSchema: GroupSetView,
      invalidatesTags: ['Set', 'Roster', 'Figures'],
    }),
    orderGroupSets: build.mutation<GroupSetList, { courseId: string; setIds: GroupSetId[] }>({
      query: ({ courseId, setIds }) => ({
        url: `courses/${courseId}/sets/order`,
        method: 'PUT',
        body: { setIds },
      }),
      responseSchema: GroupSetList,
      invalidatesTags: ['Set', 'Roster'],
    }),
    copyGroupSet: build.mutation<MadeGroupSet, { setId: string; body: CopySet }>({
      query: ({ setId, body }) => ({ url: `sets/${setId}/copies`, method: 'POST', body }),
      responseSchema: MadeGroupSet,
      invalidatesTags: madeTags,
    }),
    readCourseSettings: build.query<CourseSettings, string>({
      query: (courseId) => `courses/${courseId}/settings`,
      responseSchema: CourseSettings,
      providesTags: ['Course', 'Placement'],
    }),
    changeCourse: build.mutation<ChangeCourse, { courseId: string; body: ChangeCourse }>({
      query: ({ courseId, body }) => ({ url: `courses/${courseId}`, method: 'PUT', body }),
      responseSchema: ChangeCourse,
      invalidatesTags: ['Course'],
    }),
    /** Pages of assistants are read again: what they may see has changed. */
    changeAssistants: build.mutation<
      ChangeAssistants,
      { courseId: string; assistantsSee: ChangeAssistants['assistantsSee'] }
    >({
      query: ({ courseId, assistantsSee }) => ({
        url: `courses/${courseId}/assistants`,
        method: 'PUT',
        body: { assistantsSee },
      }),
      responseSchema: ChangeAssistants,
      invalidatesTags: ['Course', 'Placement'],
    }),
    freezeGroupSet: build.mutation<GroupSetView, { setId: string; isFrozen: boolean }>({
      query: ({ setId, isFrozen }) => ({ url: `sets/${setId}/freeze`, method: 'POST', body: { isFrozen } }),
      responseSchema: GroupSetView,
      invalidatesTags: ['Set', 'Placement'],
    }),
  }),
});

export const {
  useReadCourseSettingsQuery,
  useChangeCourseMutation,
  useChangeAssistantsMutation,
  useListGroupSetsQuery,
  useChangeGroupSetMutation,
  useArchiveGroupSetMutation,
  useOrderGroupSetsMutation,
  useCopyGroupSetMutation,
  useFreezeGroupSetMutation,
} = setsApi;
