import type { DiscussionView, TalkChanges } from '@jigsaw/contract/discussion';

type Thread = DiscussionView['threads'][number];
/** A page of a talk as far as it is in memory. */
export type Page = Pick<DiscussionView, 'threads' | 'next'>;

/** What becomes of each page, in their order, when these threads take their places.
 * @returns null: one belongs into the middle, where this page does not know its neighbours. */
export function takeIn<T extends Page>(
  pages: readonly T[],
  threads: NonNullable<TalkChanges['threads']>,
): T[] | null {
  let result = [...pages];
  for (const thread of threads) {
    const isKnown = result.some((page) => page.threads.some((each) => each.id === thread.id));
    if (isKnown) {
      result = result.map((page) => ({ ...page, threads: replaced(page.threads, thread) }));
      continue;
    }
    if (thread.posts.length === 0) continue; // it came and went
    if (!isLatest(thread, result)) return null;
    // Unless there are later ones that were not asked for: it comes with them.
    result = result.map((page) =>
      page.next === null ? { ...page, threads: [...page.threads, thread] } : page,
    );
  }
  return result;
}

const replaced = (threads: readonly Thread[], thread: Thread): Thread[] =>
  threads.flatMap((each) => (each.id !== thread.id ? [each] : thread.posts.length === 0 ? [] : [thread]));

const begun = (thread: Thread): string => thread.posts[0]?.createdAt ?? '';
const isLatest = (thread: Thread, pages: readonly Page[]): boolean =>
  pages.every((page) => page.threads.every((each) => begun(each) <= begun(thread)));
