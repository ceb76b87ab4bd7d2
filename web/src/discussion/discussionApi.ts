import { DiscussionView, PostSaved } from '@jigsaw/contract/discussion';
import type { AddPost, ChangePost, PostView } from '@jigsaw/contract/discussion';
import { api } from '../api/index.js';
import type { RootState } from '../api/index.js';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';

interface OfCopy {
  readonly copyId: string;
}

/** What else shows something of a post. The talk itself has it from the answer: five hundred posts are not asked for again for one's own. After a refusal
 * it is asked for: something is not as this page thought. */
const invalidatesTags = (_saved: unknown, refusal: unknown) =>
  refusal === undefined ? (['Room', 'Figures'] as const) : (['Talk', 'Room', 'Figures'] as const);

const talkApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** `after` is the last thread of the page before. */
    readDiscussion: build.query<DiscussionView, OfCopy & { after: string | null }>({
      query: ({ copyId, after }) => `copies/${copyId}/discussion${after === null ? '' : `?after=${after}`}`,
      responseSchema: DiscussionView,
      providesTags: ['Talk'],
    }),
    addPost: build.mutation<PostSaved, OfCopy & { body: AddPost }>({
      query: ({ copyId, body }) => ({ url: `copies/${copyId}/posts`, method: 'POST', body }),
      responseSchema: PostSaved,
      invalidatesTags,
      onQueryStarted: showSaved,
    }),
    changePost: build.mutation<PostSaved, OfCopy & { postId: string; body: ChangePost }>({
      query: ({ copyId, postId, body }) => ({
        url: `copies/${copyId}/posts/${postId}`,
        method: 'PUT',
        body,
      }),
      responseSchema: PostSaved,
      invalidatesTags,
      onQueryStarted: showSaved,
    }),
    takeOutPost: build.mutation<PostSaved, OfCopy & { postId: string; isOut: boolean }>({
      query: ({ copyId, postId, isOut }) => ({
        url: `copies/${copyId}/posts/${postId}${isOut ? '' : '/put-back'}`,
        method: isOut ? 'DELETE' : 'POST',
      }),
      responseSchema: PostSaved,
      invalidatesTags,
      onQueryStarted: showSaved,
    }),
  }),
});
export const { useReadDiscussionQuery, useAddPostMutation, useChangePostMutation, useTakeOutPostMutation } =
  talkApi;

interface Saving {
  readonly dispatch: ThunkDispatch<RootState, unknown, UnknownAction>;
  readonly getState: () => unknown;
  readonly queryFulfilled: PromiseLike<{ readonly data: PostSaved }>;
}

/** Puts what the server kept into each page of the talk that is in memory. */
async function showSaved({ copyId }: OfCopy, { dispatch, getState, queryFulfilled }: Saving): Promise<void> {
  const saved = await Promise.resolve(queryFulfilled).catch(() => null); // it is said where somebody pressed
  if (!saved) return;
  const { met, ...post } = saved.data;
  const pages = talkApi.util
    .selectCachedArgsForQuery(getState() as RootState, 'readDiscussion')
    .filter((page) => page.copyId === copyId);
  for (const page of pages)
    dispatch(
      talkApi.util.updateQueryData('readDiscussion', page, (talk) => {
        talk.met = met;
        putInto(talk, post);
      }),
    );
}

/** In the place of its older self, at the end of its thread, or as a new thread at the end of the talk. */
function putInto(talk: DiscussionView, post: PostView): void {
  const thread = talk.threads.find((each) => each.id === post.threadId);
  const at = thread?.posts.findIndex((each) => each.id === post.id) ?? -1;
  if (thread && at >= 0) thread.posts[at] = post;
  else if (thread) thread.posts.push(post);
  else if (post.parentId === null && talk.next === null)
    talk.threads.push({ id: post.threadId, posts: [post] });
}
