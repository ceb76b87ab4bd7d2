import { PageView, RevisionView, WikiView } from '@jigsaw/contract/wiki';
import type { AddPage, SavePage } from '@jigsaw/contract/wiki';
import { api } from '../api/index.js';

const invalidatesTags = ['Copy', 'Room', 'Figures'] as const;

export const {
  useReadWikiQuery,
  useReadPageQuery,
  useReadRevisionQuery,
  useAddPageMutation,
  useSavePageMutation,
  useDeletePageMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    readWiki: build.query<WikiView, string>({
      query: (copyId) => `copies/${copyId}/wiki`,
      responseSchema: WikiView,
      providesTags: ['Copy'],
    }),
    readPage: build.query<PageView, { copyId: string; pageId: string }>({
      query: ({ copyId, pageId }) => `copies/${copyId}/wiki/pages/${pageId}`,
      responseSchema: PageView,
      providesTags: ['Copy'],
    }),
    /** A revision never changes, so it is asked for once. */
    readRevision: build.query<RevisionView, { copyId: string; pageId: string; number: number }>({
      query: ({ copyId, pageId, number }) => `copies/${copyId}/wiki/pages/${pageId}/revisions/${number}`,
      responseSchema: RevisionView,
    }),
    addPage: build.mutation<PageView, { copyId: string; body: AddPage }>({
      query: ({ copyId, body }) => ({ url: `copies/${copyId}/wiki/pages`, method: 'POST', body }),
      responseSchema: PageView,
      invalidatesTags: [...invalidatesTags],
    }),
    savePage: build.mutation<PageView, { copyId: string; pageId: string; body: SavePage }>({
      query: ({ copyId, pageId, body }) => ({
        url: `copies/${copyId}/wiki/pages/${pageId}`,
        method: 'PUT',
        body,
      }),
      responseSchema: PageView,
      invalidatesTags: [...invalidatesTags],
    }),
    deletePage: build.mutation<PageView, { copyId: string; pageId: string; isDeleted: boolean }>({
      query: ({ copyId, pageId, isDeleted }) => ({
        url: `copies/${copyId}/wiki/pages/${pageId}${isDeleted ? '' : '/restore'}`,
        method: isDeleted ? 'DELETE' : 'POST',
      }),
      responseSchema: PageView,
      invalidatesTags: [...invalidatesTags],
    }),
  }),
});
