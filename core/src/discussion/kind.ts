import type { KindFacts } from '../release/index.js';

/** Of its settings: `replies` is how many each student has to write. */
export const discussionFacts: KindFacts<{
  readonly markFor: 'group' | 'student';
  readonly replies: number;
}> = {
  name: 'discussion',
  modes: () => ['own', 'read-along', 'common'],
  markFor: ({ markFor }) => markFor,
  isHandedIn: false,
  isWork: true,
  isMarked: true,
  whyNotDone: ({ replies }, members) =>
    replies > 0 && members < 2
      ? 'Each student has to reply, and in a group of one there is no one to reply to.'
      : null,
};
