import type { KindFacts } from '../release/index.js';

export const discussionFacts: KindFacts<{ readonly markFor: 'group' | 'student' }> = {
  name: 'discussion',
  modes: () => ['own', 'read-along', 'common'],
  markFor: ({ markFor }) => markFor,
  isHandedIn: false,
  isWork: true,
  isMarked: true,
};
