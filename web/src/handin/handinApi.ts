import { CopyView, RoomList } from '@jigsaw/contract/handin';
import type { SavePart } from '@jigsaw/contract/handin';
import { api } from '../api/index.js';

const readApi = api.injectEndpoints({
  endpoints: (build) => ({
    listRooms: build.query<RoomList, string>({ query: (courseId) => `courses/${courseId}/rooms`, responseSchema: RoomList, providesTags: ['Room'] }),
    readCopy: build.query<CopyView, string>({ query: (copyId) => `copies/${copyId}`, responseSchema: CopyView, providesTags: ['Copy'] }),
  }),
});

/** Whatever changes a copy answers with the whole copy, which then stands in the cache. */
const keepAnswer = async (
  { copyId }: { copyId: string },
  { dispatch, queryFulfilled }: { dispatch: (action: never) => unknown; queryFulfilled: Promise<{ data: CopyView }> },
): Promise<void> => {
  const answer = await queryFulfilled.catch(() => null); // a refusal is shown where the act was asked for
  if (answer) dispatch(readApi.util.upsertQueryData('readCopy', copyId, answer.data) as never);
};

const handInApi = readApi.injectEndpoints({
  endpoints: (build) => ({
    savePart: build.mutation<CopyView, { copyId: string; body: SavePart }>({
      query: ({ copyId, body }) => ({ url: `copies/${copyId}/part`, method: 'PUT', body }),
      responseSchema: CopyView,
      onQueryStarted: keepAnswer,
      invalidatesTags: ['Room'],
    }),
    takeOutFile: build.mutation<CopyView, { copyId: string; fileId: string; isOut: boolean }>({
      query: ({ copyId, fileId, isOut }) => ({ url: `copies/${copyId}/files/${fileId}${isOut ? '' : '/put-back'}`, method: isOut ? 'DELETE' : 'POST' }),
      responseSchema: CopyView,
      onQueryStarted: keepAnswer,
      invalidatesTags: ['Room'],
    }),
    handIn: build.mutation<CopyView, { copyId: string; attempt: number }>({
      query: ({ copyId, attempt }) => ({ url: `copies/${copyId}/hand-in`, method: 'POST', body: { attempt } }),
      responseSchema: CopyView,
      onQueryStarted: keepAnswer,
      invalidatesTags: ['Room', 'Figures', 'Copy'],
    }),
  }),
});

export const { useListRoomsQuery, useReadCopyQuery } = readApi;
export const { useSavePartMutation, useTakeOutFileMutation, useHandInMutation } = handInApi;
