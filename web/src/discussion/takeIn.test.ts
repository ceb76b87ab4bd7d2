import { describe, expect, it } from '@jest/globals';
import type { PostView } from '@jigsaw/contract/discussion';
import { sure } from '@jigsaw/core/lists';
import { aPost, aTalk } from '../test/work.js';
import { takeIn } from './takeIn.js';

const begun = (minute: number, more: Partial<PostView> = {}) =>
  aPost('Noor', `At ${minute}`, { createdAt: `2026-11-10T10:${minute}:00Z`, ...more });
const [ten, twenty, thirty, forty] = [begun(10), begun(20), begun(30), begun(40)];
const pages = (next: boolean) => [
  aTalk([[ten]], { next: ten.id }),
  aTalk([[twenty], [thirty]], next ? { next: thirty.id } : {}),
];
const threadOf = (posts: readonly PostView[]) => ({ id: sure(posts[0]).threadId, posts: [...posts] });
const minutes = (result: ReturnType<typeof takeIn>) =>
  result?.map(({ threads }) => threads.map(({ posts }) => posts.map((post) => post.createdAt.slice(14, 16))));

describe('what others did in a talk', () => {
  it('takes the place of the thread as it was, on whichever page that is', () => {
    const answered = [ten, begun(50, { parentId: ten.id })];
    expect(minutes(takeIn(pages(false), [threadOf(answered)]))).toEqual([[['10', '50']], [['20'], ['30']]]);
  });

  it('takes a thread away that is gone, and leaves out one that came and went', () => {
    const gone = { id: twenty.threadId, posts: [] };
    const unknown = { id: forty.threadId, posts: [] };
    expect(minutes(takeIn(pages(false), [gone, unknown]))).toEqual([[['10']], [['30']]]);
  });

  it('puts a new thread at the end, unless the end is not there yet', () => {
    expect(minutes(takeIn(pages(false), [threadOf([forty])]))).toEqual([[['10']], [['20'], ['30'], ['40']]]);
    expect(minutes(takeIn(pages(true), [threadOf([forty])]))).toEqual([[['10']], [['20'], ['30']]]);
    expect(minutes(takeIn([aTalk([])], [threadOf([forty])]))).toEqual([[['40']]]);
  });

  it('does not guess where one belongs that was put back in the middle', () => {
    expect(takeIn(pages(false), [threadOf([begun(25)])])).toBeNull();
  });
});
