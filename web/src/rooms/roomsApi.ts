import { GroupNaming } from '@jigsaw/contract/sets';
import type { NameGroup } from '@jigsaw/contract/sets';
import { RoomList } from '@jigsaw/contract/rooms';
import { api } from '../api/index.js';

export const { useListRoomsQuery, useNameGroupMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    listRooms: build.query<RoomList, string>({
      query: (courseId) => `courses/${courseId}/rooms`,
      responseSchema: RoomList,
      providesTags: ['Room'],
    }),
    nameGroup: build.mutation<GroupNaming, { groupId: string; body: NameGroup }>({
      query: ({ groupId, body }) => ({ url: `groups/${groupId}/naming`, method: 'PATCH', body }),
      responseSchema: GroupNaming,
      invalidatesTags: ['Room', 'SignUp'],
    }),
  }),
});
