import { RoomList } from '@jigsaw/contract/rooms';
import { api } from '../api/index.js';

export const { useListRoomsQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    listRooms: build.query<RoomList, string>({ query: (courseId) => `courses/${courseId}/rooms`, responseSchema: RoomList, providesTags: ['Room'] }),
  }),
});
