import { Decimal } from 'decimal.js';
import { roundMark } from '../marks/index.js';

/** What a discussion asks of each student. 0 posts and 0 replies: nothing is asked. */
export interface DiscussionRule {
  readonly posts: number;
  readonly postWords: number;
  readonly replies: number;
  readonly replyWords: number;
}

export interface CountedPost {
  readonly isReply: boolean;
  readonly words: number;
  /** Milliseconds. */
  readonly at: number;
}

export interface RequirementsMet {
  readonly posts: { readonly done: number; readonly asked: number };
  readonly replies: { readonly done: number; readonly asked: number };
  /** 0 to 1, exact; null: nothing was asked. */
  readonly met: string | null;
  readonly isComplete: boolean;
}

/** What one student has done of what was asked (CALC §13). A post counts if it has the words and came by `due`.
 * @param due milliseconds; null: there is no hurry. */
export function requirementsMet(
  rule: DiscussionRule,
  posts: readonly CountedPost[],
  due: number | null,
): RequirementsMet {
  const inTime = posts.filter((post) => due === null || post.at <= due);
  const written = inTime.filter((post) => !post.isReply && post.words >= rule.postWords).length;
  const replied = inTime.filter((post) => post.isReply && post.words >= rule.replyWords).length;
  const asked = rule.posts + rule.replies;
  const done = Math.min(written, rule.posts) + Math.min(replied, rule.replies);
  return {
    posts: { done: written, asked: rule.posts },
    replies: { done: replied, asked: rule.replies },
    met: asked === 0 ? null : new Decimal(done).div(asked).toString(),
    isComplete: done === asked,
  };
}

/** points · met, as a proposal for the marker; null where nothing was asked. */
export function suggestedMark(points: string, { met }: RequirementsMet): string | null {
  return met === null ? null : roundMark(new Decimal(points).times(met));
}
