import { WorkView } from '@jigsaw/contract/handin';
import type { SavePart } from '@jigsaw/contract/handin';
import { api } from '../api/index.js';

const readApi = api.injectEndpoints({
  endpoints: (build) => ({
    readWork: build.query<WorkView, string>({
      query: (copyId) => `copies/${copyId}/work`,
      responseSchema: WorkView,
      providesTags: ['Copy'],
    }),
  }),
});

/** Whatever changes the work answers with all of it, which then stands in the cache. */
const keepAnswer = async (
  { copyId }: { copyId: string },
  {
    dispatch,
    queryFulfilled,
  }: { dispatch: (action: never) => unknown; queryFulfilled: Promise<{ data: WorkView }> },
): Promise<void> => {
  const answer = await queryFulfilled.catch(() => null); // a refusal is shown where the act was asked for
  if (answer) dispatch(readApi.util.upsertQueryData('readWork', copyId, answer.data) as never);
};

const handInApi = readApi.injectEndpoints({
  endpoints: (build) => ({
    savePart: build.mutation<WorkView, { copyId: string; body: SavePart }>({
      query: ({ copyId, body }) => ({ url: `copies/${copyId}/part`, method: 'PUT', body }),
      responseSchema: WorkView,
      onQueryStarted: keepAnswer,
      invalidatesTags: ['Room'],
    }),
    deleteFile: build.mutation<WorkView, { copyId: string; fileId: string; isDeleted: boolean }>({
      query: ({ copyId, fileId, isDeleted }) => ({
        url: `copies/${copyId}/files/${fileId}${isDeleted ? '' : '/restore'}`,
        method: isDeleted ? 'DELETE' : 'POST',
      }),
      responseSchema: WorkView,
      onQueryStarted: keepAnswer,
      invalidatesTags: ['Room'],
    }),
    handIn: build.mutation<WorkView, { copyId: string; attempt: number }>({
      query: ({ copyId, attempt }) => ({
        url: `copies/${copyId}/hand-in`,
        method: 'POST',
        body: { attempt },
      }),
      responseSchema: WorkView,
      onQueryStarted: keepAnswer,
      invalidatesTags: ['Room', 'Figures', 'Copy'],
    }),
  }),
});

export const { useReadWorkQuery } = readApi;
export const { useSavePartMutation, useDeleteFileMutation, useHandInMutation } = handInApi;
