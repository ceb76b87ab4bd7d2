import type { RestoreOwnVersion } from '@jigsaw/contract/ownFiles';
import { Done } from '@jigsaw/contract/common';
import { ShelfView } from '@jigsaw/contract/shelf';
import type { MarkSeenOnShelf } from '@jigsaw/contract/shelf';
import { api } from '../api/index.js';

interface OfGroup {
  readonly groupId: string;
}
interface OfFile extends OfGroup {
  readonly fileId: string;
}

const readApi = api.injectEndpoints({
  endpoints: (build) => ({
    readShelf: build.query<ShelfView, string>({
      query: (groupId) => `groups/${groupId}/shelf`,
      responseSchema: ShelfView,
      providesTags: ['Shelf'],
    }),
  }),
});

interface Lifecycle {
  readonly dispatch: (action: never) => unknown;
  readonly queryFulfilled: Promise<{ readonly data: ShelfView }>;
}
/** Shows a shelf as an act answered. */
export const showShelf = (groupId: string, shelf: ShelfView) =>
  readApi.util.upsertQueryData('readShelf', groupId, shelf);
async function show({ groupId }: OfGroup, { dispatch, queryFulfilled }: Lifecycle): Promise<void> {
  const answer = await queryFulfilled.catch(() => null);
  if (answer === null) return; // the refusal is told where the act was
  (dispatch as (action: unknown) => unknown)(showShelf(groupId, answer.data));
}
/** What was refused was asked of a shelf that is not so any more. */
const whenRefused = (_answer: unknown, error: unknown): readonly 'Shelf'[] => (error ? ['Shelf'] : []);
const answersAll = {
  responseSchema: ShelfView,
  onQueryStarted: show,
  invalidatesTags: whenRefused,
} as const;

const writeApi = readApi.injectEndpoints({
  endpoints: (build) => ({
    restoreShelfVersion: build.mutation<ShelfView, OfFile & { readonly body: RestoreOwnVersion }>({
      query: ({ groupId, fileId, body }) => ({
        url: `groups/${groupId}/shelf/${fileId}/versions/restore`,
        method: 'POST',
        body,
      }),
      ...answersAll,
    }),
    removeShelfFile: build.mutation<ShelfView, OfFile>({
      query: ({ groupId, fileId }) => ({ url: `groups/${groupId}/shelf/${fileId}`, method: 'DELETE' }),
      ...answersAll,
    }),
    restoreShelfFile: build.mutation<ShelfView, OfFile>({
      query: ({ groupId, fileId }) => ({ url: `groups/${groupId}/shelf/${fileId}/restore`, method: 'POST' }),
      ...answersAll,
    }),
    /** What is shown as new stays so for this visit. */
    markSeenOnShelf: build.mutation<Done, OfGroup & { readonly body: MarkSeenOnShelf }>({
      query: ({ groupId, body }) => ({ url: `groups/${groupId}/shelf/seen`, method: 'POST', body }),
      responseSchema: Done,
    }),
  }),
});

export const { useReadShelfQuery } = readApi;
export const {
  useRemoveShelfFileMutation,
  useRestoreShelfFileMutation,
  useRestoreShelfVersionMutation,
  useMarkSeenOnShelfMutation,
} = writeApi;
