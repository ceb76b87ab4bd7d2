import type { KindFacts } from '../release/index.js';

/** Something to be read: by the class in one copy, or by each group in its own, where its replies stay among them. */
export const noticeFacts: KindFacts = {
  name: 'notice',
  modes: () => ['own', 'common'],
  markFor: () => 'student',
  isHandedIn: false,
  isWork: false,
  isMarked: false,
};

/** The rule of the talk under a notice: all may reply, or no one; nothing is asked of anyone. */
export const noticeTalk = ({ hasReplies }: { readonly hasReplies: boolean }) =>
  ({
    studentsOpenThreads: hasReplies,
    isSilent: !hasReplies,
    posts: 0,
    postWords: 0,
    replies: 0,
    replyWords: 0,
    markFor: 'student',
  }) as const;
