import { DiscussionView, PostSaved, TalkChanges } from '@jigsaw/contract/discussion';
import type { AddPost, ChangePost, PostView } from '@jigsaw/contract/discussion';
import { sure } from '@jigsaw/core/lists';
import { api } from '../api/index.js';
import type { RootState } from '../api/index.js';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { takeIn } from './takeIn.js';

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
    /** What others did since the talk was read: asked for after each such change, and put into the pages of the talk in memory. It answers how many
     * threads that were. */
    readTalkChanges: build.query<number, string>({
      queryFn: async (copyId, { dispatch, getState }, _options, ask) => {
        for (;;) {
          const pages = pagesOf(getState(), copyId);
          if (pages.length === 0) return { data: 0 }; // it has just been read, or will be
          const since = Math.min(...pages.map(({ talk }) => talk.asOf));
          const before = savedTimes;
          const answer = await ask(`copies/${copyId}/discussion/changes?since=${since}`);
          if (answer.error) {
            dispatch(talkApi.util.invalidateTags(['Talk'])); // the talk itself tells what is the matter
            return { error: answer.error };
          }
          // One's own post was kept meanwhile, and this answer may be from before it.
          if (savedTimes !== before) continue;
          return { data: show(TalkChanges.parse(answer.data), pages, dispatch as Dispatch) };
        }
      },
      providesTags: ['Post'],
      keepUnusedDataFor: 0,
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
    deletePost: build.mutation<PostSaved, OfCopy & { postId: string; isDeleted: boolean }>({
      query: ({ copyId, postId, isDeleted }) => ({
        url: `copies/${copyId}/posts/${postId}${isDeleted ? '' : '/restore'}`,
        method: isDeleted ? 'DELETE' : 'POST',
      }),
      responseSchema: PostSaved,
      invalidatesTags,
      onQueryStarted: showSaved,
    }),
  }),
});
export const {
  useReadDiscussionQuery,
  useReadTalkChangesQuery,
  useAddPostMutation,
  useChangePostMutation,
  useDeletePostMutation,
} = talkApi;

interface PageInMemory {
  readonly at: OfCopy & { readonly after: string | null };
  readonly talk: DiscussionView;
}

const pagesOf = (state: unknown, copyId: string): PageInMemory[] =>
  talkApi.util
    .selectCachedArgsForQuery(state as RootState, 'readDiscussion')
    .filter((at) => at.copyId === copyId)
    .flatMap((at) => {
      const { data } = talkApi.endpoints.readDiscussion.select(at)(state as RootState);
      return data ? [{ at, talk: data }] : [];
    });

type Dispatch = ThunkDispatch<RootState, unknown, UnknownAction>;

function show(
  { asOf, threads, met }: TalkChanges,
  pages: readonly PageInMemory[],
  dispatch: Dispatch,
): number {
  const taken = threads && takeIn(pages.map(({ talk }) => talk), threads); // prettier-ignore
  if (!taken) {
    dispatch(talkApi.util.invalidateTags(['Talk']));
    return 0;
  }
  for (const [index, { at }] of pages.entries())
    dispatch(
      talkApi.util.updateQueryData('readDiscussion', at, () => ({ ...sure(taken[index]), asOf, met })),
    );
  return threads.length;
}

interface Saving {
  readonly dispatch: Dispatch;
  readonly getState: () => unknown;
  readonly queryFulfilled: PromiseLike<{ readonly data: PostSaved }>;
}

/** How often something of one's own was kept. */
let savedTimes = 0;

/** Puts what the server kept into each page of the talk that is in memory. */
async function showSaved({ copyId }: OfCopy, { dispatch, getState, queryFulfilled }: Saving): Promise<void> {
  const saved = await Promise.resolve(queryFulfilled).catch(() => null); // it is said where someone pressed
  if (!saved) return;
  const { met, ...post } = saved.data;
  savedTimes += 1;
  for (const { at } of pagesOf(getState(), copyId))
    dispatch(
      talkApi.util.updateQueryData('readDiscussion', at, (talk) => {
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
