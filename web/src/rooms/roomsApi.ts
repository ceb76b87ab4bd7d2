import { GroupNaming } from '@jigsaw/contract/sets';
import type { NameGroup } from '@jigsaw/contract/sets';
import { CopiesOfActivity, Lately, LastWritten, RoomList, RoomView } from '@jigsaw/contract/rooms';
import { api } from '../api/index.js';

export const {
  useFindCopiesQuery,
  useListRoomsQuery,
  useReadLatelyQuery,
  useReadLastWrittenQuery,
  useReadRoomQuery,
  useNameGroupMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    listRooms: build.query<RoomList, string>({
      query: (courseId) => `courses/${courseId}/rooms`,
      responseSchema: RoomList,
      providesTags: ['Room'],
    }),
    readRoom: build.query<RoomView, string>({
      query: (groupId) => `groups/${groupId}/room`,
      responseSchema: RoomView,
      providesTags: ['Room'],
    }),
    readLately: build.query<Lately, string>({
      query: (groupId) => `groups/${groupId}/lately`,
      responseSchema: Lately,
      providesTags: ['Room'],
    }),
    readLastWritten: build.query<LastWritten, string>({
      query: (groupId) => `groups/${groupId}/last-written`,
      responseSchema: LastWritten,
      providesTags: ['Room'],
    }),
    findCopies: build.query<CopiesOfActivity, string>({
      query: (activityId) => `activities/${activityId}/copies`,
      responseSchema: CopiesOfActivity,
      providesTags: ['Activity', 'Room'],
    }),
    nameGroup: build.mutation<GroupNaming, { groupId: string; body: NameGroup }>({
      query: ({ groupId, body }) => ({ url: `groups/${groupId}/naming`, method: 'PATCH', body }),
      responseSchema: GroupNaming,
      invalidatesTags: ['Room', 'SignUp'],
    }),
  }),
});
