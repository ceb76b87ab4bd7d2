import type { KindRules } from '../release/index.js';

export type DiscussionAct = 'open-thread' | 'reply' | 'change-own' | 'take-out-any';

/** Members and staff talk; staff may also delete what should not stand there. */
export function discussionRules({
  studentsOpenThreads,
}: {
  readonly studentsOpenThreads: boolean;
}): KindRules<DiscussionAct> {
  return {
    acts: {
      'open-thread': studentsOpenThreads ? ['member', 'staff'] : ['staff'],
      reply: ['member', 'staff'],
      'change-own': ['member', 'staff'],
      'take-out-any': ['staff'],
    },
  };
}
