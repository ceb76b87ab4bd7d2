import { GroupDress } from '@jigsaw/contract/sets';
import type { DressGroup } from '@jigsaw/contract/sets';
import { RoomList } from '@jigsaw/contract/rooms';
import { api } from '../api/index.js';

export const { useListRoomsQuery, useDressGroupMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    listRooms: build.query<RoomList, string>({
      query: (courseId) => `courses/${courseId}/rooms`,
      responseSchema: RoomList,
      providesTags: ['Room'],
    }),
    dressGroup: build.mutation<GroupDress, { groupId: string; body: DressGroup }>({
      query: ({ groupId, body }) => ({ url: `groups/${groupId}/dress`, method: 'PATCH', body }),
      responseSchema: GroupDress,
      invalidatesTags: ['Room', 'SignUp'],
    }),
  }),
});
