import { DiscussionView, PostView } from '@jigsaw/contract/discussion';
import type { AddPost, ChangePost } from '@jigsaw/contract/discussion';
import { api } from '../api/index.js';

const invalidatesTags = ['Copy', 'Room', 'Figures'] as const;

export const { useReadDiscussionQuery, useAddPostMutation, useChangePostMutation, useTakeOutPostMutation } =
  api.injectEndpoints({
    endpoints: (build) => ({
      /** `after` is the last thread of the page before. */
      readDiscussion: build.query<DiscussionView, { copyId: string; after: string | null }>({
        query: ({ copyId, after }) => `copies/${copyId}/discussion${after === null ? '' : `?after=${after}`}`,
        responseSchema: DiscussionView,
        providesTags: ['Copy'],
      }),
      addPost: build.mutation<PostView, { copyId: string; body: AddPost }>({
        query: ({ copyId, body }) => ({ url: `copies/${copyId}/posts`, method: 'POST', body }),
        responseSchema: PostView,
        invalidatesTags: [...invalidatesTags],
      }),
      changePost: build.mutation<PostView, { copyId: string; postId: string; body: ChangePost }>({
        query: ({ copyId, postId, body }) => ({
          url: `copies/${copyId}/posts/${postId}`,
          method: 'PUT',
          body,
        }),
        responseSchema: PostView,
        invalidatesTags: [...invalidatesTags],
      }),
      takeOutPost: build.mutation<PostView, { copyId: string; postId: string; isOut: boolean }>({
        query: ({ copyId, postId, isOut }) => ({
          url: `copies/${copyId}/posts/${postId}${isOut ? '' : '/put-back'}`,
          method: isOut ? 'DELETE' : 'POST',
        }),
        responseSchema: PostView,
        invalidatesTags: [...invalidatesTags],
      }),
    }),
  });
