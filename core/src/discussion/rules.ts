import type { KindRules } from '../release/index.js';

export type DiscussionAct = 'open-thread' | 'reply' | 'change-own' | 'take-out-any';

/** Members and staff talk; staff may also delete what should not stand there. */
export function discussionRules({
  studentsOpenThreads,
  isSilent = false,
}: {
  readonly studentsOpenThreads: boolean;
  /** No one writes, not even staff; what was written before stays. */
  readonly isSilent?: boolean;
}): KindRules<DiscussionAct> {
  const talking = isSilent ? [] : (['member', 'staff'] as const);
  return {
    acts: {
      'open-thread': studentsOpenThreads || isSilent ? talking : ['staff'],
      reply: talking,
      'change-own': ['member', 'staff'],
      'take-out-any': ['staff'],
    },
  };
}
