import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { discussionRules, requirementsMet, suggestedMark } from './index.js';
import type { CountedPost } from './index.js';

const rule = { posts: 1, postWords: 120, replies: 2, replyWords: 40 };
const post = (words: number, at = 0): CountedPost => ({ isReply: false, words, at });
const reply = (words: number, at = 0): CountedPost => ({ isReply: true, words, at });

describe('what a discussion asks', () => {
  it('counts posts and replies that have the words', () => {
    const met = requirementsMet(rule, [post(146), reply(44), reply(39)], null);
    expect(met).toMatchObject({
      posts: { done: 1, asked: 1 },
      replies: { done: 1, asked: 2 },
      isComplete: false,
    });
    expect(suggestedMark('9', met)).toBe('6');
  });
  it('does not count what came after it was due, nor more than was asked', () => {
    expect(requirementsMet(rule, [post(120, 11), reply(40, 10)], 10).met).toBe(
      requirementsMet(rule, [reply(40)], 10).met,
    );
    expect(requirementsMet(rule, [post(200), post(200), reply(50), reply(50), reply(50)], 10)).toMatchObject({
      met: '1',
      isComplete: true,
    });
  });
  it('counts exactly the words asked, and no replies in place of a post', () => {
    const exactly = requirementsMet(rule, [post(120), reply(40), reply(40)], null);
    expect(exactly).toMatchObject({ met: '1', isComplete: true });
    const repliesOnly = requirementsMet(rule, [reply(40), reply(40), reply(40)], null);
    expect(repliesOnly).toMatchObject({ isComplete: false, replies: { done: 3, asked: 2 } });
    expect(Number(repliesOnly.met)).toBeCloseTo(2 / 3);
  });
  it('suggests no mark where nothing was asked', () => {
    const nothing = requirementsMet({ posts: 0, postWords: 0, replies: 0, replyWords: 0 }, [], null);
    expect(nothing).toMatchObject({ met: null, isComplete: true });
    expect(suggestedMark('10', nothing)).toBeNull();
  });
  it('is never less met for having written more', () =>
    fc.assert(
      fc.property(
        fc.array(fc.record({ isReply: fc.boolean(), words: fc.nat(200), at: fc.nat(20) })),
        fc.record({ isReply: fc.boolean(), words: fc.nat(200), at: fc.nat(20) }),
        (posts, more) => {
          expect(Number(requirementsMet(rule, [...posts, more], 10).met)).toBeGreaterThanOrEqual(
            Number(requirementsMet(rule, posts, 10).met),
          );
        },
      ),
    ));
});

describe('who may do what in a discussion', () => {
  it('leaves opening threads to staff where the instructor says so', () => {
    expect(discussionRules({ studentsOpenThreads: true }).acts['open-thread']).toContain('member');
    expect(discussionRules({ studentsOpenThreads: false }).acts['open-thread']).toEqual(['staff']);
  });
  it('lets only staff take out what others wrote', () =>
    expect(discussionRules({ studentsOpenThreads: true }).acts['take-out-any']).toEqual(['staff']));
});
